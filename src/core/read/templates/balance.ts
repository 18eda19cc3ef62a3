// Tags that a branch opens and does not close, or closes and has not opened: which tree the parser is to see, and what of it
// other branches make otherwise.

export interface Range {
  readonly start: number;
  readonly end: number;
}

export interface Balance {
  /** Tags of other branches than the first, which the parser must not see: they stand for those of the first. */
  readonly hidden: readonly Range[];
  /** By offset of a start tag of the first branch, those that stand in its place in the others. */
  readonly inPlaceOf: ReadonlyMap<number, readonly Range[]>;
  /** By offset of a start tag that its branch does not close: what begins from there on may stand outside of it. */
  readonly halves: ReadonlyMap<number, number>;
  /** From here on an element may stand in something that the tree does not show. */
  readonly looseFrom: number | undefined;
  /** From here on nothing says which element stands in which. */
  readonly lostFrom: number | undefined;
}

interface Tag extends Range {
  readonly name: string;
  readonly closes: boolean;
}

/** Names whose elements hold nothing, or end without an end tag (HTML standard, "optional tags"). */
const UNBALANCED = new Set([
  'area',
  'base',
  'br',
  'col',
  'embed',
  'hr',
  'img',
  'input',
  'link',
  'meta',
  'param',
  'source',
  'track',
  'wbr',
  'p',
  'li',
  'dt',
  'dd',
  'tr',
  'td',
  'th',
  'thead',
  'tbody',
  'tfoot',
  'option',
  'optgroup',
  'colgroup',
  'caption',
  'rt',
  'rp',
  'html',
  'head',
  'body',
]);
const TOKENS =
  /<!--[\s\S]*?(?:-->|$)|<(script|style|textarea|title)\b[\s\S]*?(?:<\/\1|$)|<(\/?)([a-z][^\s/>]*)(?:"[^"]*"|'[^']*'|[^>"'])*>/gi;

/** In: a text without engine text, every offset as it was; the branches of each choice in it, in order. */
export function balanceOf(text: string, choices: readonly (readonly Range[])[]): Balance {
  if (choices.length === 0) return NONE;
  const tags = tagsOf(text);
  const hidden = new Set<Tag>();
  const halves = new Map<number, number>();
  const loose: number[] = [];
  let first = Number.POSITIVE_INFINITY;
  const inPlaceOf = new Map<number, Range[]>();
  let lost = Number.POSITIVE_INFINITY;
  for (const branches of choices) {
    const each = branches.map(({ start, end }) =>
      // What another branch stands for is counted once: an inner choice is looked at before the one around it.
      unmatched(tags.filter((tag) => start <= tag.start && tag.end <= end && !hidden.has(tag))),
    );
    const [opened = [], ...others] = each.map((alone) => alone.filter(({ closes }) => !closes));
    const stands = others.every((other) => other.every(({ name }, at) => opened[at]?.name === name));
    for (const [number, alone] of each.entries())
      for (const tag of alone) {
        first = Math.min(first, tag.start);
        if (!stands) lost = Math.min(lost, tag.start);
        else if (number > 0) hidden.add(tag);
        else if (!tag.closes)
          halves.set(
            tag.start,
            Math.min(halves.get(tag.start) ?? Number.POSITIVE_INFINITY, branches[0]!.end),
          );
        if (number > 0 || tag.closes) loose.push(tag.start);
      }
    if (!stands) continue;
    for (const other of others)
      for (const [at, tag] of other.entries())
        inPlaceOf.set(opened[at]!.start, [...(inPlaceOf.get(opened[at]!.start) ?? []), tag]);
  }
  if (first === Number.POSITIVE_INFINITY) return NONE;
  const left = unmatched(tags.filter((tag) => !hidden.has(tag)));
  return {
    hidden: [...hidden],
    inPlaceOf,
    halves,
    looseFrom: loose.length === 0 ? undefined : Math.min(...loose),
    lostFrom: left.length > 0 ? first : lost === Number.POSITIVE_INFINITY ? undefined : lost,
  };
}

const NONE: Balance = {
  ...{ hidden: [], inPlaceOf: new Map(), halves: new Map() },
  ...{ looseFrom: undefined, lostFrom: undefined },
};

function tagsOf(text: string): Tag[] {
  return [...text.matchAll(TOKENS)].flatMap(({ 0: whole, 2: slash, 3: written, index: start }) => {
    const name = written?.toLowerCase();
    if (name === undefined || UNBALANCED.has(name) || whole.endsWith('/>')) return [];
    return [{ start, end: start + whole.length, name, closes: slash === '/' }];
  });
}

/** Start tags without an end tag among them, and end tags without a start tag. */
function unmatched(tags: readonly Tag[]): Tag[] {
  const alone: Tag[] = [];
  const open: Tag[] = [];
  for (const tag of tags) {
    if (!tag.closes) open.push(tag);
    else {
      const at = open.findLastIndex(({ name }) => name === tag.name);
      if (at < 0) alone.push(tag);
      else alone.push(...open.splice(at).slice(1));
    }
  }
  return [...alone, ...open];
}
