// A real Chromium as the judge: what every element looks like, computed styles and boxes.

import type { TestContext } from 'node:test';
import { pathToFileURL } from 'node:url';
import type { CDPSession, Page } from 'playwright-core';
import { findChromium, startChromium } from '../../src/browser/chromium.js';

export const MISSING =
  'no Chromium found: install one (on Debian: apt-get install chromium) or name it in CHROMIUM';

/** Runs `use` with a browser page, scripts off. Without a Chromium the test is skipped, under CI it fails. */
export async function withBrowser(context: TestContext, use: (page: Page) => Promise<void>): Promise<void> {
  if (findChromium() === undefined) {
    if (process.env.CI === 'true') throw new Error(MISSING);
    context.skip(MISSING);
    return;
  }
  const browser = await startChromium();
  try {
    const tab = await browser.newContext({ javaScriptEnabled: false });
    await tab.route(
      (url) => !/^(file|data):/.test(url.href),
      (route) => route.abort(),
    );
    await use(await tab.newPage());
  } finally {
    await browser.close();
  }
}

export const VIEWS = [
  { width: 1200, media: 'screen' },
  { width: 500, media: 'screen' },
  { width: 1200, media: 'print' },
] as const;

type View = (typeof VIEWS)[number];

/**
 * How a file looks in each view, loaded once: one line a rendered node, pseudo-elements too, with its name, box and every
 * computed value, through the protocol's snapshot.
 */
async function looks(page: Page, file: string, views: readonly View[], state: State): Promise<string[][]> {
  const session = await page.context().newCDPSession(page);
  const show = async ({ width, media }: View): Promise<void> => {
    await page.setViewportSize({ width, height: 700 });
    await page.emulateMedia({ media, reducedMotion: 'reduce' });
  };
  await show(views[0]!);
  await page.goto(pathToFileURL(file).href, { waitUntil: 'load' });
  await state(page, session);
  const computedStyles = await page.evaluate(() =>
    [...getComputedStyle(document.documentElement)].filter((name) => !name.startsWith('--')),
  );
  const folder = pathToFileURL(file).href.replace(/[^/]*$/, '');
  const found: string[][] = [];
  for (const view of views) {
    await show(view);
    found.push(await linesOf(session, computedStyles, folder));
  }
  await session.detach();
  return found;
}

async function linesOf(
  session: CDPSession,
  computedStyles: readonly string[],
  folder: string,
): Promise<string[]> {
  const { documents, strings } = await session.send('DOMSnapshot.captureSnapshot', {
    computedStyles: [...computedStyles],
    includeDOMRects: true,
  });
  const [first] = documents;
  if (first === undefined) return [];
  const texts = strings.map((text) =>
    text
      .replaceAll(folder, '')
      .replaceAll(' ', '_')
      // The standard's word says the same wherever every box stands where it stood.
      .replace(/^-webkit-(center|left|right)$/, '$1'),
  );
  return first.layout.nodeIndex.map((node, at) => {
    const styles = (first.layout.styles[at] ?? []).map(
      (value, i) => `${computedStyles[i]}:${texts[value] ?? ''}`,
    );
    // What an outdated element became is told by how it looks.
    const name = (texts[first.nodes.nodeName?.[node] ?? -1] ?? '')
      .replace(/^(FONT|BIG)$/, 'SPAN')
      .replace('CENTER', 'DIV');
    return [name, `[${first.layout.bounds[at]}]`, ...styles].join(' ');
  });
}

/** Brings a page that is loaded into a state. */
export type State = (page: Page, session: CDPSession) => Promise<void>;

export const AT_REST: State = async () => undefined;

/** As if a person pointed at every third element and went through the others with the keyboard. */
export const POINTED_AT: State = async (_page, session) => {
  await session.send('DOM.enable');
  await session.send('CSS.enable');
  const { root } = await session.send('DOM.getDocument', { depth: -1 });
  const { nodeIds } = await session.send('DOM.querySelectorAll', { nodeId: root.nodeId, selector: 'body *' });
  for (const [at, nodeId] of nodeIds.entries())
    await session.send('CSS.forcePseudoState', {
      nodeId,
      forcedPseudoClasses: at % 3 === 0 ? ['hover', 'active'] : ['focus', 'focus-visible', 'visited'],
    });
};

/** As a page is once its script has run. Scripts are off in the tests' browser: what it would do is done from outside. */
export function scriptRun(html: string): State {
  const [, script = ''] = /<script>([\s\S]*?)<\/script>/.exec(html) ?? [];
  return async (page) => void (await page.evaluate((text) => new Function(`${text}; tide()`)(), script));
}

export const LOOKS = 3;

/** What differs between two files, first things first; empty when they look the same in every view. */
export async function lookDifferent(
  page: Page,
  before: string,
  after: string,
  state: State = AT_REST,
  /** Of the later one, where it is another. */
  later: State = state,
  views: readonly View[] = VIEWS,
): Promise<string[]> {
  // Chromium now and then lays a page out before it has its new width: a difference counts when it is seen every time.
  let seen = views.map((view) => ({ view, different: [''] }));
  for (let times = 0; times < LOOKS && seen.length > 0; times++) {
    const open = seen.map(({ view }) => view);
    const first = await looks(page, before, open, state);
    const second = await looks(page, after, open, later);
    seen = open
      .map((view, at) => ({ view, different: differences(first[at]!, second[at]!, view) }))
      .filter(({ different }) => different.length > 0);
  }
  return seen.flatMap(({ different }) => different);
}

function differences(a: readonly string[], b: readonly string[], { media, width }: View): string[] {
  const name = `${media} ${width}`;
  if (a.length !== b.length) return [`${name}: ${a.length} nodes became ${b.length}`];
  return a.flatMap((line, at) => {
    if (line === b[at]) return [];
    const [one, two] = [line.split(' '), (b[at] ?? '').split(' ')];
    return [
      `${name}: ${one[0]} ${one
        .filter((part, i) => part !== two[i])
        .slice(0, 3)
        .join(' ')}`,
    ];
  });
}
