// Moments: how all that a static reading leaves open may turn out together. A device is narrow or wide, not both; of states
// that nothing ties together every mixture is a moment.

import { type MediaAxis, type MediaCondition, readMedia, standings } from './media.js';
import { ALWAYS, NEVER, type Truth, type TruthTable } from './truth.js';

/** Whether a condition holds at one moment. */
export type Holds = (condition: Truth) => boolean;

/** So many moments are looked at; who asks about more gets no answer. */
const MOST = 20_000;

interface Axis {
  readonly key: string;
  readonly standings: readonly (number | string | boolean)[];
}

/** Thrown to the one who walks: this must be settled first. */
class Unsettled {
  constructor(readonly axis: Axis) {}
}

const media = new Map<string, MediaCondition | undefined>();

function mediaOf(literal: string): MediaCondition | undefined {
  if (!literal.startsWith('@media ')) return undefined;
  if (!media.has(literal)) media.set(literal, readMedia(literal.slice('@media '.length)));
  return media.get(literal);
}

/** What a condition asks of media: `width`, `type`. */
export function featuresOf(condition: Truth, truths: TruthTable): Set<string> {
  const literals = [...truths.literals(condition)];
  return new Set(literals.flatMap((text) => mediaOf(text)?.axes.map(({ feature }) => feature) ?? []));
}

/**
 * Looks at every moment, as far as it makes a difference to `look`: what it does not ask is not told apart.
 * In: the conditions that `look` may ask about; what is settled beforehand, by the literal's text.
 * Out: what `look` gave, once for each moment; `undefined` where there are too many.
 */
export function eachMoment<T>(
  truths: TruthTable,
  conditions: readonly Truth[],
  look: (holds: Holds) => T,
  settled: (literal: string) => boolean | undefined = () => undefined,
): T[] | undefined {
  const axes = axesOf(truths, conditions);
  const found: T[] = [];
  const standing = new Map<string, number | string | boolean>();
  let left = MOST;
  const at = (axis: Axis): number | string | boolean => {
    const own = standing.get(axis.key);
    if (own === undefined) throw new Unsettled(axis);
    return own;
  };
  const decide = (literal: string): boolean => {
    const known = settled(literal);
    if (known !== undefined) return known;
    const condition = mediaOf(literal);
    if (condition === undefined) return at({ key: literal, standings: [true, false] }) === true;
    return condition.holds(({ key }) => at(axes.get(key)!) as number | string);
  };
  const walk = (): boolean => {
    if (left-- === 0) return false;
    try {
      found.push(look((condition) => truths.holds(condition, decide)));
      return true;
    } catch (open) {
      if (!(open instanceof Unsettled)) throw open;
      const { key, standings: all } = open.axis;
      const done = all.every((one) => {
        standing.set(key, one);
        return walk();
      });
      standing.delete(key);
      return done;
    }
  };
  return walk() ? found : undefined;
}

function axesOf(truths: TruthTable, conditions: readonly Truth[]): Map<string, Axis> {
  const asked = new Map<string, MediaAxis[]>();
  for (const condition of new Set(conditions))
    for (const literal of truths.literals(condition))
      for (const axis of mediaOf(literal)?.axes ?? [])
        asked.set(axis.key, [...(asked.get(axis.key) ?? []), axis]);
  return new Map([...asked].map(([key, all]) => [key, { key, standings: standings(all) }]));
}

/** Whether a condition holds wherever another does. `false` where that is not certain. */
export function implies(condition: Truth, other: Truth, truths: TruthTable): boolean {
  if (condition === other || condition === NEVER || other === ALWAYS) return true;
  return atEvery('implies', [condition, other], truths, (holds) => !holds(condition) || holds(other));
}

/** Whether two conditions never hold together. `false` where that is not certain. */
export function excludes(condition: Truth, other: Truth, truths: TruthTable): boolean {
  if (condition === ALWAYS || other === ALWAYS) return condition === NEVER || other === NEVER;
  return atEvery('excludes', [condition, other], truths, (holds) => !holds(condition) || !holds(other));
}

/** What was found out, by table: the same few conditions are asked about on thousands of elements. */
const answers = new WeakMap<TruthTable, Map<string, boolean>>();

function atEvery(
  question: string,
  conditions: readonly Truth[],
  truths: TruthTable,
  look: (holds: Holds) => boolean,
): boolean {
  const known = answers.get(truths) ?? new Map<string, boolean>();
  answers.set(truths, known);
  const key = `${question} ${conditions.join(' ')}`;
  let answer = known.get(key);
  if (answer === undefined) {
    answer = eachMoment(truths, conditions, look)?.every(Boolean) ?? false;
    known.set(key, answer);
  }
  return answer;
}
