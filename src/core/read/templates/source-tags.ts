// Start tags as they stand in a source, whatever makes pages of it.

import { type Token, Tokenizer, TokenizerMode } from 'parse5';
import type { SourceRange } from '../../base/source.js';
import { maskPieces } from './mask.js';
import { enginePieces } from './pieces.js';

export interface TagInSource {
  /** As it is written. */
  readonly name: string;
  readonly range: SourceRange;
  /** Ranges of whole attributes by name, in lower case. */
  readonly attributes: ReadonlyMap<string, SourceRange>;
}

/** Files in which braces hold expressions, in tags too. */
const BRACED = /\.(svelte|astro)$/i;

const RAW: Readonly<Record<string, (typeof TokenizerMode)[keyof typeof TokenizerMode]>> = {
  script: TokenizerMode.SCRIPT_DATA,
  style: TokenizerMode.RAWTEXT,
  xmp: TokenizerMode.RAWTEXT,
  iframe: TokenizerMode.RAWTEXT,
  title: TokenizerMode.RCDATA,
  textarea: TokenizerMode.RCDATA,
};

/** An end tag, or the end of one that closes itself. */
export interface EndInSource {
  readonly name: string;
  readonly range: SourceRange;
  readonly closes: true;
}

/** In: a source of markup and its path, which may tell the engine. Out: its start tags, in order. */
export function sourceTags(path: string, text: string): TagInSource[] {
  return allTags(path, text).filter((tag) => 'attributes' in tag);
}

/** The same with the end tags among them. */
export function allTags(path: string, text: string): (TagInSource | EndInSource)[] {
  const braced = BRACED.test(path) ? withoutBraces(text) : text;
  const pieces = enginePieces(braced, path);
  const masked = pieces.length === 0 ? braced : maskPieces(braced, pieces).text;
  const tags: (TagInSource | EndInSource)[] = [];
  const nothing = (): void => {};
  const tokenizer = new Tokenizer(
    { sourceCodeLocationInfo: true },
    {
      onStartTag: (token: Token.TagToken) => {
        const { location } = token;
        if (location === null) return;
        const start = location.startOffset;
        const name = /^<([^\s/>]*)/.exec(text.slice(start, location.endOffset))?.[1];
        // Line ends as they are, since offsets count them.
        if (name !== undefined && name !== '')
          tags.push({
            name,
            range: { start, end: location.endOffset },
            attributes: new Map(
              Object.entries(location.attrs ?? {}).map(([own, { startOffset, endOffset }]) => [
                own,
                { start: startOffset, end: endOffset },
              ]),
            ),
          });
        const raw = token.selfClosing ? undefined : RAW[token.tagName];
        if (raw === undefined) return;
        tokenizer.lastStartTagName = token.tagName;
        tokenizer.state = raw;
      },
      onEndTag: ({ location }: Token.TagToken) => {
        if (location === null) return;
        const { startOffset: start, endOffset: end } = location;
        const name = /^<\/([^\s/>]*)/.exec(text.slice(start, end))?.[1] ?? '';
        tags.push({ name, range: { start, end }, closes: true });
      },
      onComment: nothing,
      onDoctype: nothing,
      onEof: nothing,
      onCharacter: nothing,
      onNullCharacter: nothing,
      onWhitespaceCharacter: nothing,
    },
  );
  tokenizer.write(masked, true);
  return tags;
}

/** Expressions in tags written over: they may hold what ends a tag. */
function withoutBraces(text: string): string {
  let result = '';
  let at = 0;
  for (const tag = /<[a-z][\w.:-]*/gi; ; ) {
    const opened = tag.exec(text);
    if (opened === null) return result + text.slice(at);
    let next = tag.lastIndex;
    for (; next < text.length && text[next] !== '>' && text[next] !== '<'; next++) {
      const char = text[next]!;
      if (char === '"' || char === "'") {
        const end = text.indexOf(char, next + 1);
        if (end < 0) break;
        next = end;
      } else if (char === '{') {
        const end = braceEnd(text, next);
        if (end === undefined) break;
        result += `${text.slice(at, next)}${text.slice(next, end).replace(/[^\r\n]/g, 'x')}`;
        at = end;
        next = end - 1;
      }
    }
    tag.lastIndex = next;
  }
}

/** Behind the brace that ends what one begins; `undefined` where none does. */
export function braceEnd(text: string, start: number): number | undefined {
  let depth = 0;
  const token = /[{}]|"(?:[^"\\\n]|\\.)*"|'(?:[^'\\\n]|\\.)*'|`(?:[^`\\]|\\[\s\S])*`/g;
  token.lastIndex = start;
  for (let found = token.exec(text); found !== null; found = token.exec(text)) {
    if (found[0] === '{') depth++;
    else if (found[0] === '}' && --depth === 0) return token.lastIndex;
  }
  return undefined;
}
