// Calls by which template engines link sheets and scripts: `stylesheet_link_tag 'theme'`, `css('theme.css')`,
// `'theme.css' | stylesheet_tag`, `javascript_include_tag 'fares'`.
import { either, isMadeOf, WORD } from '../../base/characters.js';

export interface SheetCall {
  /** Addresses; what the engine makes one of a name begins with `engine:`. */
  readonly names: readonly string[];
  /** Whether the code itself says when. */
  readonly isAtTimes: boolean;
}

export const NO_SHEETS: SheetCall = { names: [], isAtTimes: false };

const CALL = /(?:^|[^\w.])(?:\w*stylesheet\w*|\w*css(?:_\w+)?|style_tag)\b/i;
/** A string that is an argument by itself, not the value of an option and not compared with. */
const ARGUMENT = /(^|[^\s=:>])\s*(["'])([^"'\s]+)\2/g;

export function sheetsCalled(code: string): SheetCall {
  if (!CALL.test(code)) return NO_SHEETS;
  const isNamed = code.toLowerCase().includes('stylesheet');
  const strings = [...` ${code}`.matchAll(ARGUMENT)].map(([, , , text]) => text!);
  const names = strings.filter(
    (text) => isMadeOf(text, either(WORD, './@:-')) && (isNamed || text.toLowerCase().endsWith('.css')),
  );
  if (names.length === 0) return NO_SHEETS;
  return {
    names: names.map((name) => addressOf(name, 'css')),
    isAtTimes: /\s(if|unless)\s|\?[^:]*:/.test(code),
  };
}

const SCRIPT_CALL = /(?:^|[^\w.])(?:\w*javascript\w*|\w*script_tag|js(?:_\w+)?)\b/i;

/** The addresses of scripts that a call links. */
export function scriptsCalled(code: string): string[] {
  if (!SCRIPT_CALL.test(code)) return [];
  const isNamed = code.toLowerCase().includes('javascript');
  return [...` ${code}`.matchAll(ARGUMENT)]
    .map(([, , , text]) => text!)
    .filter((text) => isMadeOf(text, either(WORD, './@:-')) && (isNamed || /\.m?js$/i.test(text)))
    .map((name) => addressOf(name, 'js'));
}

function addressOf(name: string, ending: string): string {
  if (/^(https?:)?\/\//.test(name)) return name;
  return `engine:${name.toLowerCase().endsWith(`.${ending}`) ? name : `${name}.${ending}`}`;
}
