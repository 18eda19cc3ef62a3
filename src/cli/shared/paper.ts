// How results look in a terminal: accounts read down the left edge. Counts right-aligned, then a mark, then what they
// count, places last and dimmed. Colour never carries meaning alone.

import picocolors from 'picocolors';
import stringWidth from 'string-width';
import wrapAnsi from 'wrap-ansi';
import { grouped } from '../../core/base/grouped.js';
import { clean } from '../../core/base/site-text.js';
import { normalColour } from '../../core/read/sheets/colours.js';

export { grouped } from '../../core/base/grouped.js';
export { asTyped, clean, quoted } from '../../core/base/site-text.js';

/** Colour follows NO_COLOR, FORCE_COLOR and the terminal, and nothing else: a log of a build is no terminal. */
function wantsColour({ NO_COLOR, FORCE_COLOR, TERM }: NodeJS.ProcessEnv): boolean {
  if (NO_COLOR !== undefined && NO_COLOR !== '') return false;
  if (FORCE_COLOR !== undefined) return FORCE_COLOR !== '0' && FORCE_COLOR !== 'false';
  return process.stdout.isTTY === true && TERM !== 'dumb';
}

export const pc = picocolors.createColors(wantsColour(process.env));

/** What a line is: made, taken out, kept, needs a person, broken. */
export type Mark = 'made' | 'taken' | 'kept' | 'needs' | 'broken' | 'none';

const MARKS: Readonly<Record<Mark, string>> = {
  made: pc.cyan('+'),
  taken: pc.cyan('−'),
  kept: pc.gray('='),
  needs: pc.yellow('?'),
  broken: pc.red('!'),
  none: ' ',
};

const COUNT_WIDTH = 7;
const INDENT = COUNT_WIDTH + 3;

/** Width to fill, at least 80. */
export function paperWidth(): number {
  const columns = process.stdout.columns ?? Number(process.env.COLUMNS ?? 80);
  return Math.max(80, Math.min(columns || 80, 140));
}

export interface Row {
  readonly count?: number | string;
  readonly mark?: Mark;
  readonly text: string;
  /** Shown last, dimmed. */
  readonly place?: string;
}

/** A line of an account. What does not fit goes on in the next line, the place last: nothing is cut. */
export function row({ count = '', mark = 'none', text, place: where = '' }: Row): string {
  const place = clean(where);
  const number = typeof count === 'number' ? grouped(count) : count;
  const room = paperWidth() - INDENT;
  const lines = wrap(text, room);
  const last = lines.at(-1) ?? '';
  const left = room - stringWidth(last) - stringWidth(place);
  if (place !== '' && left >= 2) lines[lines.length - 1] = `${last}${' '.repeat(left)}${pc.gray(place)}`;
  else if (place !== '') lines.push(`${' '.repeat(Math.max(0, room - stringWidth(place)))}${pc.gray(place)}`);
  const [first = '', ...rest] = lines;
  return [
    `${number.padStart(COUNT_WIDTH)} ${MARKS[mark]} ${first}`,
    ...rest.map((line) => ' '.repeat(INDENT) + line),
  ]
    .map((line) => line.trimEnd())
    .join('\n');
}

export function heading(text: string, aside = ''): string {
  return `\n${pc.bold(clean(text))}${aside === '' ? '' : `  ${pc.gray(clean(aside))}`}`;
}

/** The step that usually comes next: the last line of every command. */
export function next(command: string, why: string): string {
  return `\n${pc.gray('next')}  ${pc.bold(clean(command))}  ${pc.gray(why)}`;
}

/** The end of a list that is cut: `12 more pages (--all)`. */
export function more(hidden: number, how: string, what = ''): string {
  return row({ text: pc.gray(`${grouped(hidden)} more${what === '' ? '' : ` ${what}`} (${how})`) });
}

export const dim = pc.gray;
export const amber = pc.yellow;

/** A block in the colour itself, where the terminal can; the value is always written beside it. */
export function swatch(colour: string): string {
  const normal = normalColour(colour)?.slice(1, 7);
  if (normal === undefined || !pc.isColorSupported) return '';
  const [red, green, blue] = [0, 2, 4].map((at) => Number.parseInt(normal.slice(at, at + 2), 16));
  return `\u001b[48;2;${red};${green};${blue}m  \u001b[49m `;
}

/** Declarations in one line, each colour with its swatch. */
export function declarationsLine(declarations: readonly string[]): string {
  return clean(declarations.join('; ')).replace(
    /#[0-9a-f]{3,8}\b|\brgba?\([^)]*\)/gi,
    (colour) => `${swatch(colour)}${colour}`,
  );
}

/** A long list of selectors, its middle left out. */
export function shortSelector(selector: string): string {
  const text = clean(selector);
  return text.length > 100 ? `${text.slice(0, 60)} … ${text.slice(-24)}` : text;
}

/** Breaks at spaces, and goes on two columns in; a longer word stands alone. */
function wrap(text: string, room: number): string[] {
  if (stringWidth(text) <= room) return [text];
  const lead = /^ */.exec(text)?.[0] ?? '';
  const [first = '', ...rest] = wrapAnsi(text.slice(lead.length), room - lead.length).split('\n');
  // Each line of a wrapped text has its colours to itself, so that the rest is wrapped again as it stands.
  const narrow = rest.length === 0 ? [] : wrapAnsi(rest.join(' '), room - 2).split('\n');
  return [lead + first, ...narrow.map((line) => `  ${line}`)];
}
