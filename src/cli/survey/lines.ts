// How a survey is shown to a person.

import type { SurveyDocument } from '../../commands/survey/document.js';
import { groupBy } from '../../core/base/group-by.js';
import { showPlace } from '../../core/base/source.js';
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
  const few = <T>(items: readonly T[], number: number): readonly T[] =>
    all ? items : items.slice(0, number);
  const lines = [heading('Site', folder)];
  lines.push(
    row({
      count: stock.pages,
      text: `${stock.pages === 1 ? 'page' : 'pages'}, ${plural(stock.components, 'component')}, ${plural(stock.elements, 'element')}`,
    }),
  );
  if (stock.built !== undefined)
    lines.push(
      row({ text: dim(`as ${clean(stock.built.command)} builds them into ${clean(stock.built.into)}`) }),
    );
  if (stock.platformPages > 0)
    lines.push(
      row({
        count: stock.platformPages,
        text: dim('pages of the platform, in folders of its own: not counted'),
      }),
    );
  if (stock.sheets.length > 0)
    lines.push(heading('Sheets', 'pages that use each, and how it was told whose it is'));
  for (const { path, owner, because, pages } of few(stock.sheets, 8)) {
    lines.push(
      row({
        count: pages,
        text: `${owner === 'platform' ? 'platform' : 'theme   '}  ${path}`,
        place: because,
      }),
    );
  }
  if (!all && stock.sheets.length > 8) lines.push(more(stock.sheets.length - 8, '--all'));

  lines.push(heading('Written', 'each count is one place to keep up'));
  lines.push(...tallyLines(stock.inline, 'declarations in', 'style attributes', 'attributes'));
  lines.push(...tallyLines(stock.blocks, 'declarations in', 'style blocks', 'blocks'));
  lines.push(
    ...tallyLines(stock.oldAttributes, 'old attributes and elements such as bgcolor and <center>', '', ''),
  );
  lines.push(...tallyLines(stock.themeSheets, 'declarations in', 'theme sheets', ''));
  lines.push(...tallyLines(stock.sources, 'declarations in', 'preprocessor sheets', ''));
  const { times, examples } = stock.inCode;
  if (times > 0)
    lines.push(
      row({
        count: times,
        text: dim('style attributes in strings of code: not counted, and never edited'),
        place: examples[0] === undefined ? '' : showPlace(examples[0]),
      }),
    );
  const { blocks } = stock.inCode;
  if (blocks.times > 0)
    lines.push(
      row({
        count: blocks.declarations,
        text: dim(`declarations in ${plural(blocks.times, 'style block')} in strings of code: not counted`),
        place: blocks.examples[0] === undefined ? '' : showPlace(blocks.examples[0]),
      }),
    );
  const { now, drafted, least } = stock.upkeep;
  lines.push(row({ count: now, text: 'upkeep now' }));
  if (drafted !== undefined)
    lines.push(row({ count: drafted, mark: 'made', text: 'upkeep once the draft that is there is adopted' }));
  lines.push(row({ count: least, text: 'least possible: everything written once' }));
  lines.push(
    row({
      count: stock.stylesFromSelf,
      text: `of ${plural(stock.pages, 'page')} would pass a policy of style-src 'self'`,
    }),
  );

  const where = { pagesOf: stock.built?.pagesOf ?? {}, all };
  lines.push(...setLines('Most repeated style attributes', stock.repeatedSets, 8, where));
  lines.push(...setLines('Rules with the same declarations', stock.repeatedRules, 4, where));

  const mixed = stock.colours.filter(({ spellings }) => spellings.length > 1);
  if (mixed.length > 0 || stock.nearMisses.length > 0) {
    lines.push(heading('Colours', `${stock.colours.length} different`));
    for (const { colour, times, spellings } of few(mixed, 6)) {
      lines.push(
        row({
          count: times,
          text: `${swatch(colour)}${spellings.map(({ text, times: each }) => `${clean(text)} ${dim(`×${each}`)}`).join('  ')}`,
        }),
      );
    }
    if (!all && mixed.length > 6) lines.push(more(mixed.length - 6, '--all'));
    for (const { colour, times, near, nearTimes } of few(stock.nearMisses, 4)) {
      lines.push(
        row({
          count: times,
          mark: 'needs',
          text: `${swatch(colour)}${colour} is all but ${swatch(near)}${near} ${dim(`×${nearTimes}`)}`,
        }),
      );
    }
    if (!all && stock.nearMisses.length > 4) lines.push(more(stock.nearMisses.length - 4, '--all'));
  }

  // What could be done about that is said below.
  const broken = stock.broken.filter(
    ({ kind }) => stock.suggested === undefined || kind !== 'no sheet found',
  );
  if (broken.length > 0) lines.push(heading('Broken', 'browsers pass over these in silence'));
  for (const group of groupBy(broken, ({ kind }) => kind).values()) {
    for (const finding of few(group, 3)) lines.push(findingLine(finding));
    if (!all && group.length > 3) lines.push(more(group.length - 3, `of «${group[0]!.kind}», --all`));
  }
  const elsewhere = stock.unread.filter(({ why }) => why === 'elsewhere');
  if (elsewhere.length > 0) {
    lines.push(heading('Not read', 'name a local copy under "copies" in acervus.json'));
    for (const { address, pages } of few(elsewhere, 3))
      lines.push(row({ count: pages, mark: 'needs', text: amber(clean(address)) }));
    if (!all && elsewhere.length > 3) lines.push(more(elsewhere.length - 3, '--all'));
  }
  const kinds = Object.entries(stock.unreadEndings);
  if (kinds.length > 0) {
    const text = kinds.map(([ending, count]) => `${grouped(count)} ${ending}`).join(', ');
    lines.push(heading('Kinds of files that are not read', clean(text)));
  }
  if (stock.suggested !== undefined) {
    lines.push(
      heading(
        `No sheet is known for ${stock.sheets.some(({ owner }) => owner === 'theme') ? 'most of ' : ''}the templates`,
        'this in acervus.json names one; link it as the system does',
      ),
    );
    lines.push(row({ mark: 'needs', text: clean(JSON.stringify(stock.suggested)) }));
  }
  const when = stock.suggested === undefined ? '' : ', once a sheet is named';
  lines.push(next(`acervus draft${onSite(folder)}`, `proposes a home for what repeats${when}`));
  return lines;
}

function tallyLines(tally: Tally, before: string, holder: string, alike: string): string[] {
  if (tally.written === 0) return [];
  const holders = holder === '' ? '' : ` ${plural(tally.holders, holder.replace(/s$/, ''))}`;
  const same = alike !== '' && tally.alike > 0 ? `; ${grouped(tally.alike)} ${alike} have a twin` : '';
  const repeated = `${grouped(tally.repeated)} of them repeat; ${grouped(tally.distinct)} different ones${same}`;
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
