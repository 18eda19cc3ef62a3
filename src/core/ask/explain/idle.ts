// Declarations that win and cannot show, with the reason and what would help.

import type { Weighed } from '../../cascade/index.js';
import { longhands } from '../../read/sheets/index.js';
import {
  type DescribedDeclaration,
  describeDeclaration,
  type ExplainContext,
} from './describe-declaration.js';
import { inCircumstances } from './groups.js';
import { IDLE_RULES } from './idle-rules.js';
import { Surroundings } from './surroundings.js';

export interface IdleFinding {
  /** `::before`, or empty for the element. */
  readonly target: string;
  /** Longhands that do nothing. */
  readonly longhands: readonly string[];
  readonly declaration: DescribedDeclaration;
  readonly why: string;
  readonly remedy: string;
}

/** In: every declaration of one target. Out: those that win for nothing, in the order of the cascade. */
export function idleFindings(
  target: string,
  weighed: ReadonlyMap<string, readonly Weighed[]>,
  context: ExplainContext,
): IdleFinding[] {
  const here = new Surroundings(context.reader, context.element, target);
  const found = new Map<string, { one: Weighed; longhands: string[]; why: string; remedy: string }>();
  for (const [longhand, all] of weighed) {
    for (const one of inCircumstances(all, context)) {
      if (one.beatenBy !== undefined || !isNamed(one)) continue;
      const reason = reasonOf(here, longhand, one.value);
      if (reason === undefined) continue;
      const key = `${one.entry.declaration.range.start} ${reason.why} ${one.writtenIn.kind} ${placeKey(one)}`;
      const known = found.get(key);
      if (known === undefined) found.set(key, { one, longhands: [longhand], ...reason });
      else known.longhands.push(longhand);
    }
  }
  return [...found.values()].map(({ one, longhands: names, why, remedy }) => ({
    target,
    longhands: names,
    declaration: describeDeclaration(one, context),
    why,
    remedy,
  }));
}

/** What a shorthand only resets was not meant: `background: red` does not mention positions. */
function isNamed({ value, longhand, entry }: Weighed): boolean {
  const { property } = entry.declaration;
  if (property === longhand) return true;
  return value !== 'initial' && longhands(property).set.includes(longhand);
}

function reasonOf(
  here: Surroundings,
  longhand: string,
  value: string,
): { why: string; remedy: string } | undefined {
  if (['inherit', 'unset', 'revert', 'revert-layer', 'initial'].includes(value)) return undefined;
  const unknown = /^part of |var\(/.test(value);
  for (const { of, why, remedy, anyValue } of IDLE_RULES) {
    const isMeant = of.some((one) => one === longhand || (one.endsWith('-') && longhand.startsWith(one)));
    const reason = isMeant && (!unknown || anyValue) ? why(here, longhand, value) : undefined;
    if (reason !== undefined) return { why: reason, remedy };
  }
  return undefined;
}

function placeKey({ writtenIn }: Weighed): string {
  return writtenIn.kind === 'rule' ? `${writtenIn.use.source.path} ${writtenIn.use.source.offset}` : '';
}

/** What hides the element or the pseudo-element altogether: then nothing that styles it shows. */
export function hiddenBecause(target: string, context: ExplainContext): string | undefined {
  const here = new Surroundings(context.reader, context.element, target);
  if (/^::?(before|after)$/.test(target)) {
    const empty = here.every('content', 'normal', (value) => value === 'normal' || value === 'none');
    if (empty) return `${target} has no content, so that nothing of it is drawn; content: "" would draw it`;
  }
  for (let at: Surroundings | undefined = here; at !== undefined; at = at.parent) {
    if (!at.isDisplayed('none')) continue;
    const what = at === here ? 'it' : `<${at.element.name}>, which it stands in,`;
    return `${what} is not displayed at all (display: none)`;
  }
  return undefined;
}

/** What offsets are measured from: the nearest positioned ancestor, for what is positioned absolutely. */
export function containingBlock(context: ExplainContext): string | undefined {
  const here = new Surroundings(context.reader, context.element);
  if (!here.every('position', 'static', (value) => value === 'absolute')) return undefined;
  for (let at = here.parent; at !== undefined; at = at.parent) {
    const surely = at.every('position', 'static', (value) => value !== 'static');
    if (surely) return nameOf(at);
    const holds = (longhand: string): boolean => !at!.every(longhand, 'none', (value) => value === 'none');
    // A transform, a filter or an open position may make an ancestor the measure: then nothing is declared.
    if (!at.isStatic || holds('transform') || holds('filter') || holds('perspective')) return undefined;
  }
  return 'the page itself: no ancestor is positioned';
}

function nameOf({ element }: Surroundings): string {
  const id = element.id === undefined ? '' : `#${element.id}`;
  return `${element.name}${id}${element.classes.map((name) => `.${name}`).join('')}`;
}
