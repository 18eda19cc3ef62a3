// `acervus draft --review`: goes through a draft style by style in a terminal. Every answer is written at once, so that
// one can stop and go on later.

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { input, select } from '@inquirer/prompts';
import writeFileAtomic from 'write-file-atomic';
import {
  type Answer,
  answerDraft,
  DRAFT_FILE,
  type Draft,
  type DraftStyle,
  parseDraft,
} from '../../../core/draft/index.js';
import { count } from '../../../core/proof/index.js';
import { CLASS_NAME } from '../../../core/search/index.js';
import { UsageError } from '../../../core/usage-error.js';
import { insideSite } from '../../../site/files/inside.js';
import { onSite } from '../../shared/moved-lines.js';
import { styleLines } from '../../shared/outcome-lines.js';
import { clean, dim, heading, next, row } from '../../shared/paper.js';
import { print } from '../../shared/present.js';
import type { Terminal } from '../../shared/terminal.js';

export function hasDraft(folder: string): boolean {
  return existsSync(path.join(folder, DRAFT_FILE));
}

type Choice = 'take' | 'rename' | 'skip' | 'keep' | 'quit';

/** Throws `UsageError` where nobody can answer. */
export async function review(terminal: Terminal, folder: string): Promise<number> {
  if (!terminal.canAsk) throw new UsageError('review-terminal', {});
  const file = path.join(folder, DRAFT_FILE);
  let text = readFileSync(file, 'utf8');
  const draft = parseDraft(text);
  const open = draft.styles.filter(({ reviewed }) => reviewed !== true);
  const tally = { take: 0, keep: 0, skip: 0 };
  for (const [at, style] of open.entries()) {
    print(terminal, ['', ...shown(style, folder, at + 1, open.length)]);
    const choice = await ask(style);
    if (choice === 'quit') break;
    if (choice === 'skip') {
      tally.skip++;
      continue;
    }
    const answer: Answer = { take: choice !== 'keep' };
    if (choice === 'rename') answer.name = await askName(style, parseDraft(text));
    text = answerDraft(text, style.id, answer);
    writeFileAtomic.sync(insideSite(folder, DRAFT_FILE), text);
    tally[answer.take ? 'take' : 'keep']++;
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
function shown(style: DraftStyle, folder: string, number: number, of: number): string[] {
  const lines = [heading(`${number} of ${of}`), ...styleLines([{ ...style, take: true }], true)];
  const [place] = style['such as'] ?? [];
  const source = place === undefined ? undefined : sourceAt(folder, place);
  if (source !== undefined) lines.push(row({ text: `now   ${clean(source)}`, place: place ?? '' }));
  if (style.saves !== undefined)
    lines.push(
      row({
        text: dim(`saves ${count(style.saves.places, 'place')}, about ${count(style.saves.bytes, 'byte')}`),
      }),
    );
  return lines;
}

const LONGEST = 110;

/** The tag or rule at `page:line:column`. */
function sourceAt(folder: string, place: string): string | undefined {
  const match = /^(.*):(\d+):(\d+)$/.exec(place);
  if (match === null) return undefined;
  const line = readFileSync(path.join(folder, match[1]!), 'utf8').split(/\r\n|\n|\r/)[Number(match[2]) - 1];
  const source = /^[^>}]*[>}]?/.exec(line?.slice(Number(match[3]) - 1) ?? '')?.[0].trim();
  if (source === undefined || source === '') return undefined;
  return source.length > LONGEST ? `${source.slice(0, LONGEST - 1)}…` : source;
}

async function ask(style: DraftStyle): Promise<Choice> {
  const choices: { value: Choice; name: string }[] = [
    { value: 'take', name: 'take' },
    ...(style.home === 'new class' ? [{ value: 'rename' as const, name: 'rename, and take' }] : []),
    { value: 'keep', name: 'keep it where it is' },
    { value: 'skip', name: 'skip, decide later' },
    { value: 'quit', name: 'quit, go on later' },
  ];
  return answered(select({ message: style.name === undefined ? 'This one?' : `.${style.name}?`, choices }));
}

async function askName(style: DraftStyle, { styles }: Draft): Promise<string> {
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
