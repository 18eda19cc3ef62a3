// How a reach is shown to a person.

import type { ReachDocument } from '../../commands/reach/document.js';
import { showPlace } from '../../core/base/source.js';
import { movedLines, onSite } from '../shared/moved-lines.js';
import {
  amber,
  clean,
  declarationsLine,
  dim,
  grouped,
  heading,
  more,
  next,
  quoted,
  row,
} from '../shared/paper.js';

const KINDS: Readonly<Record<ReachDocument['kind'], string>> = {
  rule: 'the rule at this place',
  'custom property': 'where it is set and used',
  selector: 'elements that match, and the rules that name it',
  declaration: 'every place that declares it',
  value: 'every declaration that holds it',
};

export function reachLines(folder: string, document: ReachDocument, all: boolean): string[] {
  const few = <T>(items: readonly T[], most: number): readonly T[] => (all ? items : items.slice(0, most));
  const lines = [heading('Reach', `${clean(document.asked)}: ${KINDS[document.kind]}`)];
  lines.push(...movedLines(document, all, 'none'));
  if (document.declarations.length > 0) lines.push(heading('Declarations', 'elements on which each wins'));
  for (const one of few(document.declarations, 14)) {
    const said = declarationsLine([`${one.property}: ${one.value}${one.important ? ' !important' : ''}`]);
    const lots = [
      ...(one.waits > 0 ? [`waits for a state or medium on ${grouped(one.waits)}`] : []),
      ...(one.beaten > 0 ? [`beaten on ${grouped(one.beaten)}`] : []),
      ...(one.shared.times > 0
        ? [`declared in ${grouped(one.shared.times)} other ${one.shared.times === 1 ? 'place' : 'places'}`]
        : []),
    ];
    const from = one.selector === '' ? one.holder : `${clean(one.selector)}  ${one.holder}`;
    lines.push(
      row({
        count: one.wins,
        mark: one.wins + one.waits > 0 ? 'kept' : 'taken',
        text: `${said}  ${dim(from)}${lots.length === 0 ? '' : `  ${dim(lots.join(', '))}`}`,
        place: showPlace(one.place),
      }),
    );
  }
  if (!all && document.declarations.length > 14) lines.push(more(document.declarations.length - 14, '--all'));
  if (document.declarations.length === 0)
    lines.push(row({ mark: 'needs', text: amber('no rule and no attribute declares it') }));
  lines.push(nextStep(folder, document));
  return lines;
}

/** The theme's own rule can be changed where it stands; the platform's is overridden. */
function nextStep(folder: string, { declarations, asked, kind }: ReachDocument): string {
  const own = declarations.find(({ holder, selector }) => holder === 'theme' && selector !== '');
  if (own !== undefined)
    return next(
      `acervus restyle ${quoted(own.selector)} '${own.property}: …'${onSite(folder)}`,
      'changes it once, everywhere',
    );
  const platform = declarations.find(({ holder }) => holder === 'platform');
  if (platform !== undefined)
    return next(
      `acervus override ${quoted(platform.selector)} '${platform.property}: …'${onSite(folder)}`,
      'beats the platform there',
    );
  return next(
    `acervus explain <page> ${quoted(kind === 'selector' ? asked : '<selector>')}${onSite(folder)}`,
    'tells what styles one element, and why',
  );
}
