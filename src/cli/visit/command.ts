// `acervus visit`: brings the pages of a running system, to be asked, overridden and proven.

import type { Command } from 'commander';
import type { VisitOptions } from '../../commands/visit/visit.js';
import { BLOCK_SELECTOR } from '../../core/ask/visit/block-selector.js';
import { either, isMadeOf, not, SPACE } from '../../core/base/characters.js';
import { UsageError } from '../../core/base/usage-error.js';
import { USUAL } from '../../site/visiting/options.js';
import { readWhole } from '../shared/numbers.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly pages?: string;
  readonly depth?: string;
  readonly match?: readonly string[];
  readonly skip?: readonly string[];
  readonly ignoreRobots?: boolean;
  readonly browser?: boolean;
  readonly widths?: string;
  readonly own?: readonly string[];
  readonly ownPage?: readonly string[];
  readonly cookies?: string;
  readonly headers?: string;
  readonly atOnce?: string;
  readonly pause?: string;
  readonly requests?: string;
  readonly megabytes?: string;
  readonly seconds?: string;
}

/** Exit code 1 when a page or a sheet failed. */
export function defineVisit(program: Command, act: Act): void {
  program
    .command('visit')
    .description('bring the pages of a running system into a folder, to be asked, overridden and proven')
    .argument('[from]', 'an address, a sitemap, a file with an address a line, or a .har file')
    .argument('[folder]', 'where to; without an address: a folder to visit again')
    .option('--pages <n>', `the most pages (default: ${USUAL.pages})`)
    .option('--depth <n>', 'follow links n levels deep')
    .option('--match <pattern>', 'only pages whose path is like this; repeatable', again)
    .option('--skip <pattern>', 'no pages whose path is like this; repeatable', again)
    .option(
      '--own <box>',
      'your own CSS on every page: #id or style.class of a block, or the end of a sheet’s address',
      again,
    )
    .option('--own-page <block>', 'your own CSS on single pages: #id or style.class of a block', again)
    .option('--all', 'bring fonts and pictures too; show every line of every list')
    .option('--browser', 'take pages as an installed Chromium shows them, after their scripts')
    .option('--widths <list>', 'with --browser: widths in pixels; a page that differs is kept at each')
    .option('--cookies <file>', 'cookies to send, in Netscape’s form; never shown, never kept')
    .option('--headers <file>', 'headers to send, "name: value" a line; never shown, never kept')
    .option('--ignore-robots', 'visit what robots.txt asks to leave alone')
    .option('--at-once <n>', `requests at a time (default: ${USUAL.atOnce})`)
    .option('--pause <ms>', `between requests (default: ${USUAL.pause}; 0 for this machine and its house)`)
    .option('--requests <n>', `stop after n requests (default: ${USUAL.bounds.requests})`)
    .option('--megabytes <n>', `stop after n megabytes (default: ${USUAL.bounds.bytes / 1_000_000})`)
    .option('--seconds <n>', `stop after n seconds (default: ${USUAL.bounds.seconds})`)
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExit code 1 when something failed.\n\nExample:\n  acervus visit https://skerrin.example/ line --own "#own-css"\n  acervus visit line                      again: asks only for what has changed\n  acervus visit saved.har line',
    )
    .action(
      act(async (terminal, first: string | undefined, second: string | undefined, flags: Flags) => {
        const { from, folder } = readWords(first, second);
        const options = readFlags(flags);
        const { visit } = await import('../../commands/visit/visit.js');
        const { withProgress } = await import('../shared/progress.js');
        const { present } = await import('../shared/present.js');
        const { planLine } = await import('./plan-line.js');
        const askBoxes = terminal.canAsk && flags.json !== true ? await asker() : undefined;
        const document = await withProgress(terminal, 'asking', ({ steps, end, say }) =>
          visit(from, folder, {
            ...options,
            askBoxes:
              askBoxes &&
              ((likely) => {
                end();
                return askBoxes(likely);
              }),
            onStep: say,
            onPage: steps('visited'),
            onPlan: (plan) => terminal.warn(`${planLine(plan)}\n`),
          }),
        );
        await present(terminal, document, flags, async () => {
          const { visitLines } = await import('./lines.js');
          return visitLines(document, flags.all === true);
        });
        return document.failed.length > 0 || document.stopped !== undefined ? 1 : 0;
      }),
    );
}

/** Collects what is repeated. */
function again(one: string, known: readonly string[] | undefined): readonly string[] {
  return [...(known ?? []), one];
}

async function asker() {
  return (await import('./ask-boxes.js')).askBoxes;
}

/** One word alone is an address, or a folder that was visited before. */
function readWords(
  first: string | undefined,
  second: string | undefined,
): { from: string | undefined; folder: string } {
  if (first === undefined) return { from: undefined, folder: '.' };
  if (second !== undefined) return { from: first, folder: second };
  if (/^https?:\/\//i.test(first) && URL.canParse(first))
    return { from: first, folder: new URL(first).host.replace(/[^\w.-]+/g, '-') };
  return /\.(?:har|txt|xml|xml\.gz)$/i.test(first)
    ? { from: first, folder: 'visited' }
    : { from: undefined, folder: first };
}

function readFlags(flags: Flags): VisitOptions {
  const number = (option: string, given: string | undefined, least = 1): number | undefined => {
    const complain = (text: string): UsageError =>
      new UsageError('visit-number', { option, given: text, least });
    const found = readWhole(given, complain);
    if (found !== undefined && found < least) throw complain(given!);
    return found;
  };
  const megabytes = number('--megabytes', flags.megabytes);
  const bounds = {
    requests: number('--requests', flags.requests),
    bytes: megabytes === undefined ? undefined : megabytes * 1_000_000,
    seconds: number('--seconds', flags.seconds),
  };
  const widths = flags.widths?.split(',').map((one) => number('--widths', one, 100)!);
  const own = [
    ...(flags.own ?? []).map(readBox),
    ...(flags.ownPage ?? []).map((page) => ({ page: readBlock(page) })),
  ];
  return {
    pages: number('--pages', flags.pages),
    depth: number('--depth', flags.depth, 0),
    match: flags.match,
    skip: flags.skip,
    ignoreRobots: flags.ignoreRobots,
    all: flags.all,
    browser: flags.browser ?? (widths === undefined ? undefined : true),
    widths,
    cookies: flags.cookies,
    headers: flags.headers,
    atOnce: number('--at-once', flags.atOnce),
    pause: number('--pause', flags.pause, 0),
    bounds: Object.fromEntries(Object.entries(bounds).filter(([, value]) => value !== undefined)),
    ...(own.length === 0 ? {} : { own }),
  };
}

function readBox(text: string) {
  if (BLOCK_SELECTOR.test(text) && !/^\.?[\w-]*\.css$/i.test(text)) return { style: text };
  if (isMadeOf(text, not(either(SPACE, '#[]')))) return { sheet: text };
  throw new UsageError('visit-own', { text });
}

function readBlock(text: string): string {
  if (BLOCK_SELECTOR.test(text)) return text;
  throw new UsageError('visit-own', { text });
}
