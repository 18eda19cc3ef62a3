// `acervus prove`: shows that two states of a site look the same, or where they do not.

import type { Command } from 'commander';
import type { BrowserOptions } from '../../commands/prove/prove.js';
import { UsageError } from '../../core/base/usage-error.js';
import { readJobs, readWhole } from '../shared/numbers.js';
import { type PartFlags, readShare, writePart } from '../shared/parts.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act, Terminal } from '../shared/terminal.js';

interface Flags extends ShowFlags, PartFlags {
  readonly against?: string;
  readonly live?: boolean;
  readonly cookies?: string;
  readonly headers?: string;
  readonly jobs?: string;
  readonly timings?: boolean;
  readonly browser?: boolean;
  readonly pages?: readonly string[];
  readonly every?: string;
  readonly widths?: string;
}

/** Exit code 1 when the states differ. */
export function defineProve(program: Command, act: Act): void {
  program
    .command('prove')
    .description('show that two states of the site look the same, or where they do not')
    .argument('[site]', 'folder of the site', '.')
    .option('--against <folder|commit>', 'the other state; last-visit for what the visit before has left')
    .option('--live', 'the site as it runs now: pages that a visit brought are fetched again')
    .option('--cookies <file>', 'with --live: cookies to send, in Netscape’s form')
    .option('--headers <file>', 'with --live: headers to send, "name: value" a line')
    .option('--browser', 'look at both states in an installed Chromium too, and write a report with pictures')
    .option('--pages <pattern...>', 'with --browser: only these pages')
    .option('--every <n>', 'with --browser: every n-th page only')
    .option(
      '--widths <list>',
      'with --browser: widths in pixels (default: 1200,500); print is always looked at',
    )
    .option('--all', 'show every difference')
    .option('--json', 'print one JSON document')
    .option('--jobs <n>', 'compare pages in this many threads (default: as the size of the site calls for)')
    .option('--part <k/n>', 'prove one part of the pages only, and print it for --join')
    .option('--join <file...>', 'the whole proof out of all parts')
    .option('--timings', 'say on stderr where the time went')
    .addHelpText(
      'after',
      '\nExit code 1 when they differ.\n\nExample:\n  acervus prove my-site --against HEAD~1\n  acervus prove my-site --against HEAD~1 --browser --every 10\n  acervus prove line --live                 what was pasted looks as planned',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        const looking = readBrowserFlags(flags);
        const jobs = readJobs(flags.jobs);
        const share = readShare(flags);
        if (share !== undefined && flags.browser === true) throw new UsageError('part-browser', {});
        const { prove } = await import('../../commands/prove/prove.js');
        const { withProgress } = await import('../shared/progress.js');
        const { against } = flags;
        if (flags.live === true) return live(terminal, site, flags, { jobs, looking });
        if (against === undefined) throw new UsageError('live-or-against', {});
        if (share !== undefined) {
          const { provePart } = await import('../../site/threads/proving.js');
          const part = await withProgress(terminal, 'reading both states', ({ steps }) =>
            provePart(site, against, share, { jobs, onPage: steps('proving') }),
          );
          writePart(terminal, part);
          return 0;
        }
        let timings: ReadonlyMap<string, number> = new Map();
        const proven = await withProgress(terminal, 'reading both states', ({ steps }) =>
          prove(site, against, {
            jobs,
            parts: flags.join,
            browser: looking === undefined ? undefined : { ...looking, onPage: steps('looking at') },
            onPage: steps('proving'),
            onTimings: (parts) => {
              timings = parts;
            },
          }),
        );
        const { document } = proven;
        const { present, printTimings } = await import('../shared/present.js');
        await present(terminal, document, flags, async () => {
          const { proveLines } = await import('./lines.js');
          return proveLines(site, proven, flags.all === true);
        });
        if (flags.timings === true) await printTimings(terminal, timings);
        return document.equal && document.browser?.equal !== false ? 0 : 1;
      }),
    );
}

async function live(
  terminal: Terminal,
  site: string,
  flags: Flags,
  { jobs, looking }: { readonly jobs: number | undefined; readonly looking: BrowserOptions | undefined },
): Promise<number> {
  const { proveLive } = await import('../../commands/prove/prove.js');
  const { withProgress } = await import('../shared/progress.js');
  const { present } = await import('../shared/present.js');
  const proven = await withProgress(terminal, 'asking', ({ steps }) =>
    proveLive(site, {
      jobs,
      cookies: flags.cookies,
      headers: flags.headers,
      browser: looking === undefined ? undefined : { ...looking, onPage: steps('looking at') },
      onVisited: steps('visited'),
      onPage: steps('proving'),
    }),
  );
  const { document } = proven;
  await present(terminal, document, flags, async () => {
    const { proveLines } = await import('./lines.js');
    return proveLines(site, proven, flags.all === true);
  });
  return document.equal && document.browser?.equal !== false && document.live?.failed.length === 0 ? 0 : 1;
}

/** Throws `UsageError` for numbers that are none, and for options that mean nothing without `--browser`. */
function readBrowserFlags(flags: Flags): BrowserOptions | undefined {
  const option = (['pages', 'every', 'widths'] as const).find((name) => flags[name] !== undefined);
  if (flags.browser !== true && option !== undefined) throw new UsageError('browser-only', { option });
  const { widths: list } = flags;
  const widths = list
    ?.split(',')
    .map((one) => readWhole(one, () => new UsageError('widths', { given: list })) ?? 0);
  const every = readWhole(flags.every, (given) => new UsageError('every', { given }));
  return flags.browser === true ? { pages: flags.pages, every, widths } : undefined;
}
