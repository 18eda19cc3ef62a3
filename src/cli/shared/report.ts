// `--report`: what a command found, as one page for whoever pays.

import type { AdoptDocument } from '../../commands/adopt/document.js';
import type { SurveyDocument } from '../../commands/survey/document.js';
import { grouped } from '../../core/base/grouped.js';
import { withoutEnd } from '../../core/base/phrases.js';
import type { WholeReport } from '../../report/whole.js';
import { homeWords } from './outcome-lines.js';
import type { Terminal } from './terminal.js';

export async function showReport({ warn }: Terminal, folder: string, report: WholeReport): Promise<void> {
  const { writeReport } = await import('../../report/whole.js');
  warn(`report  ${await writeReport(folder, report)}\n`);
}

const PARTS = ['in tags', 'in style blocks', 'in sheets'] as const;

export function reportOfSurvey(document: SurveyDocument): WholeReport {
  const { pages, elements, upkeep, inline, blocks, oldAttributes, broken } = document;
  const tags = inline.written + oldAttributes.written;
  const least = { name: 'at least needed', parts: [['written once', upkeep.least] as const] };
  return {
    kind: 'survey',
    headline: `${grouped(upkeep.now)} places to maintain`,
    said: `${grouped(pages)} pages with ${grouped(elements)} elements. What is written in their tags, their style blocks and the theme's sheets.`,
    figures: [
      [inline.written, 'declarations in style attributes'],
      [oldAttributes.written, 'old attributes'],
      [blocks.written, 'declarations in style blocks'],
      [inline.repeated + blocks.repeated, 'that repeat another'],
      [broken.length, 'kinds of slips that browsers pass over'],
    ],
    upkeep: [
      {
        name: 'now',
        parts: [
          [PARTS[0], tags],
          [PARTS[1], blocks.written],
          [PARTS[2], Math.max(0, upkeep.now - tags - blocks.written)],
        ],
      },
      ...(upkeep.drafted === undefined
        ? []
        : [{ name: 'once the draft is adopted', parts: [['left', upkeep.drafted] as const] }]),
      least,
    ],
    moves: document.repeatedSets.map(({ declarations, times, pages: on }) => ({
      ...{ name: `${declarations[0] ?? ''}${declarations.length > 1 ? ' …' : ''}`, how: 'written in tags' },
      ...{ elements: times, pages: on, saves: (times - 1) * declarations.length, places: [] },
      rule: declarations.map((one) => `${one};`).join('\n'),
    })),
    nearMisses: document.nearMisses.map(({ colour, near, times, nearTimes, distance }) => ({
      ...{ one: colour, other: near },
      said: `${grouped(times)} and ${grouped(nearTimes)} times; ${distance} apart`,
    })),
    kept: [],
  };
}

export function reportOfAdopt(document: AdoptDocument): WholeReport {
  const { upkeep, held, styles, kept, proof, files, size, changed } = document;
  const bar = (name: string, at: 'now' | 'after') => ({
    name,
    parts: [
      [PARTS[0], held.tags[at]] as const,
      [PARTS[1], held.blocks[at]] as const,
      [PARTS[2], held.sheets[at]] as const,
    ],
  });
  const less = upkeep.now === 0 ? 0 : Math.round(100 * (1 - upkeep.after / upkeep.now));
  return {
    kind: 'adopt',
    headline: `${less}% less to maintain`,
    said: `${changed.elements === 0 ? 'Nothing looks different' : `${grouped(changed.elements)} elements look different, where near misses were made the same, and nothing else does`}: proven on ${grouped(proof.elements)} elements of ${grouped(proof.pages)} pages, in every medium and state.`,
    figures: [
      [upkeep.now, 'places held a declaration or an old attribute'],
      [upkeep.after, 'are left'],
      [files.length, 'files were written'],
      [Math.max(0, size.now - size.after), 'characters fewer in pages and sheets'],
    ],
    upkeep: [bar('before', 'now'), bar('after', 'after')],
    moves: styles.map((one) => ({
      // What is given already has no rule of its own: it goes by what it says.
      name: one.name === undefined ? (one.selector ?? firstOf(one.declarations)) : `.${one.name}`,
      how: homeWords(one.home),
      elements: one.elements ?? 0,
      pages: one.pages ?? 0,
      saves: one.saves?.places ?? 0,
      rule: one.declarations.trim(),
      places: one['such as'] ?? [],
    })),
    nearMisses: [],
    kept: kept.map(({ reason, declarations, places }) => ({
      ...{ reason, count: declarations, place: places[0] ?? '' },
    })),
  };
}

function firstOf(declarations: string): string {
  return withoutEnd(declarations.trim().split(/;?\n/)[0]!, ';');
}
