// What stays where it is, by reason, and how often: the one count that the draft, the report and both documents show.

import { INVISIBLE_MARK } from '../../base/engine-marks.js';
import { groupBy } from '../../base/group-by.js';
import { withSingleSpaces } from '../../base/phrases.js';
import { type KeptReason, keptText } from '../../base/reasons/index.js';
import { comparePlaces, type Place, showPlace } from '../../base/source.js';

import { type Kept, type PlaceOf, writtenCount } from '../../search/index.js';
import { type MovableDeclaration, tagsOf } from '../../stock/index.js';

/** A rule or a value that the proof did not let go, beside the declarations in the markup. */
export interface KeptElsewhere {
  /** As it is written. */
  readonly text: string;
  /** Places that hold a declaration of it. */
  readonly declarations: number;
  readonly place: Place;
  readonly reason: KeptReason;
}

export interface KeptGroup {
  readonly reason: string;
  /** Declarations and old attributes. */
  readonly declarations: number;
  /** Each once, in order. */
  readonly places: readonly string[];
  /** The first two, each with what it says. */
  readonly examples: readonly string[];
}

interface Staying {
  readonly places: readonly Place[];
  readonly text: string;
  readonly declarations: number;
  readonly reason: string;
}

/** Most first. */
export function keptGroups(
  kept: readonly Kept[],
  elsewhere: readonly KeptElsewhere[],
  placeOf: PlaceOf,
): KeptGroup[] {
  const staying: Staying[] = [
    ...kept.map(({ styledTag, movable, reason }) => ({
      places: [placeOf(styledTag), ...styledTag.also],
      text: movableText(movable),
      declarations: tagsOf(styledTag) * writtenCount(movable),
      reason: keptText(reason),
    })),
    ...elsewhere.map(({ text, declarations, place, reason }) => ({
      places: [place],
      text,
      declarations,
      reason: keptText(reason),
    })),
  ];
  return [...groupBy(staying, ({ reason }) => reason)]
    .map(([reason, group]) => ({
      reason,
      declarations: Math.max(1, Math.round(group.reduce((sum, { declarations }) => sum + declarations, 0))),
      places: [
        ...new Set(
          group
            .flatMap(({ places }) => places)
            .sort(comparePlaces)
            .map(showPlace),
        ),
      ],
      examples: [
        ...new Set(group.slice(0, 2).map(({ places: [place], text }) => `${showPlace(place!)} ${text}`)),
      ],
    }))
    .sort((a, b) => b.declarations - a.declarations || (a.reason < b.reason ? -1 : 1));
}

/** What a movable declaration declares, as it is written. */
function movableText({ from, declarations }: MovableDeclaration): string {
  if (from.kind === 'attributes') return from.names.join(' ');
  if (from.kind === 'name') return 'the element itself';
  const text = declarations.map(({ property, value }) => `${property}: ${value}`).join('; ');
  return withSingleSpaces(text.replaceAll(INVISIBLE_MARK, ''));
}
