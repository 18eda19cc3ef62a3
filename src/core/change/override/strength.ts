// The weakest ways of writing an override that win, and what must be repeated because they are stronger than that was.

import { refusalText } from '../../base/reasons/index.js';
import { type ComplexSelector, compileSelectorList, type Weighed } from '../../cascade/index.js';
import { strengthen } from '../../edit/text/index.js';
import { type Rival, type Rivals, rivalKey, type Situation } from './rivals.js';

export interface Written {
  readonly selector: string;
  readonly important: boolean;
  /** What it beats although that was to stay: repeated behind it, on all of its elements or on some. */
  readonly again: readonly { readonly rival: Rival; readonly onAll: boolean }[];
}

export interface Impossible {
  readonly kind: 'impossible';
  readonly why: string;
  readonly by: Weighed;
}

/** How a situation can be won. */
type Means = 'plain' | 'style attribute' | '!important' | 'never';

/**
 * In: the selector that is meant, with its scope; what is to be beaten and what is to stay. Out: one rule where one is
 * enough; else one for most, and one for those that it would take more to beat.
 */
export function weakestThatWins(
  selector: ComplexSelector,
  { situations, ids }: Rivals,
): Written[] | Impossible {
  const lost = situations.find((one) => meansOf(one) === 'never');
  if (lost !== undefined) return impossible(lost);
  const plain = situations.filter((one) => meansOf(one) === 'plain');
  const others = situations.filter((one) => meansOf(one) !== 'plain');
  if (plain.length === 0) {
    const whole = writeFor({ selector, ids, text: selector.text, important: true }, others);
    return whole === undefined ? impossible(others[0]!) : [whole];
  }
  // The strongest rule that leaves everything standing that is to stay; what it does not beat gets a rule of its own.
  const levels = [...new Set(plain.map(neededFor))].sort((a, b) => b - a);
  const formsAt = (level: number): Written | undefined =>
    writeFor(
      { selector, ids, text: selector.text, important: false, needed: level },
      plain.filter((one) => neededFor(one) <= level),
    );
  const clean = levels.find((level) => formsAt(level)?.again.length === 0);
  const level = clean ?? levels.find((one) => formsAt(one) !== undefined);
  const written = level === undefined ? undefined : formsAt(level);
  const left = level === undefined ? plain : plain.filter((one) => neededFor(one) > level);
  const specials = specialGroups(selector, [...left, ...others]).map(({ text, group, important }) =>
    writeFor({ selector, ids, text, important }, group),
  );
  const failed = specials.indexOf(undefined);
  if (failed >= 0) return impossible([...left, ...others][0]!);
  return [written, ...specials].flatMap((one) => one ?? []);
}

function impossible({ beat }: Situation): Impossible {
  const by = beat.find(({ one }) => one.important)?.one ?? beat[0]!.one;
  const why =
    by.writtenIn.kind === 'style attribute'
      ? refusalText('beaten in a style attribute', {})
      : by.weight.layerName !== undefined
        ? refusalText('beaten in a layer', {})
        : refusalText('more specific than any selector', {});
  return { kind: 'impossible', why, by };
}

function meansOf({ beat }: Situation): Means {
  const isNever = ({ one }: Rival): boolean =>
    one.important && (one.writtenIn.kind === 'style attribute' || one.weight.layerName !== undefined);
  if (beat.some(isNever)) return 'never';
  if (beat.some(({ one }) => one.important)) return '!important';
  return beat.some(({ one }) => one.writtenIn.kind === 'style attribute') ? 'style attribute' : 'plain';
}

/** The least specificity that wins, importance being equal. Rules in layers and old attributes lose to any. */
function neededFor({ beat }: Situation): number {
  const important = beat.some(({ one }) => one.important);
  const weights = beat.flatMap(({ one, behind }) =>
    one.writtenIn.kind === 'rule' && one.important === important && one.weight.layerName === undefined
      ? [one.weight.specificity + (behind ? 1 : 0)]
      : [],
  );
  return Math.max(0, ...weights);
}

/** Situations that need more than the rest, by what tells their elements apart. */
function specialGroups(
  selector: ComplexSelector,
  situations: readonly Situation[],
): { text: string; group: Situation[]; important: boolean }[] {
  const { text, pseudoElement } = selector;
  const element = pseudoElement === '' ? text : text.slice(0, text.lastIndexOf(pseudoElement));
  const groups = new Map<
    string,
    {
      rivals: Map<string, ComplexSelector>;
      inline: string | undefined;
      group: Situation[];
      important: boolean;
    }
  >();
  for (const situation of situations) {
    const means = meansOf(situation);
    const strongest = strongestOf(situation);
    const inline =
      means === 'style attribute'
        ? situation.beat.find(({ one }) => one.writtenIn.kind === 'style attribute')
        : undefined;
    const keeps = situation.keep.map(rivalKey).join();
    const key = `${means} ${inline?.one.entry.declaration.property ?? neededFor(situation)} ${keeps}`;
    const known = groups.get(key) ?? {
      rivals: new Map<string, ComplexSelector>(),
      inline: inline?.one.entry.declaration.property,
      group: [],
      important: means !== 'plain',
    };
    known.group.push(situation);
    if (inline === undefined && strongest?.writtenIn.kind === 'rule')
      known.rivals.set(withoutPseudo(strongest.writtenIn.rule.selector), strongest.writtenIn.rule.selector);
    groups.set(key, known);
  }
  return [...groups.values()].map(({ rivals, inline, group, important }) => {
    const [[picked, only] = ['', undefined], ...others] = rivals;
    // What ends with the style attribute ends with it; what another rule picks out is picked out by that.
    const picks =
      inline !== undefined
        ? `${element}[style*="${inline}"]`
        : only !== undefined && others.length === 0 && isWithin(only, selector)
          ? picked
          : `${element}:is(${[...rivals.keys()].join(', ')})`;
    return { text: `${picks}${pseudoElement}`, group, important };
  });
}

/** Whether what a selector picks out carries all that another, plain one asks: `.a.b` is within `.a`. */
function isWithin({ compounds }: ComplexSelector, { compounds: asked }: ComplexSelector): boolean {
  const [own, wanted] = [compounds.at(-1), asked[0]];
  if (own === undefined || wanted === undefined || asked.length > 1 || wanted.rest.length > 0) return false;
  if (wanted.namespace !== own.namespace || (wanted.type !== undefined && wanted.type !== own.type))
    return false;
  if (wanted.id !== undefined && wanted.id !== own.id) return false;
  return wanted.classes.every((name) => own.classes.includes(name));
}

function strongestOf({ beat }: Situation): Weighed | undefined {
  const important = beat.some(({ one }) => one.important);
  return [...beat]
    .map(({ one }) => one)
    .filter((one) => one.important === important)
    .sort((a, b) => b.weight.specificity - a.weight.specificity)[0];
}

/** A rule that is to be written. */
interface Wanted {
  /** As it is meant. */
  readonly selector: ComplexSelector;
  /** Ids that may make it stronger. */
  readonly ids: readonly string[];
  /** What picks its elements out. */
  readonly text: string;
  readonly important: boolean;
  /** The specificity that it must have; what its situations need without. */
  readonly needed?: number;
}

function writeFor(wanted: Wanted, situations: readonly Situation[]): Written | undefined {
  const { selector, ids, text, important } = wanted;
  const needed = wanted.needed ?? Math.max(0, ...situations.map(neededFor));
  const texts = text === selector.text ? [text, ...weakerForms(selector)] : [text];
  const forms = texts.flatMap((form): Written[] => {
    const written = strengthen(form, needed, ids);
    if (written === undefined) return [];
    const again = new Map<string, { rival: Rival; times: number }>();
    for (const { keep } of situations) {
      for (const rival of keep) {
        if (!isBeaten(rival, written.specificity, important)) continue;
        const known = again.get(rivalKey(rival));
        again.set(rivalKey(rival), { rival, times: (known?.times ?? 0) + 1 });
      }
    }
    const said = [...again.values()].map(({ rival, times }) => ({
      rival,
      onAll: times === situations.length,
    }));
    return [{ selector: written.selector, important, again: said }];
  });
  // As it was typed, unless a weaker way leaves more standing.
  return forms.sort((a, b) => a.again.length - b.again.length)[0];
}

function isBeaten({ one, behind }: Rival, specificity: number, important: boolean): boolean {
  if (one.important !== important) return important;
  if (one.writtenIn.kind === 'style attribute') return important;
  if (one.writtenIn.kind === 'old attribute' || one.weight.layerName !== undefined) return true;
  return one.weight.specificity < specificity || (one.weight.specificity === specificity && !behind);
}

/** The same elements, with less or nothing of the selector counted. */
function weakerForms({ text, compounds, combinators, leading, pseudoElement }: ComplexSelector): string[] {
  const element = pseudoElement === '' ? text : text.slice(0, text.lastIndexOf(pseudoElement));
  const forms = [`:where(${element})${pseudoElement}`];
  const last = compounds.length - 1;
  if (last > 0) {
    const before = leading[last - 1]!;
    const rest = element.slice(before.length).replace(/^\s*[>+~]?\s*/, '');
    const combinator = combinators[last - 1] === ' ' ? ' ' : ` ${combinators[last - 1]} `;
    forms.unshift(`:where(${before})${combinator}${rest}${pseudoElement}`);
  }
  return forms.filter((form) => compileSelectorList(form).kind === 'list');
}

/**
 * How a rule that must go on standing above is written behind the override.
 * In: the override's selector and its pseudo-element; whether all of its elements have the rule; whether it may be no
 * stronger than the override.
 */
export function selectorAgain(
  [written, pseudoElement]: readonly [string, string],
  rival: Weighed,
  onAll: boolean,
  isQuiet: boolean,
): string | undefined {
  if (rival.writtenIn.kind !== 'rule') return undefined;
  const { selector } = rival.writtenIn.rule;
  const own = pseudoElement === '' ? written : written.slice(0, written.lastIndexOf(pseudoElement));
  if (isQuiet) return `${own}:where(${withoutPseudo(selector)})${pseudoElement}`;
  const [only] = selector.compounds;
  const states = only?.rest.map((simple) => (simple.kind === 'state' ? simple.text : undefined)) ?? [];
  if (selector.compounds.length === 1 && onAll && states.every((text) => text !== undefined))
    return `${own}${states.join('')}${pseudoElement}`;
  return `${own}:is(${withoutPseudo(selector)})${pseudoElement}`;
}

function withoutPseudo({ text, pseudoElement }: ComplexSelector): string {
  return pseudoElement === '' ? text : text.slice(0, text.lastIndexOf(pseudoElement));
}
