// What a draft proposes beside the styles of tags and rules: sets that repeat in sources of sheets, and style blocks in code.

import { groupBy } from '../../core/base/group-by.js';
import type { AdoptionReport, Draft } from '../../core/edit/draft/index.js';
import { type FileChange, together } from '../ledger/change.js';
import type { Site } from '../rendering/load.js';
import { moveCodeBlocks } from './code-blocks.js';
import { factorOut } from './factor.js';

type Decided = Pick<Draft, 'mixins' | 'code blocks'>;

interface OtherMoves {
  readonly changes: readonly FileChange[];
  readonly report: AdoptionReport;
  /** What the draft holds of it. */
  readonly entries: Decided & Pick<Draft, 'kept'>;
}

/** In: what a person has decided before; what is reported of all else. Out: `changes`, those with all else. */
export function withOthers(
  site: Site,
  earlier: Decided | undefined,
  { changes, report }: Pick<OtherMoves, 'changes' | 'report'>,
  onStep?: (step: string) => void,
): OtherMoves {
  const { mixins, changes: factored } = factorOut(site.files, site.config, earlier?.mixins ?? [], onStep);
  const {
    blocks,
    kept,
    changes: moved,
  } = moveCodeBlocks(site, new Set(changes.map(({ path }) => path)), earlier?.['code blocks'] ?? []);
  const others = [...groupBy(kept, ({ reason }) => reason)].map(([reason, own]) => ({
    reason,
    declarations: own.reduce((sum, { declarations }) => sum + declarations, 0),
    places: own.flatMap(({ places }) => places),
  }));
  return {
    changes: together(together(changes, factored), moved),
    report: {
      ...report,
      mixins: mixins.filter(({ take }) => take),
      codeBlocks: blocks.filter(({ take }) => take),
      kept: [...report.kept, ...others],
    },
    entries: {
      mixins: [...mixins],
      'code blocks': [...blocks],
      kept: others.map(({ places, ...one }) => ({ ...one, 'such as': places.slice(0, 2) })),
    },
  };
}
