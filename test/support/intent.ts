// Changes that mean to change something, on random sites that fight back, and what Chromium says of them.

import path from 'node:path';
import { pathToFileURL } from 'node:url';
import type { CDPSession, Page as Tab } from 'playwright-core';
import type { DeclarationChange } from '../../src/core/edit/text/index.js';
import { AT_REST, LOOKS, POINTED_AT, type State } from './chromium.js';
import { selector as anySelector, type Random } from './generate.js';

/** Not inherited, and computed as written wherever they stand. */
const ASKED: readonly (readonly [property: string, value: string, other: string])[] = [
  ['opacity', '0.25', '0.75'],
  ['border-top-left-radius', '5px', '7px'],
  ['z-index', '41', '43'],
];

export const MEDIA = [
  '(max-width: 600px)',
  '(width <= 800px)',
  '(min-width: 600px)',
  '(400px <= width <= 1300px)',
  'print',
  'screen and (max-width: 900px)',
  '(prefers-color-scheme: dark)',
] as const;

export function asked(random: Random): DeclarationChange {
  const [property, value] = random.pick(ASKED);
  return { property, value, important: false };
}

/** The same sheet with more rules on what is asked for: in media and states, with importance, in layers. */
export function contested(kit: string, random: Random, { important = true } = {}): string {
  const rules = random.times(3, 7, () => {
    const [property, , other] = random.pick(ASKED);
    const weight = important && random.chance(6) ? ' !important' : '';
    const state = random.pick(['', '', '', ':hover', ':focus']);
    const plain = anySelector(random, 1, true);
    const rule = `${plain.includes('::') ? 'p' : plain}${state} { ${property}: ${other}${weight} }`;
    if (random.chance(25)) return `@media ${random.pick(MEDIA)} { ${rule} }`;
    return random.chance(5) ? `@layer kit { ${rule} }` : rule;
  });
  return `${kit}\n${rules.join('\n')}`;
}

export interface View {
  readonly width: number;
  readonly media: 'screen' | 'print';
  readonly colorScheme: 'light' | 'dark';
  readonly state: State;
}

const REST = { width: 1200, media: 'screen', colorScheme: 'light', state: AT_REST } as const;
/** A state stays once a page is in it: it comes last. */
const INTENT_VIEWS: readonly View[] = [
  REST,
  { ...REST, width: 500 },
  { ...REST, width: 850 },
  { ...REST, media: 'print' },
  { ...REST, colorScheme: 'dark' },
  { ...REST, state: POINTED_AT },
];

/** What Chromium makes of one element. */
interface Seen {
  /** Whether what was asked is for it, here. */
  readonly meant: boolean;
  readonly value: string;
  /** Every other computed value. */
  readonly rest: string;
}

/** What a file shows in each view, loaded once. */
async function seenIn(tab: Tab, session: CDPSession, file: string, asks: Judged): Promise<Seen[][]> {
  await tab.goto(pathToFileURL(file).href);
  const found: Seen[][] = [];
  for (const view of INTENT_VIEWS) {
    await tab.setViewportSize({ width: view.width, height: 700 });
    await tab.emulateMedia({ media: view.media, colorScheme: view.colorScheme, reducedMotion: 'reduce' });
    await view.state(tab, session);
    found.push(await seenNow(tab, file, view, asks));
  }
  return found;
}

function seenNow(
  tab: Tab,
  file: string,
  view: View,
  { selector, property, medium = 'all', off = 'not all' }: Judged,
): Promise<Seen[]> {
  const folder = pathToFileURL(file).href.replace(/[^/]*$/, '');
  return tab.evaluate(
    ({ selector: text, name, query, not, here }) => {
      // What Chromium takes for no selector means nobody.
      let isKnown = true;
      try {
        document.querySelector(text);
      } catch {
        isKnown = false;
      }
      const isHere = isKnown && matchMedia(query).matches && !matchMedia(not).matches;
      // What a radius is called by lines and blocks changes with it.
      const own = (key: string): boolean => key === name || (/radius/.test(name) && /radius/.test(key));
      return [...document.querySelectorAll('body, body *:not(style):not(link)')].map((one) => {
        const style = getComputedStyle(one);
        const rest = [...style].filter((key) => !own(key) && !key.startsWith('--'));
        return {
          meant: isHere && one.matches(text),
          value: style.getPropertyValue(name),
          rest: rest
            .map((key) => `${key}:${style.getPropertyValue(key)}`)
            .join(';')
            .replaceAll(here, ''),
        };
      });
    },
    // Whether a state holds is not asked: an element that it may hold for is meant.
    {
      selector: view.state === AT_REST ? selector : withoutStates(selector),
      name: property,
      query: medium,
      not: off,
      here: folder,
    },
  );
}

function withoutStates(selector: string): string {
  return selector
    .replace(/(^|[\s>+~(,])(:(hover|focus|visited)\b)+(?=$|[\s>+~),])/g, '$1*')
    .replace(/:(hover|focus|visited)\b/g, '');
}

export interface Judged {
  readonly selector: string;
  readonly property: string;
  /** What those who are meant may have. */
  readonly values: readonly string[];
  readonly medium?: string | undefined;
  /** A medium in which nobody is meant. */
  readonly off?: string | undefined;
  /** Nobody who is meant may keep what it had. */
  readonly everywhere?: boolean;
}

function wrongIn(was: readonly Seen[], is: readonly Seen[], { state }: View, asks: Judged): string[] {
  return was.flatMap((one, index): string[] => {
    const now = is[index];
    if (now?.rest !== one.rest) return [`element ${index}: another property changed`];
    const strict = asks.everywhere === true && state === AT_REST;
    const fits = asks.values.includes(now.value) || (!strict && now.value === one.value);
    if (one.meant ? fits : now.value === one.value) return [];
    return [`element ${index}, ${one.meant ? '' : 'not '}meant: ${one.value} became ${now.value}`];
  });
}

/** Out: how many elements moved, and in words what is not as was asked. */
export async function judge(
  tab: Tab,
  [before, after]: readonly [string, string],
  page: string,
  asks: Judged,
): Promise<{ moved: number; wrong: string[] }> {
  const session = await tab.context().newCDPSession(tab);
  let wrong: string[] = [];
  let moved = 0;
  // Chromium now and then lays a page out before it has its new width: what is wrong is wrong every time.
  for (let times = 0; times < LOOKS && (times === 0 || wrong.length > 0); times++) {
    const was = await seenIn(tab, session, path.join(before, page), asks);
    const is = await seenIn(tab, session, path.join(after, page), asks);
    wrong = INTENT_VIEWS.flatMap((view, at) =>
      wrongIn(was[at]!, is[at]!, view, asks).map((text) => `view ${at}, ${text}`),
    );
    if (times > 0) continue;
    for (const [at, all] of was.entries())
      moved += all.filter(({ value }, index) => is[at]?.[index]?.value !== value).length;
  }
  await session.detach();
  return { moved, wrong };
}

/** The values of a property on every element of a page, view by view. */
export async function valuesAt(tab: Tab, file: string, property: string): Promise<string[][]> {
  const session = await tab.context().newCDPSession(tab);
  const seen = await seenIn(tab, session, file, { selector: '*', property, values: [] });
  await session.detach();
  return seen.map((all) => all.map(({ value }) => value));
}
