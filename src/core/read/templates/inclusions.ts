// Which other files a template names: the layout that it fills, the parts that it shows, the blocks that it has or fills, and
// where a layout puts what it is filled with.

import { maskPieces } from './mask.js';
import { type EnginePiece, enginePieces, mayHoldEngineText } from './pieces.js';

export interface Inclusion {
  readonly kind: 'extends' | 'include' | 'block' | 'yield';
  /** As they are written; several where it is one of them; none where code makes it; `card-*` where it makes the end. */
  readonly names: readonly string[];
  readonly start: number;
  readonly end: number;
  /** Of a block, where what stands in it ends; `end` without an end. */
  readonly until: number;
}

/** In: the text of a template, and its path. Out: in order. */
export function inclusionsIn(text: string, path: string): Inclusion[] {
  const pieces = mayHoldEngineText(text, path) ? enginePieces(text, path) : [];
  return inclusionsOf(text, pieces.length === 0 ? [] : maskPieces(text, pieces).between);
}

/** The same, of the pieces of a text that stand between its tags. */
export function inclusionsOf(text: string, pieces: readonly EnginePiece[]): Inclusion[] {
  const ends = endsOf(pieces);
  const found = pieces.flatMap((piece): Inclusion[] => {
    const one = kindOf(piece, text.slice(piece.start, piece.start + 2));
    const { start, end } = piece;
    return one === undefined ? [] : [{ ...one, start, end, until: ends.get(piece) ?? end }];
  });
  const layout = FRONT_MATTER.exec(text)?.[1]?.match(/^layout:[ \t]*["']?([\w./-]+)/m)?.[1];
  if (layout === undefined || /^(?:false|null|none|nil)$/.test(layout)) return found;
  return [{ kind: 'extends', names: [layout], start: 0, end: 0, until: 0 }, ...found];
}

const FRONT_MATTER = /^---\r?\n([\s\S]*?)\r?\n---/;

type Named = Pick<Inclusion, 'kind' | 'names'>;

/** What opens something, with where that ends. */
function endsOf(pieces: readonly EnginePiece[]): Map<EnginePiece, number> {
  const ends = new Map<EnginePiece, number>();
  const open: EnginePiece[] = [];
  for (const piece of pieces) {
    if (piece.role === 'open') open.push(piece);
    const opener = piece.role === 'close' ? open.pop() : undefined;
    if (opener !== undefined) ends.set(opener, piece.start);
  }
  return ends;
}

function kindOf({ code, role }: EnginePiece, marks: string): Named | undefined {
  if (EXTENDS.test(code)) return named('extends', code);
  const set = SETS_LAYOUT.exec(code)?.[1];
  if (set !== undefined) return { kind: 'extends', names: [set] };
  const block = blockName(code);
  if (block !== undefined) return { kind: 'block', names: [block] };
  if (YIELDS.test(code)) return { kind: 'yield', names: [] };
  const shown = shownBy(code, marks);
  if (shown !== undefined) return { kind: 'include', names: shown };
  const isMeant = role === 'none' || /^embed\b|\brender\b/.test(code);
  return isMeant && INCLUDES.test(code) ? named('include', code, marks) : undefined;
}

const EXTENDS =
  /^(?:extends|layout|#extend)\b\s*\(?\s*(?:file\s*=\s*)?["']|^extends\s+[a-z_$]|->(?:extend|layout|setLayout)\(\s*["']/;
const SETS_LAYOUT = /(?:^|\s)Layout\s*=\s*"~?\/?([\w./-]+)"|^!<\s*([\w./-]+)/;
/** What a layout is filled with as a whole. */
const YIELDS =
  /^(?:yield|body|content|content_for_layout|\$?slot|@?RenderBody\(\)|(?:echo\s+)?\$(?:content|body)\b;?|(?:echo\s+)?\$this->(?:content|section\(\s*['"]content['"]\s*\))(?:\(\))?;?)(?:\s*\|[^|]*)?$/;
const INCLUDES =
  /(?:^|[^\w$>.])(?:include\w*|require\w*|embed|render\w*|partial\w*|template|get_template_part|locate_template|section)\b|->(?:render|partial|insert|element|view|load|fetch|include|import)\(|^(?:each|component)\b|\bHtml\.(?:Render)?Partial\w*\(/;

/** `{% block main %}`, `@yield('main')`, `{{ define "main" }}`, `content_for :main`, `yield :main`. */
function blockName(code: string): string | undefined {
  const found =
    /^#?(?:block|define|yield|RenderSection\w*\(|content_for\??|sectionMissing|hasSection)\b\s*\(?\s*(?:name\s*=\s*)?[:"']?([\w.-]+)/.exec(
      code,
    ) ??
    /->(?:start|block|section|fetch)\(\s*['"]([\w.-]+)['"]\s*\)/.exec(code) ??
    /^section\s*\(\s*['"]([\w.-]+)['"]\s*\)$/.exec(code) ??
    /^section\s+(\w+)\s*\{$/.exec(code) ??
    /^await RenderSectionAsync\(\s*"(\w+)"/.exec(code);
  return found?.[1];
}

/** What the calls of one system show by names of its own. */
function shownBy(code: string, marks: string): string[] | undefined {
  if (marks === '{{') {
    const partial = /^#?>\s*["']?([\w./-]+)["']?/.exec(code)?.[1];
    if (partial !== undefined) return [partial];
    if (/^#?>/.test(code)) return [];
  }
  const part = /\bget_(header|footer|sidebar)\(\s*(?:['"]([\w-]+)['"]|\$|[a-z])?/.exec(code);
  if (part !== null) {
    const [, kind, own] = part;
    return own === undefined ? [kind!] : [`${kind}-${own}`, kind!];
  }
  const { 1: first, 2: second } =
    /\bget_template_part\(\s*['"]([\w./-]+)['"]\s*(?:,\s*(?:['"]([\w./-]+)['"])?)?/.exec(code) ?? [];
  if (first === undefined) return undefined;
  if (second !== undefined) return [`${first}-${second}`, first];
  return /\bget_template_part\(\s*['"][\w./-]+['"]\s*,/.test(code) ? [`${first}-*`, first] : [first];
}

/** The first string that may be the name of a file; of one that goes on in code, its beginning. */
function named(kind: Named['kind'], code: string, marks = ''): Named {
  for (const match of code.matchAll(/(["'])((?:(?!\1)[^\\\n])*)\1(\s*[.+~])?/g)) {
    const [, , text = '', mark] = match;
    // `{{ template "head" . }}` hands over what it has.
    const goesOn = marks === '{{' && mark?.trim() === '.' ? undefined : mark;
    const isOption =
      /(?:=>|:|=)\s*$/.test(code.slice(0, match.index)) && !NAMES.test(code.slice(0, match.index));
    if (!/^[\w./~@:-]+$/.test(text) || isOption) continue;
    return { kind, names: [goesOn === undefined ? text : `${text}*`] };
  }
  const bare = kind === 'include' && /^(?:include|render)\s+([\w./-]+\.\w+|[\w-]+\/[\w./-]+)/.exec(code)?.[1];
  return { kind, names: typeof bare === 'string' ? [bare] : [] };
}

/** Options that say which file is meant. */
const NAMES = /(?:file|partial|template|layout|page|src|name|view)\s*(?:=>|:|=)\s*$/;
