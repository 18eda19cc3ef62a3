// How a changed style is shown to a person: what moved, what did not, and why.

import type { RestyleResult } from '../../commands/restyle/restyle.js';
import { showPlace } from '../../core/base/source.js';
import { assumptionLines, assumptionsOfChange } from '../shared/assumption-lines.js';
import { doneLine, movedLines, onSite } from '../shared/moved-lines.js';
import { amber, clean, dim, grouped, heading, more, next, quoted, row } from '../shared/paper.js';
import { strayLines } from '../shared/stray-lines.js';
import { unmovedLines } from '../shared/unmoved-lines.js';

export function restyleLines(folder: string, { document, result }: RestyleResult, all: boolean): string[] {
  const { selector, asked, moved, refused, files } = document;
  const lines = [heading('Restyle', `${clean(selector)} { ${clean(asked.join('; '))} }`)];
  const rules = all ? document.rules : document.rules.slice(0, 3);
  for (const { selector: own, place, did } of rules)
    lines.push(
      row({
        mark: 'made',
        text:
          did === 'changed'
            ? `${clean(own)} ${dim('changed where it stands')}`
            : `${clean(own)} ${dim('has a rule of its own now, behind the one it shared')}`,
        place: showPlace(place),
      }),
    );
  if (document.rules.length > rules.length)
    lines.push(more(document.rules.length - rules.length, '--all', 'places'));
  lines.push(heading('Moved', `of ${grouped(result.proof.meant)} that the selector matches`));
  lines.push(...movedLines(moved, all));
  lines.push(...unmovedLines(result.unmoved));
  for (const { name, others } of result.through)
    lines.push(
      row({
        count: others,
        mark: others > 0 ? 'made' : 'none',
        text: `${others === 1 ? 'other element uses' : 'other elements use'} ${clean(name)} and ${others === 1 ? 'moves' : 'move'} with it`,
      }),
    );
  for (const { name } of result.tokens)
    lines.push(
      row({
        mark: 'needs',
        text: amber(
          `its value was ${clean(name)}: with --token that is changed instead, for all that use it`,
        ),
      }),
    );
  if (refused !== undefined) {
    lines.push(heading('Refused', `${refused}; nothing was written`), ...strayLines(result.proof, all));
    lines.push(next(`acervus reach ${quoted(selector)}${onSite(folder)}`, 'shows which rules compete there'));
    return lines;
  }
  lines.push(...assumptionLines(assumptionsOfChange(result.proof.proof.assumptions), all));
  const others = result.through.length > 0 ? 'elements beside these changed' : 'other elements changed';
  lines.push(heading('Proof'), doneLine(others, files));
  lines.push(next(`acervus undo${onSite(folder)}`, 'takes it back, byte for byte'));
  return lines;
}
