// `acervus draft`: proposes a home for every style that is written in the wrong place or more than once.

import type { Command } from 'commander';
import { UsageError } from '../../core/base/usage-error.js';
import { readWhole } from '../shared/numbers.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act, Terminal } from '../shared/terminal.js';

interface Flags extends ShowFlags {
  readonly cache: boolean;
  readonly atLeast: string;
  readonly weaken?: boolean;
  readonly taste?: string;
  readonly scope?: string;
  readonly review?: boolean;
  readonly only?: string;
}

export function defineDraft(program: Command, act: Act): void {
  program
    .command('draft')
    .description('propose a home for every repeated style; write acervus-draft.yaml')
    .argument('[site]', 'folder of the site', '.')
    .option('--at-least <n>', 'share a style from this many elements on; 1 leaves nothing inline', '2')
    .option('--weaken', 'make rules that pile up ids and !important as weak as their work allows')
    .option('--taste <name>', '"whole looks", "balanced" or "small pieces"')
    .option('--scope <name>', 'how far rules reach: "site", "section" or "page"')
    .option('--review', 'go through the draft style by style, in a terminal')
    .option('--only <words>', 'show, or go through, only styles of a file, a sort of home, or a selector')
    .option('--no-cache', 'draft anew, even where nothing has changed')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .addHelpText(
      'after',
      '\nExample:\n  acervus draft my-site --at-least 3\n  acervus draft my-site --taste "small pieces"\n  acervus draft --only "new class" my-site\n  acervus draft --review my-site',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        if (flags.review !== true) return makeAndShow(terminal, site, flags);
        const { hasDraft, review } = await import('./review.js');
        if (!hasDraft(site)) await makeAndShow(terminal, site, flags);
        return review(terminal, site, flags.only);
      }),
    );
}

async function makeAndShow(terminal: Terminal, site: string, flags: Flags): Promise<number> {
  const atLeast = readWhole(flags.atLeast, (given) => new UsageError('at-least', { given }));
  const { draft } = await import('../../commands/draft/draft.js');
  const { followedBy, largeFrom } = await import('../shared/environment.js');
  const { withProgress } = await import('../shared/progress.js');
  const { present } = await import('../shared/present.js');
  const made = await withProgress(terminal, 'reading the site', ({ say: onStep, steps }) =>
    draft(site, {
      cache: flags.cache,
      largeFrom: largeFrom(terminal),
      onPage: steps('proving'),
      atLeast,
      weaken: flags.weaken,
      taste: flags.taste,
      scope: flags.scope,
      onStep,
      trace: followedBy(terminal),
    }),
  );
  await present(terminal, made.document, flags, async () => {
    const { draftLines } = await import('./lines.js');
    return draftLines(site, made, flags);
  });
  return 0;
}
