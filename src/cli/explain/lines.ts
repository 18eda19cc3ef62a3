// How an explanation is shown: specificity down the left edge, what wins above what it beat.

import type { ExplainDocument } from '../../commands/explain/document.js';
import { hasOneOf } from '../../core/base/characters.js';
import { showPlace } from '../../core/base/source.js';
import { onSite } from '../shared/moved-lines.js';
import {
  amber,
  clean,
  declarationsLine,
  dim,
  heading,
  more,
  next,
  pc,
  quoted,
  row,
} from '../shared/paper.js';

type Said = ExplainDocument['targets'][number]['properties'][number]['declarations'][number];

export interface ExplainView {
  readonly settings: number;
  readonly all: boolean;
  readonly property: readonly string[] | undefined;
  readonly state: readonly string[] | undefined;
  readonly width: number | undefined;
}

const MOST = 12;
const MOST_PLACES = 3;

/** Of a part, the elements around it on the pages that show it. */
function standingLines({ standsIn }: ExplainDocument, all: boolean): string[] {
  const shown = all ? standsIn : standsIn.slice(0, MOST_PLACES);
  return [
    ...shown.map(({ ancestors, pages: [first, ...others] }) =>
      row({
        text: dim(`in ${first === undefined ? '… > ' : ''}${ancestors.map(clean).join(' > ')}`),
        place:
          first === undefined ? '' : `${first}${others.length === 0 ? '' : ` and ${others.length} more`}`,
      }),
    ),
    ...(standsIn.length > shown.length ? [more(standsIn.length - shown.length, '--all')] : []),
  ];
}

export function explainLines(folder: string, explained: ExplainDocument, view: ExplainView): string[] {
  const place = explained.place === undefined ? explained.page : showPlace(explained.place);
  const lines = [heading('Explain', `${place}${circumstancesText(view)}`)];
  const path = [...explained.ancestors.map((one) => dim(clean(one))), pc.bold(clean(explained.shown))].join(
    dim(' > '),
  );
  lines.push(row({ text: path }), ...standingLines(explained, view.all));
  if (explained.matching > 1)
    lines.push(
      row({
        count: explained.matching,
        mark: 'needs',
        text: amber(`elements of the page match ${clean(explained.asked)}: this is the first`),
      }),
    );
  if (view.settings > 1)
    lines.push(
      row({
        count: view.settings,
        mark: 'needs',
        text: amber('sets of sheets may style this component: read here under the first'),
      }),
    );
  // Rules on `*::before` reach every element: where nothing is drawn, one line says so.
  const isShown = ({ target, hidden }: ExplainDocument['targets'][number]): boolean =>
    target === '' || hidden === undefined || view.all;
  for (const { target, properties, hidden } of explained.targets.filter(isShown)) {
    lines.push(
      heading(
        target === '' ? 'Styles' : target,
        target === '' ? 'specificity, then what wins above what it beats' : '',
      ),
    );
    if (hidden !== undefined) lines.push(row({ mark: 'needs', text: amber(clean(hidden)) }));
    for (const { name, longhands, declarations } of properties) {
      const [only, ...others] = declarations;
      // What is said once needs no line above it.
      if (only?.property === name && others.length === 0) lines.push(saidLine(only, true));
      else {
        lines.push(
          row({ text: pc.bold(clean(name.length > 60 ? `${longhands.length} longhands` : name)) }),
          ...declarations.map((one) => saidLine(one)),
        );
      }
    }
  }
  const undrawn = explained.targets.filter((one) => !isShown(one)).map(({ target }) => clean(target));
  if (undrawn.length > 0)
    lines.push('', row({ text: dim(`${undrawn.join(' and ')}: nothing is drawn; --all`) }));
  if (explained.targets.length === 0) lines.push(row({ count: 0, text: 'declarations for it' }));
  lines.push(...inheritedLines(explained, view.all));
  if (explained.customProperties.length > 0) {
    lines.push(heading('Custom properties', 'where the values above come from'));
    for (const { name, from, declarations } of explained.customProperties) {
      if (from === undefined)
        lines.push(row({ mark: 'needs', text: amber(`${clean(name)} is set on no ancestor`) }));
      else {
        lines.push(row({ text: `${pc.bold(clean(name))} ${dim(`from ${clean(from)}`)}` }));
        lines.push(...declarations.map((one) => saidLine(one)));
      }
    }
  }
  if (explained.idle.length > 0) lines.push(heading('Wins but does nothing', 'each with what would help'));
  for (const { target, longhands, declaration, why, remedy } of explained.idle) {
    const { property, value } = declaration;
    const part = longhands.includes(property) || longhands.length > 3 ? '' : ` (${longhands.join(', ')})`;
    lines.push(
      row({
        mark: 'needs',
        text: `${target}${target === '' ? '' : ' '}${declarationsLine([`${property}: ${value}`])}${part}: ${clean(why)}. ${dim(`Try ${clean(remedy)}`)}`,
        place: showPlace(declaration.place),
      }),
    );
  }
  if (explained.containingBlock !== undefined)
    lines.push(row({ text: `its offsets are measured from ${clean(explained.containingBlock)}` }));
  lines.push(...selectorLines(explained), ...changeLines(explained));
  for (const address of explained.unread)
    lines.push(
      row({
        mark: 'needs',
        text: dim(`not read: ${clean(address)}; name a local copy under "copies" in acervus.json`),
      }),
    );
  lines.push(
    next(
      `acervus reach ${quoted(explained.site.selector)}${onSite(folder)}`,
      'tells where all of it has effect',
    ),
  );
  return lines;
}

function circumstancesText({ state, width, property }: ExplainView): string {
  return [
    ...(property === undefined ? [] : [property.join(', ')]),
    ...(state === undefined ? [] : [`in the state ${state.join(', ')}`]),
    ...(width === undefined ? [] : [`${width} pixels wide`]),
  ]
    .map((one) => `, ${one}`)
    .join('');
}

/** In: whether the property's name stands out, where no line above it names it. */
function saidLine(said: Said, named = false): string {
  const { property, value, important, whose, selector, specificity, layer, place, when, beaten } = said;
  const text = declarationsLine([`${property}: ${value}${important ? ' !important' : ''}`]);
  const shown = named ? text.replace(/^[^:]+/, (name) => pc.bold(name)) : text;
  const from = selector === '' ? whose : `${clean(selector)}  ${whose}`;
  const tail = [
    layer === undefined ? '' : `layer ${clean(layer)}`,
    when === '' ? '' : `when ${clean(when)}`,
    beaten === undefined ? '' : clean(beaten.why),
  ].filter((one) => one !== '');
  const aside = tail.length === 0 ? '' : `  ${(beaten === undefined ? amber : dim)(tail.join('; '))}`;
  return row({
    count:
      specificity === undefined ? (whose === 'style attribute' ? 'style' : 'attr') : specificity.join(','),
    mark: beaten === undefined ? 'kept' : 'taken',
    text: `${beaten === undefined ? shown : dim(shown)}  ${dim(from)}${aside}`,
    place: showPlace(place),
  });
}

function inheritedLines({ inherited }: ExplainDocument, all: boolean): string[] {
  if (inherited.length === 0) return [];
  const lines = [heading('Inherited', 'from the nearest ancestor that declares it')];
  const shown = all ? inherited : inherited.slice(0, MOST);
  let from = '';
  for (const one of shown) {
    if (one.from !== from) lines.push(row({ text: `${dim('from')} ${clean(one.from)}` }));
    from = one.from;
    lines.push(
      ...one.declarations.map((said) =>
        saidLine({
          ...said,
          property: one.longhand === said.property ? said.property : `${one.longhand}, by ${said.property}`,
        }),
      ),
    );
  }
  if (inherited.length > shown.length) lines.push(more(inherited.length - shown.length, '--all'));
  return lines;
}

function selectorLines({ selectors, site }: ExplainDocument): string[] {
  const lines = [heading('Selectors to copy', 'how many elements of the page each picks out')];
  const { alone, kindOnPage, kindOnSite, generated } = selectors;
  if (alone !== undefined)
    lines.push(
      row({ count: alone.elements, text: `${clean(alone.selector)}  ${dim('this element alone')}` }),
    );
  if (kindOnPage !== undefined && kindOnPage.selector !== alone?.selector)
    lines.push(
      row({
        count: kindOnPage.elements,
        text: `${clean(kindOnPage.selector)}  ${dim('its kind on this page')}`,
      }),
    );
  const names = hasOneOf(site.selector, '.#') ? 'its names stand' : 'it stands';
  lines.push(
    row({
      count: kindOnSite.elements,
      text: `${clean(site.selector)}  ${dim(`its kind on the site: ${names} in ${site.pages} of ${site.of} pages`)}`,
    }),
  );
  if (generated.length > 0)
    lines.push(
      row({
        mark: 'needs',
        text: amber(
          `${generated.map((name) => `.${clean(name)}`).join(', ')} looks made by a program: the next build may rename it`,
        ),
      }),
    );
  return lines;
}

function changeLines({ toChange }: ExplainDocument): string[] {
  if (toChange.length === 0) return [];
  const lines = [heading('To change it', 'from a sheet loaded last')];
  for (const { property, beat, place, selector, alone, important } of toChange) {
    const what = property === '' ? 'the strongest here is' : `${property}: beat`;
    lines.push(
      row({ text: `${clean(what)} ${clean(beat)}`, place: place === undefined ? '' : showPlace(place) }),
    );
    const force = important ? amber('  with !important: nothing weaker beats it') : '';
    if (selector !== undefined)
      lines.push(row({ mark: 'made', text: `${clean(selector)}  ${dim('its kind')}${force}` }));
    if (alone !== undefined && alone !== selector)
      lines.push(row({ mark: 'made', text: `${clean(alone)}  ${dim('this element alone')}${force}` }));
    if (selector === undefined && alone === undefined)
      lines.push(row({ mark: 'needs', text: amber('no selector beats it: change it where it stands') }));
  }
  return lines;
}
