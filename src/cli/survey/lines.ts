// How a survey is shown to a person.

import type { SurveyDocument } from '../../commands/survey/document.js';
import { groupBy } from '../../core/base/group-by.js';
import { withoutEnd } from '../../core/base/phrases.js';
import { type Place, showPlace } from '../../core/base/source.js';
import { FINDINGS } from '../../core/stock/findings.js';
import { onSite, plural } from '../shared/moved-lines.js';
import {
  amber,
  clean,
  declarationsLine,
  dim,
  grouped,
  heading,
  more,
  next,
  row,
  swatch,
} from '../shared/paper.js';

type Tally = SurveyDocument['inline'];
type RepeatedSet = SurveyDocument['repeatedSets'][number];
type Finding = SurveyDocument['broken'][number];

export function surveyLines(folder: string, stock: SurveyDocument, all: boolean): string[] {
  const view: View = { stock, all, few: (items, number) => (all ? items : items.slice(0, number)) };
  const when = stock.suggested === undefined ? '' : ', once a sheet is named';
  return [
    heading('Site', folder),
    ...siteLines(view),
    ...sheetLines(view),
    ...writtenLines(view),
    ...upkeepLines(view),
    ...repeatedLines(view),
    ...colourLines(view),
    ...brokenLines(view),
    ...unreadLines(view),
    ...suggestionLines(view),
    next(`acervus draft${onSite(folder)}`, `proposes a home for what repeats${when}`),
  ];
}

interface View {
  readonly stock: SurveyDocument;
  readonly all: boolean;
  /** The first of a long list. */
  readonly few: <T>(items: readonly T[], number: number) => readonly T[];
}

/** What is left of a list of which some are shown. */
function rest({ all }: View, items: readonly unknown[], shown: number, what = ''): string[] {
  return all || items.length <= shown ? [] : [more(items.length - shown, '--all', what)];
}

function siteLines({ stock }: View): string[] {
  const { pages, components, elements, built, platformPages } = stock;
  const parts = `${pages === 1 ? 'page' : 'pages'}, ${plural(components, 'component')}, ${plural(elements, 'element')}`;
  const lines = [row({ count: pages, text: parts })];
  if (built !== undefined)
    lines.push(row({ text: dim(`as ${clean(built.command)} builds them into ${clean(built.into)}`) }));
  if (platformPages > 0)
    lines.push(row({ count: platformPages, text: dim('pages in folders of the platform: not counted') }));
  return lines;
}

function sheetLines(view: View): string[] {
  const { sheets } = view.stock;
  if (sheets.length === 0) return [];
  return [
    heading('Sheets', 'pages that use each, whose it is, and how we know'),
    ...view.few(sheets, 8).map(({ path, owner, because, pages }) =>
      row({
        count: pages,
        text: `${owner === 'platform' ? 'platform' : 'theme   '}  ${path}`,
        place: because,
      }),
    ),
    ...rest(view, sheets, 8),
  ];
}

function writtenLines({ stock }: View): string[] {
  const { inline, blocks, oldAttributes, themeSheets, sources, inCode } = stock;
  const lines = [
    heading('Written', 'each is one place to maintain'),
    ...tallyLines(inline, 'declarations in', 'style attributes', 'attributes'),
    ...tallyLines(blocks, 'declarations in', 'style blocks', 'blocks'),
    ...tallyLines(oldAttributes, 'old attributes and elements such as bgcolor and <center>', '', ''),
    ...tallyLines(themeSheets, 'declarations in', 'theme sheets', ''),
    ...tallyLines(sources, 'declarations in', 'preprocessor sheets', ''),
  ];
  const placeOf = ([first]: readonly Place[]): string => (first === undefined ? '' : showPlace(first));
  if (inCode.times > 0) {
    const text = dim('style attributes in strings of code: not counted, and never edited');
    lines.push(row({ count: inCode.times, text, place: placeOf(inCode.examples) }));
  }
  if (inCode.blocks.times > 0) {
    const { times, declarations, examples } = inCode.blocks;
    const text = dim(`declarations in ${plural(times, 'style block')} in strings of code: not counted`);
    lines.push(row({ count: declarations, text, place: placeOf(examples) }));
  }
  return lines;
}

function upkeepLines({ stock }: View): string[] {
  const { now, drafted, least } = stock.upkeep;
  const lines = [row({ count: now, text: 'places to maintain now' })];
  if (drafted !== undefined)
    lines.push(row({ count: drafted, mark: 'made', text: 'once the present draft is adopted' }));
  const works = `of ${plural(stock.pages, 'page')} would work under a CSP without inline styles`;
  return [
    ...lines,
    row({ count: least, text: 'if nothing were repeated' }),
    row({ count: stock.stylesFromSelf, text: works }),
  ];
}

function repeatedLines({ stock, all }: View): string[] {
  const where = { pagesOf: stock.built?.pagesOf ?? {}, all };
  return [
    ...setLines('Most repeated style attributes', stock.repeatedSets, 8, where),
    ...setLines('Rules with the same declarations', stock.repeatedRules, 4, where),
  ];
}

function colourLines(view: View): string[] {
  const { colours, nearMisses } = view.stock;
  const mixed = colours.filter(({ spellings }) => spellings.length > 1);
  if (mixed.length === 0 && nearMisses.length === 0) return [];
  const spelled = ({ text, times }: { readonly text: string; readonly times: number }): string =>
    `${clean(text)} ${dim(`×${times}`)}`;
  return [
    heading('Colours', `${colours.length} different`),
    ...view
      .few(mixed, 6)
      .map(({ colour, times, spellings }) =>
        row({ count: times, text: `${swatch(colour)}${spellings.map(spelled).join('  ')}` }),
      ),
    ...rest(view, mixed, 6),
    ...view.few(nearMisses, 4).map(({ colour, times, near, nearTimes }) =>
      row({
        count: times,
        mark: 'needs',
        text: `${swatch(colour)}${colour} is almost ${swatch(near)}${near} ${dim(`×${nearTimes}`)}`,
      }),
    ),
    ...rest(view, nearMisses, 4),
  ];
}

function brokenLines(view: View): string[] {
  const { broken, suggested } = view.stock;
  // What could be done about that is said below.
  const shown = broken.filter(({ kind }) => suggested === undefined || kind !== 'no sheet found');
  if (shown.length === 0) return [];
  return [
    heading('Broken', 'browsers ignore these silently'),
    ...[...groupBy(shown, ({ kind }) => kind)].flatMap(([kind, group]) => [
      ...view.few(group, 3).map(findingLine),
      ...rest(view, group, 3, FINDINGS[kind]),
    ]),
  ];
}

function unreadLines(view: View): string[] {
  const elsewhere = view.stock.unread.filter(({ why }) => why === 'elsewhere');
  const lines: string[] = [];
  if (elsewhere.length > 0)
    lines.push(
      heading('Not read', 'name a local copy under "copies" in acervus.json'),
      ...view
        .few(elsewhere, 3)
        .map(({ address, pages }) => row({ count: pages, mark: 'needs', text: amber(clean(address)) })),
      ...rest(view, elsewhere, 3),
    );
  const kinds = Object.entries(view.stock.unreadEndings);
  if (kinds.length === 0) return lines;
  const text = kinds.map(([ending, count]) => `${grouped(count)} ${ending}`).join(', ');
  return [...lines, heading('Kinds of files that are not read', clean(text))];
}

function suggestionLines({ stock }: View): string[] {
  const { sheets, suggested } = stock;
  if (suggested === undefined) return [];
  const most = sheets.some(({ owner }) => owner === 'theme') ? 'most of ' : '';
  return [
    heading(
      `No sheet is known for ${most}the templates`,
      'this in acervus.json names one; link it as the system does',
    ),
    row({ mark: 'needs', text: clean(JSON.stringify(suggested)) }),
  ];
}

function tallyLines(tally: Tally, before: string, holder: string, alike: string): string[] {
  if (tally.written === 0) return [];
  const holders = holder === '' ? '' : ` ${plural(tally.holders, withoutEnd(holder, 's'))}`;
  const same =
    alike !== '' && tally.alike > 0
      ? `; ${grouped(tally.alike)} ${alike} have exactly the same text as another`
      : '';
  const repeated = `${grouped(tally.repeated)} of them repeat; ${grouped(tally.distinct)} are different${same}`;
  return [row({ count: tally.written, text: `${before}${holders}` }), row({ text: dim(repeated) })];
}

function setLines(
  title: string,
  sets: readonly RepeatedSet[],
  number: number,
  { pagesOf, all }: { readonly pagesOf: Readonly<Record<string, number>>; readonly all: boolean },
): string[] {
  if (sets.length === 0) return [];
  const lines = [heading(title)];
  for (const { declarations, times, examples } of all ? sets : sets.slice(0, number)) {
    lines.push(
      row({
        count: times,
        text: declarationsLine(declarations),
        place: examples[0] === undefined ? '' : placeText(showPlace(examples[0]), pagesOf),
      }),
    );
  }
  if (!all && sets.length > number) lines.push(more(sets.length - number, '--all'));
  return lines;
}

/** A place in a source says on how many pages it shows. */
function placeText(place: string, pagesOf: Readonly<Record<string, number>>): string {
  const pages = pagesOf[place] ?? 1;
  return pages === 1 ? place : `${place}, on ${grouped(pages)} pages`;
}

function findingLine({ message, place, times }: Finding): string {
  return row({ count: times, mark: 'broken', text: clean(message), place: showPlace(place) });
}
