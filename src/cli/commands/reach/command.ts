// `acervus reach`: where a selector, class, value, custom property or rule has effect.

import type { z } from 'zod';
import { reachOf, readAsked } from '../../../core/ask/reach/index.js';
import { showPlace } from '../../../core/source.js';
import { openFolder } from '../../../site/files/files.js';
import { loadSite } from '../../../site/rendering/load.js';
import { UsageError } from '../../../core/usage-error.js';
import type { reachDocument } from '../../everyday-documents.js';
import { movedLines, onSite } from '../../shared/moved-lines.js';
import {
  amber,
  clean,
  declarationsLine,
  dim,
  grouped,
  heading,
  more,
  next,
  print,
  printJson,
  quoted,
  row,
} from '../../shared/paper.js';
import { Progress } from '../../shared/progress.js';

export interface ReachOptions {
  readonly all?: boolean;
  readonly json?: boolean;
}

type ReachJson = z.infer<typeof reachDocument>;

/** Out: 1 when it has effect nowhere, else 0. */
export function reach(wanted: string, folder: string, options: ReachOptions): number {
  const progress = new Progress();
  progress.say('reading the site');
  const site = loadSite(openFolder(folder));
  const { sheets, pages } = site.model.sources;
  const asked = readAsked(wanted, (path) => sheets.has(path) || pages.has(path));
  if (asked === undefined)
    throw new UsageError(
      `"${wanted}": is nothing to look for; name a selector, a value, a declaration or a place such as ${site.shared}:12`,
    );
  const platform = new Set(site.sheets.filter(({ owner }) => owner === 'platform').map(({ path }) => path));
  const found = reachOf(site.model, asked, (path) => platform.has(path));
  progress.end();
  const document: ReachJson = {
    format: 1,
    command: 'reach',
    asked: wanted,
    kind: asked.kind,
    ...JSON.parse(JSON.stringify(found)),
  };
  if (options.json === true) printJson(document);
  else print(reachLines(folder, document, options.all === true));
  return document.elements === 0 && document.declarations.length === 0 ? 1 : 0;
}

const KINDS: Readonly<Record<ReachJson['kind'], string>> = {
  rule: 'the rule at this place',
  'custom property': 'where it is set and used',
  selector: 'elements that match, and the rules that name it',
  declaration: 'every place that says it',
  value: 'every declaration that holds it',
};

function reachLines(folder: string, told: ReachJson, all: boolean): string[] {
  const few = <T>(items: readonly T[], most: number): readonly T[] => (all ? items : items.slice(0, most));
  const lines = [heading('Reach', `${clean(told.asked)}: ${KINDS[told.kind]}`)];
  lines.push(...movedLines(told, all, 'none'));
  if (told.declarations.length > 0) lines.push(heading('Declarations', 'elements on which each wins'));
  for (const one of few(told.declarations, 14)) {
    const said = declarationsLine([`${one.property}: ${one.value}${one.important ? ' !important' : ''}`]);
    const lots = [
      ...(one.waits > 0 ? [`waits for a state or medium on ${grouped(one.waits)}`] : []),
      ...(one.beaten > 0 ? [`beaten on ${grouped(one.beaten)}`] : []),
      ...(one.shared.times > 0
        ? [`said in ${grouped(one.shared.times)} other ${one.shared.times === 1 ? 'place' : 'places'}`]
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
  if (!all && told.declarations.length > 14) lines.push(more(told.declarations.length - 14, '--all'));
  if (told.declarations.length === 0)
    lines.push(row({ mark: 'needs', text: amber('no rule and no attribute says anything of it') }));
  lines.push(nextStep(folder, told));
  return lines;
}

/** The theme's own rule can be changed where it stands; the platform's is overridden. */
function nextStep(folder: string, { declarations, asked, kind }: ReachJson): string {
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
