// What a draft declares about what the search finds: names, refusals, exceptions, merges.

import { isMadeOf, LETTER } from '../../base/characters.js';
import { shortHash } from '../../base/short-hash.js';
import { showPlace } from '../../base/source.js';
import { UsageError } from '../../base/usage-error.js';
import type { SiteModel } from '../../cascade/index.js';
import { parseDeclarations } from '../../read/sheets/index.js';
import {
  type ClassMove,
  classMoveKey,
  classSelectors,
  type Decided,
  type IdClass,
  idClassKey,
  type Kept,
  type Member,
  moveKey,
  type NamedIdClass,
  type NamedSection,
  type NamedStyle,
  type NameRules,
  nameStyles,
  nameValue,
  type PlaceOf,
  type RuleMove,
  type SectionValue,
  type SheetValue,
  type Style,
  sectionKey,
  sectionWord,
  unnamed,
  usualSpelling,
  type ValueChange,
  type ValueToken,
  wordOf,
} from '../../search/index.js';
import { declarationKey, type MovableDeclaration } from '../../stock/index.js';
import { customNames, type NamingOptions, namesInUse, namingRules, type OwnedSheet } from './naming.js';
import type { Draft, DraftStyle } from './schema.js';

/** What a person, or an earlier draft, has to declare about what is found. */
export interface Decisions {
  readonly values: readonly ValueChange[];
  readonly isWanted: (move: RuleMove) => boolean;
  readonly isWantedClass: (move: ClassMove) => boolean;
  /** Of declarations that a rule declares by now; by their normal form. */
  readonly isWantedPart: (part: { readonly key: string }) => boolean;
  readonly sections: (found: readonly SectionValue[], model: SiteModel) => readonly NamedSection[];
  readonly idClasses: (found: readonly IdClass[]) => readonly NamedIdClass[];
  readonly styles: (found: readonly Style[], placeOf: PlaceOf) => Decided;
  readonly tokens: (found: readonly SheetValue[], model: SiteModel) => readonly ValueToken[];
}

/** What was decided about, complete once all was asked. */
export interface Found {
  readonly ruleMoves: readonly RuleMove[];
  readonly classMoves: readonly ClassMove[];
  /** Ids of declarations that a rule declares by now. */
  readonly parts: readonly string[];
  readonly sections: readonly NamedSection[];
  readonly idClasses: readonly NamedIdClass[];
  readonly styles: readonly NamedStyle[];
  readonly values: readonly ValueToken[];
}

export interface DecidedSite {
  readonly model: SiteModel;
  readonly sheets: readonly OwnedSheet[];
  /** Site path of the shared sheet. */
  readonly shared: string;
  readonly naming: NamingOptions;
  /** Texts of documents that load the shared sheet and were not read. */
  readonly unreadDocuments: readonly string[];
}

/**
 * Decisions by a draft.
 * In: the draft, if there is one; whether what it does not hold is refused (adopting) or taken (drafting again).
 * Out: the decisions, and what they were asked about.
 */
export function decide(
  site: DecidedSite,
  draft: Draft | undefined,
  unknown: 'take' | 'refuse',
): Decisions & { readonly found: () => Found } {
  return new DraftDecisions(site, draft, unknown);
}

/** Methods are handed on one by one, so that each is bound. */
class DraftDecisions implements Decisions {
  readonly values: readonly ValueChange[];
  readonly #site: DecidedSite;
  readonly #draft: Draft | undefined;
  readonly #takesUnknown: boolean;
  readonly #byId: ReadonlyMap<string, DraftStyle>;
  readonly #moves = new Map<string, RuleMove>();
  readonly #classMoves = new Map<string, ClassMove>();
  readonly #parts = new Set<string>();
  #sections: readonly NamedSection[] = [];
  #idClasses: readonly NamedIdClass[] = [];
  #styles: readonly NamedStyle[] = [];
  #tokens: readonly ValueToken[] = [];
  #rules: NameRules | undefined;

  constructor(site: DecidedSite, draft: Draft | undefined, unknown: 'take' | 'refuse') {
    this.#site = site;
    this.#draft = draft;
    this.#takesUnknown = unknown === 'take';
    this.#byId = new Map((draft?.styles ?? []).map((style) => [style.id, style]));
    this.values = (draft?.['near misses'] ?? []).filter(({ change }) => change);
  }

  readonly isWanted = (move: RuleMove): boolean => {
    this.#moves.set(moveId(move), move);
    return this.#isTaken(moveId(move));
  };

  readonly isWantedClass = (move: ClassMove): boolean => {
    this.#classMoves.set(classId(move), move);
    return this.#isTaken(classId(move));
  };

  readonly isWantedPart = ({ key }: { readonly key: string }): boolean => {
    this.#parts.add(partId(key));
    return this.#isTaken(partId(key));
  };

  readonly sections = (values: readonly SectionValue[], model: SiteModel): readonly NamedSection[] => {
    const used = customNames(model);
    for (const name of this.#givenNames()) used.add(name);
    const { prefix } = this.#namingRules().convention;
    this.#sections = values.map((value): NamedSection => {
      const name = this.#byId.get(sectionId(value))?.name ?? freeName(sectionWord(value), prefix, used);
      used.add(name);
      return { ...value, name };
    });
    return this.#sections.filter((value) => this.#isTaken(sectionId(value)));
  };

  readonly idClasses = (values: readonly IdClass[]): readonly NamedIdClass[] => {
    const taken = new Set(this.#namingRules().taken);
    for (const name of this.#givenNames()) taken.add(name.toLowerCase());
    for (const { className } of this.#styles) if (className !== undefined) taken.add(className.toLowerCase());
    const names = nameStyles(values.map(unnamedIds), { ...this.#namingRules(), taken });
    this.#idClasses = values.map((value, at): NamedIdClass => {
      return { ...value, name: this.#byId.get(idClassId(value))?.name ?? names[at]! };
    });
    return this.#idClasses.filter((value) => this.#isTaken(idClassId(value)));
  };

  readonly styles = (styles: readonly Style[], placeOf: PlaceOf): Decided => {
    const inUse = this.#takesUnknown ? undefined : namesInUse(this.#site.model);
    this.#styles = nameAll(this.#namingRules(), styles, this.#byId, inUse);
    const kept: Kept[] = [];
    const taken = this.#styles.flatMap((style): NamedStyle[] => {
      const entry = this.#byId.get(styleId(style));
      if (entry?.take ?? this.#takesUnknown)
        return entry === undefined ? [style] : [edited(style, entry, this.#site.shared, placeOf, kept)];
      const kind = entry === undefined ? 'not in the draft' : 'refused in the draft';
      for (const member of style.members) keepAll(member, { kind }, kept);
      return [];
    });
    return { styles: merged(taken, this.#byId, kept), kept };
  };

  readonly tokens = (values: readonly SheetValue[], model: SiteModel): readonly ValueToken[] => {
    const known = this.#draft?.tokens ?? [];
    const byForm = new Map(known.map((token) => [`${token.kind} ${token.form}`, token]));
    const entryOf = ({ kind, form }: SheetValue) => byForm.get(`${kind} ${form}`);
    const used = customNames(model);
    for (const { name } of known) used.add(name);
    const { convention } = this.#namingRules();
    this.#tokens = worthy(values).map((value): ValueToken => {
      const name = entryOf(value)?.name ?? nameValue(value.kind, value.form, convention, used);
      return { ...value, name, text: usualSpelling(value.places) };
    });
    return this.#tokens.filter((value) => entryOf(value)?.take ?? this.#takesUnknown);
  };

  readonly found = (): Found => ({
    sections: this.#sections,
    idClasses: this.#idClasses,
    styles: this.#styles,
    values: this.#tokens,
    parts: [...this.#parts],
    ruleMoves: [...this.#moves.values()],
    classMoves: [...this.#classMoves.values()],
  });

  #isTaken(id: string): boolean {
    return this.#byId.get(id)?.take ?? this.#takesUnknown;
  }

  #givenNames(): string[] {
    return [...this.#byId.values()].flatMap(({ name }) => name ?? []);
  }

  /** Found once: it looks through the whole site. */
  #namingRules(): NameRules {
    const { model, sheets, naming, unreadDocuments } = this.#site;
    this.#rules ??= namingRules(model, sheets, naming, unreadDocuments);
    return this.#rules;
  }
}

/** A value is worth a name from so many places on: a name is one more thing to know. */
const TOKEN_USES = 12;

/** Colours, fonts and shadows mean something; a length that stands often is chance. */
function worthy(values: readonly SheetValue[]): SheetValue[] {
  return values.filter(
    ({ kind, places, form }) =>
      places.length >= TOKEN_USES &&
      (kind === 'colour' || kind === 'font' || kind === 'shadow') &&
      form !== '#ffffff' &&
      form !== '#000000' &&
      // `silver` has a name.
      !isMadeOf(usualSpelling(places), LETTER),
  );
}

function nameAll(
  rules: NameRules,
  styles: readonly Style[],
  byId: ReadonlyMap<string, DraftStyle>,
  inUse: ReadonlySet<string> | undefined,
): NamedStyle[] {
  const taken = new Set(rules.taken);
  for (const { name } of byId.values()) if (name !== undefined) taken.add(name.toLowerCase());
  const fresh = styles.filter(
    (style) => style.home.kind === 'new class' && byId.get(styleId(style))?.name === undefined,
  );
  const names = nameStyles(fresh.map(unnamed), { ...rules, taken });
  return styles.map((style): NamedStyle => {
    if (style.home.kind === 'existing class') return { ...style, className: style.home.name };
    if (style.home.kind !== 'new class') return { ...style, className: undefined };
    const entry = byId.get(styleId(style));
    const className = entry?.name ?? names[fresh.indexOf(style)]!;
    if (entry?.take === true && entry.into === undefined && inUse?.has(className.toLowerCase()))
      throw new UsageError('draft-name-in-use', { id: entry.id, name: className });
    return { ...style, className };
  });
}

/** A style as a person has cut it down: without declarations that were left out, and without excepted places. */
function edited(
  style: NamedStyle,
  entry: DraftStyle,
  shared: string,
  placeOf: PlaceOf,
  kept: Kept[],
): NamedStyle {
  if (style.home.kind === 'already given' || style.home.kind === 'existing class')
    return withoutPlaces(style, entry, placeOf, kept);
  const { declarations, defects } = parseDeclarations(entry.declarations);
  // What a style declares of cells alone stands in comments.
  const isBare = declarations.length === 0 && style.movables.some(({ declarations: own }) => own.length > 0);
  if (isBare || defects.length > 0) {
    const what = defects[0] === undefined ? 'holds none' : `«${defects[0].detail}» is none`;
    throw new UsageError('draft-declarations', { id: entry.id, problem: what });
  }
  const wanted = new Set(declarations.map((one) => declarationKey(one, shared)));
  const saidBy = ({ declarations: own, holder }: MovableDeclaration): string[] =>
    own.map((one) => declarationKey(one, holder));
  const isWanted = (movable: MovableDeclaration): boolean => saidBy(movable).every((key) => wanted.has(key));
  const movables = style.movables.filter(isWanted);
  const said = new Set(style.movables.flatMap(saidBy));
  const foreign = [...wanted].filter((key) => !said.has(key));
  if (foreign.length > 0)
    throw new UsageError('draft-foreign', { id: entry.id, declaration: foreign[0]!.replace(':', ': ') });
  if (movables.length === style.movables.length) return withoutPlaces(style, entry, placeOf, kept);
  const members = style.members.map((member): Member => {
    const own = member.movables.filter(isWanted);
    keepAll(
      { ...member, movables: member.movables.filter((movable) => !own.includes(movable)) },
      { kind: 'refused in the draft' },
      kept,
    );
    return { ...member, movables: own };
  });
  return withoutPlaces(
    { ...style, movables, keys: movables.map(({ key }) => key).sort(), members },
    entry,
    placeOf,
    kept,
  );
}

function withoutPlaces(
  style: NamedStyle,
  { except }: DraftStyle,
  placeOf: PlaceOf,
  kept: Kept[],
): NamedStyle {
  if (except === undefined || except.length === 0) return style;
  const places = new Set(except);
  const members = style.members.filter((member) => {
    if (!places.has(showPlace(placeOf(member.styledTag)))) return true;
    keepAll(member, { kind: 'refused in the draft' }, kept);
    return false;
  });
  return { ...style, members };
}

/** Elements of styles that go into others wear those classes; what the others lack stays. */
function merged(
  styles: readonly NamedStyle[],
  byId: ReadonlyMap<string, DraftStyle>,
  kept: Kept[],
): NamedStyle[] {
  const moving = styles.filter((style) => byId.get(styleId(style))?.into !== undefined);
  return styles
    .filter((style) => !moving.includes(style))
    .map((style) => {
      const joining = moving.filter((one) => byId.get(styleId(one))!.into === style.className);
      if (joining.length === 0 || style.home.kind !== 'new class') return style;
      const members = joining.flatMap((one) => {
        const lacking = style.keys.find((key) => !one.keys.includes(key));
        if (lacking !== undefined)
          throw new UsageError('draft-lacks', {
            id: styleId(one),
            name: one.className ?? '',
            into: style.className ?? '',
            declaration: lacking.replace(':', ': '),
          });
        return one.members.map((member): Member => {
          const movables = member.movables.filter(({ key }) => style.keys.includes(key));
          keepAll(
            { ...member, movables: member.movables.filter((movable) => !movables.includes(movable)) },
            { kind: 'refused in the draft' },
            kept,
          );
          return { ...member, movables };
        });
      });
      return { ...style, members: [...style.members, ...members] };
    });
}

function keepAll({ styledTag, movables }: Member, reason: Kept['reason'], kept: Kept[]): void {
  for (const movable of movables) kept.push({ styledTag, movable, reason });
}

export function moveId(move: RuleMove): string {
  return shortHash(`rule ${moveKey(move)}`);
}

export function classId(move: ClassMove): string {
  return shortHash(classMoveKey(move));
}

/** In: the normal form of a declaration. */
export function partId(key: string): string {
  return shortHash(`part ${key}`);
}

export function sectionId(value: SectionValue): string {
  return shortHash(sectionKey(value));
}

export function idClassId(value: IdClass): string {
  return shortHash(idClassKey(value));
}

/** Named after what the rules declare of those that had the ids, not of what is in them. */
function unnamedIds(value: IdClass): Parameters<typeof nameStyles>[0][number] {
  const { rules, tags, form } = value;
  const own = rules.filter((rule) => classSelectors(rule, form, 'x').includes(form.replaceAll('NAME', 'x')));
  const said = (own.length > 0 ? own : rules).flatMap(({ rule }) => rule.declarations);
  return { declarations: said, wearers: tags, word: wordOf(value) };
}

/** `--ink`, or with a number what is in use. */
function freeName(word: string, prefix: string, used: ReadonlySet<string>): string {
  const start = `--${prefix.replace(/[-_]$/, '')}${prefix === '' ? '' : '-'}${word}`;
  for (let number = 1; ; number++) {
    const name = number === 1 ? start : `${start}-${number}`;
    if (!used.has(name)) return name;
  }
}

/** Drafts find their styles again by it: what it is made of stays as it was when the first draft was written. */
export function styleId({ home, keys, movables }: Pick<Style, 'home' | 'keys' | 'movables'>): string {
  const kind = home.kind === 'existing selector' ? 'existing hooks' : home.kind;
  const named = 'name' in home ? home.name : 'selectors' in home ? home.selectors.join() : '';
  const from = home.kind === 'already given' ? movables.map((movable) => movable.from.kind).join() : '';
  return shortHash(`${kind} ${named} ${from} ${home.kind === 'existing class' ? '' : keys.join('\n')}`);
}
