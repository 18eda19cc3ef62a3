// The text of `acervus-draft.yaml`, written and read. Comments survive a second `draft`.

import {
  Document,
  isMap,
  isScalar,
  isSeq,
  LineCounter,
  parseDocument,
  type YAMLMap,
  type YAMLSeq,
} from 'yaml';
import { firstIssue } from '../../base/choices.js';
import { UsageError } from '../../base/usage-error.js';
import { CLASS_NAME } from '../../search/index.js';
import { type Draft, type DraftStyle, draftSchema } from './schema.js';

const INTRODUCTION = ` Acervus draft: a home for every style that is written in the wrong place or more than once.
 Edit it by hand, or go through it with: acervus draft --review.  Then run: acervus adopt
   rename   change a name
   refuse   take: no
   except   except: [page.html:12:5]   (these places stay as they are)
   merge    into: other-name   (its elements take that class; what the other lacks stays inline)
 Declarations may be left out; adopt proves that nothing looks different. Near misses change only where you say so.`;

const READ_ONLY = [
  'home',
  'selector',
  'beats',
  'elements',
  'pages',
  'out of',
  'written into',
  'such as',
  'drops',
  'saves',
  'instead',
  'declarations',
] as const;

/** The text of a draft. In: an earlier draft's text, whose comments are kept where styles are the same. */
export function renderDraft(draft: Draft, earlier: string | undefined): string {
  const document = earlier === undefined ? undefined : parseDocument(earlier);
  const fresh = document === undefined || document.errors.length > 0 || !isMap(document.contents);
  const target = fresh ? new Document({ ...draft, styles: [] }) : document;
  if (fresh) target.commentBefore = INTRODUCTION;
  const items = fresh ? new Map<string, YAMLMap>() : knownStyles(target);
  if (!fresh)
    for (const [key, value] of Object.entries(draft))
      if (key !== 'styles') target.set(key, plainNode(target, value));
  if (!fresh && draft.assumed === undefined) target.delete('assumed');
  const styles = target.createNode([]) as YAMLSeq;
  for (const style of draft.styles) {
    const item = items.get(style.id);
    if (item === undefined) {
      styles.items.push(styleNode(target, style));
      continue;
    }
    const node = styleNode(target, style);
    for (const key of READ_ONLY) item.delete(key);
    for (const key of READ_ONLY) if (node.has(key)) item.set(key, node.get(key, true));
    for (const key of ['name', 'take', 'reviewed', 'into', 'except'] as const)
      if (node.has(key)) item.set(key, node.get(key, true));
    styles.items.push(item);
  }
  target.set('styles', styles);
  for (const key of ['tokens', 'mixins', 'code blocks', 'near misses', 'kept'] as const)
    target.set(key, plainNode(target, draft[key]));
  for (const key of ['mixins', 'code blocks'] as const) if (draft[key].length === 0) target.delete(key);
  return target.toString({ lineWidth: 100 });
}

function knownStyles(document: Document): Map<string, YAMLMap> {
  const items = new Map<string, YAMLMap>();
  const known = document.get('styles');
  if (isSeq(known)) for (const item of known.items) if (isMap(item)) items.set(String(item.get('id')), item);
  return items;
}

/** Places in one line each, yes and no as words. */
function plainNode(document: Document, value: unknown): unknown {
  const words = (item: unknown): unknown => {
    if (typeof item !== 'object' || item === null) return item;
    if (Array.isArray(item)) return item.map(words);
    return Object.fromEntries(
      Object.entries(item).map(([key, one]) => [
        key,
        typeof one === 'boolean' ? (one ? 'yes' : 'no') : words(one),
      ]),
    );
  };
  return document.createNode(words(value));
}

function styleNode(document: Document, style: DraftStyle): YAMLMap {
  const node = plainNode(document, style) as YAMLMap;
  node.spaceBefore = true;
  const css = node.get('declarations', true);
  if (isScalar(css)) css.type = 'BLOCK_LITERAL';
  return node;
}

/** What a person says to one style. */
export interface Answer {
  take: boolean;
  name?: string;
}

/** The draft's text with an answer in it; everything else stays as it is written. */
export function answerDraft(text: string, ids: readonly string[], { take, name }: Answer): string {
  const document = parseDocument(text);
  const known = knownStyles(document);
  for (const id of ids) {
    const item = known.get(id);
    if (item === undefined) continue;
    item.set('take', take ? 'yes' : 'no');
    if (name !== undefined) item.set('name', name);
    item.set('reviewed', 'yes');
  }
  return document.toString({ lineWidth: 100 });
}

/** Reads a draft. Throws `UsageError` with the line and what was expected. */
export function parseDraft(text: string): Draft {
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines });
  const [problem] = document.errors;
  if (problem !== undefined) {
    const line = problem.linePos?.[0].line ?? 1;
    throw new UsageError('draft-yaml', {
      line,
      problem: problem.message.split('\n')[0]?.replace(/ at line.*$/, '') ?? '',
    });
  }
  const value: unknown = document.toJS();
  if (typeof value === 'object' && value !== null && 'format' in value && value.format === 1)
    throw new UsageError('draft-outdated', {});
  const result = draftSchema.safeParse(value);
  const lineOf = (path: readonly PropertyKey[]): number => {
    for (let length = path.length; length > 0; length--) {
      const node = document.getIn(path.slice(0, length) as (string | number)[], true);
      const range = (node as { range?: readonly number[] } | undefined)?.range;
      if (range?.[0] !== undefined) return lines.linePos(range[0]).line;
    }
    return 1;
  };
  if (!result.success)
    throw new UsageError('draft-invalid', {
      line: lineOf(result.error.issues[0]?.path ?? []),
      problem: firstIssue(result.error),
    });
  checkNames(result.data, (index) => lineOf(['styles', index, 'name']));
  return result.data;
}

function checkNames({ styles }: Draft, lineOf: (index: number) => number): void {
  const first = new Map<string, number>();
  styles.forEach(({ id, name, take, into, home }, index) => {
    if (!take || into !== undefined || (home !== 'new class' && home !== 'class for ids')) return;
    if (name === undefined || !CLASS_NAME.test(name)) {
      throw new UsageError('draft-name', { line: lineOf(index), index, name: name ?? '' });
    }
    // Areas that share no sheet may each have a style of the name.
    const key = `${id.split('.')[1] ?? ''} ${name.toLowerCase()}`;
    const other = first.get(key);
    if (other !== undefined) {
      throw new UsageError('draft-name-twice', { line: lineOf(index), index, name, other: lineOf(other) });
    }
    first.set(key, index);
  });
  styles.forEach(({ name, take, into, home }, index) => {
    if (!take || into === undefined) return;
    const target = styles.find(
      (style) => style.name === into && style.take && style.into === undefined && style.home === 'new class',
    );
    if (target === undefined || home !== 'new class')
      throw new UsageError('draft-into', {
        line: lineOf(index),
        index,
        into,
        name: name ?? 'a style without a class',
      });
  });
}
