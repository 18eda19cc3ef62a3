// `acervus draft --review`: goes through a draft style by style in a terminal. Every answer is written at once, so that
// one can stop and go on later.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { input, select } from '@inquirer/prompts';
import writeFileAtomic from 'write-file-atomic';
import type { Frozen } from '../../commands/shared/document-parts.js';
import { inOneLine } from '../../core/base/phrases.js';
import { offsetAt } from '../../core/base/source.js';
import { UsageError } from '../../core/base/usage-error.js';
import {
  type Answer,
  answerDraft,
  DRAFT_FILE,
  type Draft,
  type DraftStyle,
  parseDraft,
} from '../../core/edit/draft/index.js';
import { applyEdits } from '../../core/edit/text/index.js';
import { count } from '../../core/proof/index.js';
import { CLASS_NAME } from '../../core/search/index.js';
import { openFolder } from '../../site/files/files.js';
import { insideSite } from '../../site/files/inside.js';
import type { FileChange } from '../../site/ledger/change.js';
import { findPlan } from '../../site/ledger/plan.js';
import { onSite } from '../shared/moved-lines.js';
import { groupsOf, homeWords, isAbout, styleLines } from '../shared/outcome-lines.js';
import { declarationsLine, dim, heading, next, row } from '../shared/paper.js';
import { print } from '../shared/present.js';
import type { Terminal } from '../shared/terminal.js';

export function hasDraft(folder: string): boolean {
  return existsSync(path.join(folder, DRAFT_FILE));
}

type Choice = 'take' | 'alike' | 'rename' | 'skip' | 'keep' | 'quit';

/** Throws `UsageError` where nobody can answer. */
export async function review(terminal: Terminal, folder: string, only?: string): Promise<number> {
  if (!terminal.canAsk) throw new UsageError('review-terminal', {});
  const file = path.join(folder, DRAFT_FILE);
  let text = readFileSync(file, 'utf8');
  const draft = parseDraft(text);
  const planned = plannedFor(folder, text);
  const isOpen = (style: DraftStyle): boolean =>
    style.reviewed !== true && (only === undefined || isAbout(style, only));
  // Like ones follow each other, so that one answer may do for all of them.
  const open = groupsOf(draft.styles.filter(isOpen)).flatMap(({ styles }) => styles);
  const decided = new Set<string>();
  const tally = { take: 0, keep: 0, skip: 0 };
  for (const [at, style] of open.entries()) {
    if (decided.has(style.id)) continue;
    const alike = open.slice(at).filter((other) => !decided.has(other.id) && isAlike(other, style));
    print(terminal, ['', ...shown(style, folder, planned, at + 1, open.length)]);
    const choice = await ask(style, alike.length - 1);
    if (choice === 'quit') break;
    if (choice === 'skip') {
      tally.skip++;
      continue;
    }
    const answer: Answer = { take: choice !== 'keep' };
    if (choice === 'rename') answer.name = await askName(style, parseDraft(text));
    const ids = choice === 'alike' ? alike.map(({ id }) => id) : [style.id];
    for (const id of ids) decided.add(id);
    text = answerDraft(text, ids, answer);
    writeFileAtomic.sync(insideSite(folder, DRAFT_FILE), text);
    tally[answer.take ? 'take' : 'keep'] += ids.length;
  }
  const left = parseDraft(text).styles.filter(({ reviewed }) => reviewed !== true).length;
  const at = onSite(folder);
  print(terminal, [
    heading('Review', file),
    row({ count: tally.take, mark: 'made', text: 'taken' }),
    row({ count: tally.keep, mark: 'kept', text: 'left where they are' }),
    row({
      count: left,
      mark: left > 0 ? 'needs' : 'none',
      text: 'not decided yet; what is not decided is taken',
    }),
    left > 0
      ? next(`acervus draft --review${at}`, 'goes on where you stopped')
      : next(`acervus adopt${at}`, 'carries it out'),
  ]);
  return 0;
}

/** What it looks like: the style, a tag that it changes, and the reason. */
function shown(
  style: Frozen<DraftStyle>,
  folder: string,
  planned: ReadonlyMap<string, FileChange>,
  number: number,
  of: number,
): string[] {
  const lines = [
    heading(`${number} of ${of}`, homeWords(style.home)),
    ...styleLines([{ ...style, take: true }], true).slice(1),
  ];
  const [place] = style['such as'] ?? [];
  const source = place === undefined ? undefined : sourceAt(folder, place, planned);
  if (source !== undefined) {
    lines.push(row({ text: `now   ${declarationsLine([source.now])}`, place: place ?? '' }));
    if (source.after !== undefined) lines.push(row({ text: `then  ${declarationsLine([source.after])}` }));
  }
  if (style.saves !== undefined)
    lines.push(
      row({
        text: dim(`saves ${count(style.saves.places, 'place')}, about ${count(style.saves.bytes, 'byte')}`),
      }),
    );
  return lines;
}

const LONGEST = 110;

/** What adopting the draft as it is would change, by file; nothing where it was edited since it was made. */
function plannedFor(folder: string, text: string): ReadonlyMap<string, FileChange> {
  const plan = findPlan(path.resolve(folder), text, openFolder(folder));
  return new Map((plan?.changes ?? []).map((change) => [change.path, change]));
}

/** The tag or rule at `page:line:column`, as it is and as it would be. */
function sourceAt(
  folder: string,
  place: string,
  planned: ReadonlyMap<string, FileChange>,
): { readonly now: string; readonly after: string | undefined } | undefined {
  const match = /^(.*):(\d+):(\d+)$/.exec(place);
  if (match === null) return undefined;
  const change = planned.get(match[1]!);
  const text = change?.text ?? readFileSync(path.join(folder, match[1]!), 'utf8');
  const start = offsetAt(text, Number(match[2]), Number(match[3]));
  const source = /^(?:"[^"]*"|'[^']*'|[^>}"'])*[>}]?/.exec(text.slice(start, start + 2000))?.[0] ?? '';
  if (source.trim() === '') return undefined;
  const end = start + source.length;
  const own = (change?.edits ?? []).filter((edit) => edit.start >= start && edit.end <= end);
  const then = applyEdits(
    source,
    own.map((edit) => ({ start: edit.start - start, end: edit.end - start, text: edit.text })),
  );
  return { now: shortened(source), after: own.length === 0 ? undefined : shortened(then) };
}

function shortened(source: string): string {
  const line = inOneLine(source);
  return line.length > LONGEST ? `${line.slice(0, LONGEST - 1)}…` : line;
}

function isAlike(a: Frozen<DraftStyle>, b: Frozen<DraftStyle>): boolean {
  return a.home === b.home && a['written into'] === b['written into'];
}

async function ask(style: Frozen<DraftStyle>, others: number): Promise<Choice> {
  const choices: { value: Choice; name: string }[] = [
    { value: 'take', name: 'take' },
    ...(style.home === 'new class' ? [{ value: 'rename' as const, name: 'rename, and take' }] : []),
    { value: 'keep', name: 'keep it where it is' },
    { value: 'skip', name: 'skip, decide later' },
    ...(others > 0
      ? [
          {
            value: 'alike' as const,
            name: `take this and ${others} more ${homeWords(style.home)}`,
          },
        ]
      : []),
    { value: 'quit', name: 'quit, go on later' },
  ];
  return answered(select({ message: style.name === undefined ? 'This one?' : `.${style.name}?`, choices }));
}

async function askName(style: Frozen<DraftStyle>, { styles }: Draft): Promise<string> {
  const taken = new Set(styles.filter(({ id }) => id !== style.id).map(({ name }) => name?.toLowerCase()));
  const name = await answered(
    input({
      message: 'Name of the class',
      default: style.name ?? '',
      validate: (text) =>
        !CLASS_NAME.test(text)
          ? 'letters, digits, - and _, a letter first'
          : !taken.has(text.toLowerCase()) || 'another style of the draft has this name',
    }),
  );
  return name === 'quit' ? (style.name ?? name) : name;
}

/** Ctrl-C is a way to stop, not an error. */
async function answered<T>(question: Promise<T>): Promise<T | 'quit'> {
  try {
    return await question;
  } catch (error) {
    if (error instanceof Error && error.name === 'ExitPromptError') return 'quit';
    throw error;
  }
}
