// The shared styles of a site: what has a rule in the developer's own sheets, which elements have it, and an element to show it on.

import { addTo } from '../../base/group-by.js';
import { comparePlaces, type Place, placeIn } from '../../base/source.js';
import { AtRest, type ProgramRule, type SiteModel } from '../../cascade/index.js';
import { declarationForm } from '../hold/index.js';
import { type Chosen, ExampleChooser } from './choose.js';
import { kindOfElement, type StyleKind } from './kinds.js';
import { mediaOf } from './media.js';
import { type Likeness, likeOnes, type NearWearer, nearWearers, type StyleForms } from './near.js';
import { headingAt, headingsOf } from './parts.js';
import { type AskedState, type Pointed, pointedIn, statesOf } from './pointed.js';

export interface StyleRuleText {
  /** With the conditions around it, set out on lines. */
  readonly text: string;
  readonly place: Place;
}

export interface SharedStyle {
  /** `.fare`, or `h2` for what all elements of a type are given. */
  readonly name: string;
  readonly kind: StyleKind;
  /** The heading in the sheet that its first rule stands under. */
  readonly part: string | undefined;
  readonly rules: readonly StyleRuleText[];
  /** What changes something in the example where it is in a state. */
  readonly states: readonly Pointed[];
  readonly elements: number;
  readonly pages: number;
  readonly example: Chosen | undefined;
  readonly like: readonly Likeness[];
  readonly nearly: NearWearer | undefined;
}

/** In: the site; the sheets that are the developer's own, in order. Out: the most used first. */
export function sharedStyles(model: SiteModel, themes: readonly string[]): SharedStyle[] {
  const { found, states } = rulesByName(model, themes);
  const wearers = wearersOf(model, new Set(found.keys()));
  const forms = new Map([...found].map(([name, rules]) => [name, formsOf(name, rules)]));
  const like = likeOnes(forms);
  const near = nearWearers(model, forms);
  const styles = [...found].map(([name, rules]): SharedStyle => {
    const worn = wearers.get(name);
    const first = worn?.chooser.best;
    return {
      name,
      kind: first === undefined ? 'boxes' : kindOfElement(first.page.elements[first.element]!),
      part: rules[0]!.part,
      rules: rules.map(({ text, place }) => ({ text, place })),
      states: first === undefined ? [] : pointedIn(first, states.get(name) ?? []),
      elements: worn?.elements ?? 0,
      pages: worn?.pages.size ?? 0,
      example: first,
      like: like.get(name) ?? [],
      nearly: near.get(name),
    };
  });
  return styles.sort((a, b) => b.elements - a.elements || (a.name < b.name ? -1 : 1));
}

interface OwnRule extends StyleRuleText {
  readonly part: string | undefined;
  /** What it declares, where it is for this name alone and at every moment. */
  readonly forms: readonly string[];
}

/** Out: rules by the name that they are of, and the states that change something where it is used. */
function rulesByName(
  model: SiteModel,
  themes: readonly string[],
): { found: Map<string, OwnRule[]>; states: Map<string, AskedState[]> } {
  const found = new Map<string, OwnRule[]>();
  const states = new Map<string, AskedState[]>();
  const medium = mediaOf(model);
  for (const path of themes) {
    const program = model.sheetAt(path);
    if (program === undefined) continue;
    const { sheet } = program;
    const media = medium.get(path);
    const around = media === undefined ? '' : `@media ${media}\n`;
    const headings = headingsOf(sheet);
    const bySource = new Map<ProgramRule['rule'], ProgramRule[]>();
    for (const one of program.rules) addTo(bySource, one.rule, one);
    for (const [rule, selectors] of bySource) {
      if (rule.declarations.length === 0) continue;
      for (const one of selectors) for (const [name, state] of statesOf(one)) addTo(states, name, state);
      const names = new Map<string, ProgramRule[]>();
      for (const one of selectors) for (const name of namesOf(one)) addTo(names, name, one);
      const text = around + ruleShown(sheet.text, rule);
      const place = placeIn(path, sheet.text, rule.selectorRange.start);
      for (const [name, own] of names)
        addTo(found, name, {
          text,
          place,
          part: headingAt(headings, rule.range.start),
          forms:
            media === undefined &&
            rule.conditions.length === 0 &&
            own.some(({ selector }) => selector.text.trim() === name)
              ? rule.declarations.map((one) => declarationForm({ ...one, important: false }))
              : [],
        });
    }
  }
  for (const rules of found.values()) rules.sort((a, b) => comparePlaces(a.place, b.place));
  return { found, states };
}

/** The classes that a rule's elements wear; else those nearest around them; else what all of a type are. */
function namesOf({ selector }: ProgramRule): string[] {
  const named = selector.compounds.findLast(({ classes }) => classes.length > 0);
  if (named !== undefined) return named.classes.map((name) => `.${name}`);
  const { type, id } = selector.compounds.at(-1)!;
  const isBare = selector.compounds.length === 1 && id === undefined;
  return isBare && type !== undefined && !['html', 'body', '*'].includes(type) ? [type] : [];
}

function ruleShown(sheet: string, rule: ProgramRule['rule']): string {
  const lines = sheet.slice(rule.selectorRange.start, rule.range.end).split('\n');
  const indent = Math.min(
    ...lines.slice(1).flatMap((line) => (line.trim() === '' ? [] : [/^\s*/.exec(line)![0].length])),
    lines.length === 1 ? 0 : Number.POSITIVE_INFINITY,
  );
  const own = lines.map((line, at) => (at === 0 ? line : line.slice(Number.isFinite(indent) ? indent : 0)));
  const around = rule.conditions.map(({ kind, text }) => `@${kind} ${text}`);
  return [...around, own.join('\n').trimEnd()].join('\n');
}

function formsOf(name: string, rules: readonly OwnRule[]): StyleForms {
  return { name, forms: new Set(rules.flatMap(({ forms }) => forms)) };
}

interface Wearers {
  elements: number;
  readonly pages: Set<string>;
  readonly chooser: ExampleChooser;
}

function wearersOf(model: SiteModel, names: ReadonlySet<string>): Map<string, Wearers> {
  const found = new Map<string, Wearers>();
  for (const page of model.pages) {
    const [reader] = model.readersOf(page);
    const rest = reader && new AtRest(reader, model.table.truths);
    for (const element of page.elements) {
      for (const name of [element.name, ...new Set(element.classes.map((one) => `.${one}`))]) {
        if (!names.has(name)) continue;
        const own = found.get(name) ?? { elements: 0, pages: new Set(), chooser: new ExampleChooser(names) };
        found.set(name, own);
        own.elements++;
        own.pages.add(page.path);
        if (rest !== undefined && page.kind === 'page') own.chooser.offer(page, element.index, rest);
      }
    }
  }
  return found;
}
