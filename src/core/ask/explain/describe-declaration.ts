// One declaration as it is told: where it stands, whose it is, how strong, and what became of it.

import { type Place, placeIn } from '../../base/source.js';
import {
  ALWAYS,
  type Edge,
  placeInSource,
  type StyleReader,
  specificityParts,
  type Weighed,
} from '../../cascade/index.js';
import { placeOf } from '../../proof/index.js';
import { type Circumstances, settleIn } from './circumstances.js';

/** Whose a declaration is. `page`: a style block. */
export type Whose = 'platform' | 'theme' | 'page' | 'style attribute' | 'old attribute';

export interface DescribedDeclaration {
  readonly property: string;
  /** As written. */
  readonly value: string;
  readonly important: boolean;
  readonly whose: Whose;
  /** Empty for what the element declares for itself. */
  readonly selector: string;
  /** Ids, classes, types; `undefined` for what the element declares for itself. */
  readonly specificity: readonly [number, number, number] | undefined;
  readonly layer: string | undefined;
  readonly place: Place;
  /** When it applies, empty for always. */
  readonly when: string;
  readonly beaten: { readonly by: Edge; readonly why: string } | undefined;
}

/** Whether a path is that of a platform sheet. */
export type IsPlatform = (path: string) => boolean;

export interface ExplainContext {
  readonly reader: StyleReader;
  readonly element: number;
  readonly isPlatform: IsPlatform;
  readonly circumstances: Circumstances;
}

export function describeDeclaration(one: Weighed, context: ExplainContext): DescribedDeclaration {
  const { writtenIn, entry, important, condition, weight, beatenBy } = one;
  const { reader, circumstances } = context;
  const settled = settleIn(condition, circumstances, reader.table.truths);
  return {
    property: entry.declaration.property,
    value: entry.declaration.value,
    important,
    whose: whoseIs(one, context),
    selector: writtenIn.kind === 'rule' ? writtenIn.rule.selector.text : '',
    specificity: writtenIn.kind === 'rule' ? specificityParts(weight.specificity) : undefined,
    layer: weight.layerName,
    place: placeOfDeclaration(one, context),
    when: settled === ALWAYS ? '' : reader.table.truths.text(settled),
    beaten: beatenBy && { by: beatenBy.edge, why: whyBeaten(one, beatenBy.winner, beatenBy.edge) },
  };
}

function whoseIs({ writtenIn }: Weighed, { isPlatform }: ExplainContext): Whose {
  if (writtenIn.kind === 'old attribute' || writtenIn.kind === 'style attribute') return writtenIn.kind;
  if (writtenIn.kind === 'trial rule') return 'theme';
  const { path, isBlock } = writtenIn.use.source;
  if (isBlock) return 'page';
  return isPlatform(path) ? 'platform' : 'theme';
}

function placeOfDeclaration({ writtenIn, entry }: Weighed, { reader, element }: ExplainContext): Place {
  const { page } = reader;
  if (writtenIn.kind === 'rule') {
    return placeInSource(writtenIn.use.source, entry.declaration.range.start);
  }
  const { tag } = page.elements[element]!;
  const name = writtenIn.kind === 'style attribute' ? 'style' : undefined;
  const range = name === undefined ? undefined : tag?.attributes.get(name);
  if (range !== undefined) return placeIn(page.path, page.text, range.start);
  return placeOf(page, page.elements[element]) ?? { path: page.path, line: 1, column: 1 };
}

/** The tie that was broken, in the words of whoever asks. */
function whyBeaten(loser: Weighed, winner: Weighed, edge: Edge): string {
  switch (edge) {
    case 'importance':
      return 'not !important, as the winner is';
    case 'style attribute':
      return 'a style attribute is stronger than any selector';
    case 'layer':
      return `its layer ${loser.weight.layerName ?? '(none)'} comes ${winner.important ? 'after' : 'before'} ${winner.weight.layerName ?? 'what is in no layer'}`;
    case 'specificity':
      return `${showSpecificity(loser.weight.specificity)} is less than ${showSpecificity(winner.weight.specificity)}`;
    case 'nearness of its scope':
      return 'its scope begins further up';
    case 'old attribute':
      return 'an old attribute is weaker than any rule';
    case 'order of the sheets':
      return 'as specific, in a sheet that comes earlier';
    case 'order in the sheet':
      return 'as specific, and earlier in the sheet';
    case 'order in the rule':
      return 'said again further down in the same rule';
  }
}

export function showSpecificity(specificity: number): string {
  return specificityParts(specificity).join(',');
}
