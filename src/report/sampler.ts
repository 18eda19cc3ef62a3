// Every shared style on one page: values first, then what is made of them, each with an element of the site to see it on.

import culori from 'culori/require';
import { SHOWN, type SharedStyle, type ShownState, STYLE_KINDS } from '../core/ask/sampler/index.js';
import type { ColourPair, NamedValue, UnnamedValue, Values } from '../core/ask/values/index.js';
import { groupBy } from '../core/base/group-by.js';
import { showPlace } from '../core/base/source.js';
import { escapeHtml, figures, page } from './page.js';

/** How a style is shown: a document for a frame, or a picture. */
export type Shown =
  | { readonly kind: 'document'; readonly html: string }
  | { readonly kind: 'picture'; readonly address: string; readonly width: number };

export interface SampledStyle extends SharedStyle {
  /** At each width, narrow first; empty where nothing can be shown. */
  readonly shown: readonly Shown[];
  readonly inStates: readonly { readonly state: ShownState; readonly shown: Shown }[];
}

export interface Sampler {
  readonly site: string;
  readonly values: Values;
  readonly pairs: readonly ColourPair[];
  readonly styles: readonly SampledStyle[];
}

/** Pixels of the frames that show an example. */
export const SAMPLE_WIDTHS = [320, 700] as const;
export const STATE_WIDTH = 320;
/** Taller frames scroll; and what is seen above and below an element. In pixels. */
const TALLEST = 560;
const ROOM = 12;

export function samplerPage({ site, values, pairs, styles }: Sampler): string {
  const worn = styles.filter(({ elements }) => elements > 0);
  const unworn = styles.filter(({ elements }) => elements === 0);
  const kinds = STYLE_KINDS.map((kind) => [kind, worn.filter((one) => one.kind === kind)] as const).filter(
    ([, own]) => own.length > 0,
  );
  const colours = values.named.filter(({ kind }) => kind === 'color');
  const body = [
    `<header><p class="kind">Sampler</p><h1>What ${escapeHtml(site)} has</h1><p>Every shared style with its rule, an element of the site that wears it, and who is like it.</p></header>`,
    figures([
      [worn.length, 'shared styles in use'],
      [unworn.length, 'unused'],
      [styles.filter(({ nearly }) => nearly !== undefined).length, 'that elements nearly wear'],
      [values.named.length, 'values with a name'],
    ]),
    indexOf(kinds, values, unworn),
    colours.length === 0 ? '' : colourSection(colours, pairs),
    valueSection(values),
    typeSection(values),
    ...kinds.map(([kind, own]) => kindSection(kind, own)),
    unworn.length === 0 ? '' : unwornSection(unworn),
  ];
  return page(`Sampler of ${site}`, body.filter((one) => one !== '').join('\n'), {
    style: STYLE,
    script: FIT,
    framesSite: true,
  });
}

/** Shows in each frame no more than the element that it is for; without it they scroll. */
const FIT = `for (const frame of document.querySelectorAll('iframe')) {
  const fit = () => {
    const shown = frame.contentDocument?.querySelector('${SHOWN}');
    if (!shown) return;
    frame.style.height = '800px';
    const { top, height } = shown.getBoundingClientRect();
    frame.style.height = Math.min(${TALLEST}, height + 2 * ${ROOM}) + 'px';
    frame.contentWindow.scrollTo(0, top - ${ROOM});
  };
  frame.addEventListener('load', fit);
  fit();
}`;

const anchorOf = (name: string): string => `style-${encodeURIComponent(name)}`;

function indexOf(
  kinds: readonly (readonly [string, readonly SampledStyle[]])[],
  { named }: Values,
  unworn: readonly SampledStyle[],
): string {
  const link = (to: string, text: string): string => `<a href="#${escapeHtml(to)}">${escapeHtml(text)}</a>`;
  const lines = [
    ...(named.length === 0 ? [] : [`<li>${link('values', 'Values')}</li>`]),
    `<li>${link('type', 'Type')}</li>`,
    ...kinds.map(
      ([kind, own]) =>
        `<li>${link(`kind-${kind.replaceAll(' ', '-')}`, titled(kind))} ${own.map(({ name }) => link(anchorOf(name), name)).join(' ')}</li>`,
    ),
    ...(unworn.length === 0 ? [] : [`<li>${link('unworn', 'Worn by nothing')}</li>`]),
  ];
  return `<nav aria-label="Index"><ul class="index">${lines.join('')}</ul></nav>`;
}

function titled(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function colourSection(colours: readonly NamedValue[], pairs: readonly ColourPair[]): string {
  const cells = colours.map(({ name, value, uses, sets, place }) => {
    const colour = culori.parse(value) === undefined ? undefined : culori.formatHex(value);
    const swatch =
      colour === undefined
        ? '<span class="swatch none"></span>'
        : `<span class="swatch" style="background:${colour}"></span>`;
    const more = sets.map((one) => `<br>${escapeHtml(one.where)}: <code>${escapeHtml(one.value)}</code>`);
    return `<figure>${swatch}<figcaption><b>${escapeHtml(name)}</b><br><code>${escapeHtml(value)}</code>${more.join('')}<br><span class="aside">${count(uses, 'use')}, ${escapeHtml(showPlace(place))}</span>${contrasts(colour, pairs)}</figcaption></figure>`;
  });
  return `<section id="values"><h2>Colours</h2><div class="swatches">${cells.join('')}</div></section>`;
}

/** WCAG 2.2: 4.5 to 1 for text, 3 to 1 for large text. */
const ENOUGH = 4.5;

function contrasts(colour: string | undefined, pairs: readonly ColourPair[]): string {
  const own = pairs.filter(
    ({ text, ground }) => colour !== undefined && (text === colour || ground === colour),
  );
  const lines = own.slice(0, 3).map(({ text, ground, contrast }) => {
    const isText = text === colour;
    const mark = contrast < ENOUGH ? ' class="low"' : '';
    const which = isText ? `on ${ground}` : `under ${text}`;
    return `<li${mark}>${contrast.toFixed(1)} : 1 ${escapeHtml(which)}${contrast < ENOUGH ? ', too little for small text' : ''}</li>`;
  });
  return lines.length === 0 ? '' : `<ul class="contrasts">${lines.join('')}</ul>`;
}

function count(times: number, what: string): string {
  return `${times} ${times === 1 ? what : `${what}s`}`;
}

function valueSection({ named }: Values): string {
  const others = named.filter(({ kind }) => kind !== 'color');
  if (others.length === 0) return '';
  const rows = others.map(
    ({ name, kind, value, uses, place }) =>
      `<tr><td><b>${escapeHtml(name)}</b></td><td><code>${escapeHtml(value)}</code></td><td>${escapeHtml(kind ?? '')}</td><td>${count(uses, 'use')}</td><td class="aside">${escapeHtml(showPlace(place))}</td></tr>`,
  );
  return `<section><h2>Other values with a name</h2><table><tbody>${rows.join('')}</tbody></table></section>`;
}

/** What no markup can break out of, and no address hides in. */
const FAMILY = /^[\p{L}\d\s"',._-]+$/u;
const SIZE = /^[\d.]+(?:px|r?em|pt|%|ex|ch)$/;
const MOST_SIZES = 12;

function typeSection({ named, unnamed }: Values): string {
  const all: readonly (NamedValue | UnnamedValue)[] = [...named, ...unnamed];
  const families = all.filter(({ kind, value }) => kind === 'fontFamily' && !value.startsWith('var('));
  const sizes = unnamed
    .filter(({ properties, value }) => properties.includes('font-size') && SIZE.test(value))
    .slice(0, MOST_SIZES)
    .sort((a, b) => pixels(b.value) - pixels(a.value));
  const familyRows = families.map(({ value, ...one }) => {
    const style = FAMILY.test(value) ? ` style="font-family:${escapeHtml(value)}"` : '';
    return `<tr><td class="type"${style}>Aa Bb Cc 0123</td><td><code>${escapeHtml('name' in one ? `${one.name}: ${value}` : value)}</code></td><td>${'times' in one ? count(one.times, 'time') : count(one.uses, 'use')}</td></tr>`;
  });
  const sizeRows = sizes.map(
    ({ value, times, named: name }) =>
      `<tr><td class="type" style="font-size:${value}">Aa Bb Cc</td><td><code>${escapeHtml(name === undefined ? value : `${name}: ${value}`)}</code></td><td>${count(times, 'time')}</td></tr>`,
  );
  const rows = [...familyRows, ...sizeRows];
  const table =
    rows.length === 0
      ? '<p class="aside">No sheet declares any.</p>'
      : `<table><tbody>${rows.join('')}</tbody></table>`;
  return `<section id="type"><h2>Type</h2>${table}</section>`;
}

function pixels(value: string): number {
  const number = Number.parseFloat(value);
  return /r?em$/.test(value)
    ? number * 16
    : value.endsWith('pt')
      ? (number * 4) / 3
      : value.endsWith('%')
        ? number * 0.16
        : number;
}

function kindSection(kind: string, styles: readonly SampledStyle[]): string {
  const parts = groupBy(styles, ({ part }) => part ?? '');
  const articles = [...parts].map(
    ([part, own]) =>
      `${part === '' ? '' : `<p class="part">${escapeHtml(part)}</p>`}${own.map(styleArticle).join('\n')}`,
  );
  return `<section id="kind-${kind.replaceAll(' ', '-')}"><h2>${titled(escapeHtml(kind))}</h2>${articles.join('\n')}</section>`;
}

function styleArticle(style: SampledStyle): string {
  const { name, elements, pages, rules, shown, inStates, example } = style;
  const from =
    example === undefined ? '' : ` <span class="aside">shown: ${escapeHtml(example.page.path)}</span>`;
  const frames = shown.map((one, at) =>
    frame(one, `${name}, ${SAMPLE_WIDTHS[at]} pixels`, SAMPLE_WIDTHS[at]!),
  );
  const states = inStates.map(
    ({ state, shown: one }) =>
      `<figure>${frame(one, `${name}, ${state}`, STATE_WIDTH)}<figcaption>:${state}</figcaption></figure>`,
  );
  return `<article id="${escapeHtml(anchorOf(name))}"><h3>${escapeHtml(name)}</h3><p>${count(elements, 'element')} on ${count(pages, 'page')}${from}</p>${
    frames.length === 0
      ? '<p class="aside">It cannot be cut out of its page.</p>'
      : `<div class="frames">${frames.join('')}</div>`
  }${states.length === 0 ? '' : `<div class="frames">${states.join('')}</div>`}${rules
    .map(
      ({ text, place }) =>
        `<div class="rule"><pre><code>${escapeHtml(text)}</code></pre><span class="aside">${escapeHtml(showPlace(place))}</span></div>`,
    )
    .join('')}${notes(style)}</article>`;
}

function notes({ like, nearly }: SharedStyle): string {
  const lines = like.slice(0, 3).map(({ name, own, others }) => {
    const says = (forms: readonly string[]): string =>
      forms.map((one) => `<code>${escapeHtml(one)}</code>`).join(', ');
    const apart = [
      ...(own.length > 0 ? [`it alone declares ${says(own)}`] : []),
      ...(others.length > 0 ? [`that one declares ${says(others)}`] : []),
    ];
    return `like <a href="#${escapeHtml(anchorOf(name))}">${escapeHtml(name)}</a>: ${apart.length === 0 ? 'they say the same' : apart.join('; ')}`;
  });
  if (nearly !== undefined) {
    const lacks = nearly.lacks.map((one) => `<code>${escapeHtml(one)}</code>`);
    const what = lacks.length === 0 ? 'declares all of it' : `declares all of it but ${lacks.join(', ')}`;
    lines.push(
      `${count(nearly.elements, 'element')} nearly ${nearly.elements === 1 ? 'has' : 'have'} it: a style attribute ${what} (${escapeHtml(showPlace(nearly.place))})`,
    );
  }
  return lines.length === 0
    ? ''
    : `<ul class="notes">${lines.map((line) => `<li>${line}</li>`).join('')}</ul>`;
}

function frame(shown: Shown, title: string, width: number): string {
  if (shown.kind === 'picture')
    return `<img src="${escapeHtml(shown.address)}" alt="${escapeHtml(title)}" style="width:${shown.width}px">`;
  // Without scripts; of the page's own origin, so that it can be measured.
  return `<iframe sandbox="allow-same-origin" loading="lazy" title="${escapeHtml(title)}" style="width:${width}px" srcdoc="${escapeHtml(shown.html)}"></iframe>`;
}

function unwornSection(styles: readonly SampledStyle[]): string {
  const rows = styles.map(
    ({ name, rules }) =>
      `<tr id="${escapeHtml(anchorOf(name))}"><td><b>${escapeHtml(name)}</b></td><td class="aside">${escapeHtml(showPlace(rules[0]!.place))}</td></tr>`,
  );
  return `<section id="unworn"><h2>Worn by nothing</h2><p class="aside">On no page that was read. A script, or a page that is not here, may still ask for them.</p><table><tbody>${rows.join('')}</tbody></table></section>`;
}

const STYLE = `
.index { padding: 0; list-style: none; line-height: 1.9; }
.index a { margin-right: .35rem; white-space: nowrap; }
.swatches { display: grid; grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr)); gap: 1.75rem 1.5rem; }
.swatch { display: block; height: 5rem; border: 1px solid var(--line); print-color-adjust: exact; }
.swatch.none { background: repeating-linear-gradient(45deg, transparent 0 6px, var(--line) 6px 7px); }
.contrasts { margin: .25rem 0 0; padding: 0; list-style: none; font-size: .85rem; }
.low { color: var(--amber); }
.type { width: 18rem; white-space: nowrap; overflow: hidden; }
.part { margin: 2.5rem 0 0; color: var(--soft); }
article { margin: 1.5rem 0 3rem; break-inside: avoid; }
article h3 { margin-top: 1rem; color: inherit; }
article p { margin: 0 0 .75rem; }
.frames { display: flex; flex-wrap: wrap; align-items: flex-start; gap: 1rem; margin: 0 0 .75rem; }
iframe { box-sizing: content-box; max-width: 100%; height: 8rem; border: 1px solid var(--line); background: #fff; color-scheme: light; }
article img { height: auto; max-width: 100%; }
.rule { display: flex; flex-wrap: wrap; align-items: baseline; justify-content: space-between; gap: 0 1.5rem; }
pre { margin: .35rem 0; overflow-x: auto; }
.notes { margin: .5rem 0 0; padding-left: 1.1rem; font-size: .9rem; }
`;
