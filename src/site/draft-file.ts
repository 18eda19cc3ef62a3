// `acervus-draft.yaml`: the proposal as a person reads and edits it. Comments survive a second `draft`.

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
import { z } from 'zod';
import { CLASS_NAME } from '../core/search/index.js';
import { firstIssue, sharedPath } from './config.js';
import { UsageError } from './usage-error.js';

export const DRAFT_FILE = 'acervus-draft.yaml';

const yesOrNo = z
  .union([z.boolean(), z.enum(['yes', 'no'])])
  .transform((value) => value === true || value === 'yes');

const styleSchema = z.strictObject({
  name: z.string().describe('Class name, without a dot.'),
  take: yesOrNo.describe('no leaves the style where it is.'),
  into: z
    .string()
    .optional()
    .describe('Name of another style of the draft, whose class these elements take instead.'),
  selector: z
    .string()
    .optional()
    .describe('For reading: what it takes to win, where the class alone is too weak.'),
  beats: z.string().optional().describe('For reading: the rule that the selector must beat.'),
  on: z.string().optional().describe('For reading: how many elements on how many pages.'),
  saves: z.number().optional().describe('For reading: declarations written less.'),
  declarations: z.string().describe('CSS declarations; addresses are relative to the shared sheet.'),
  where: z.record(z.string(), z.string()).describe('Page to places, each line:column of a start tag.'),
});

export const draftSchema = z.strictObject({
  format: z.literal(1),
  shared: sharedPath,
  'at-least': z.int().min(2),
  sources: z.record(z.string(), z.string()).describe('Fingerprint of every page when the draft was made.'),
  styles: z.array(styleSchema),
  kept: z.array(
    z.strictObject({
      reason: z.string(),
      declarations: z.number(),
      where: z.record(z.string(), z.array(z.string())),
    }),
  ),
});

export type Draft = z.infer<typeof draftSchema>;
export type DraftStyle = Draft['styles'][number];

const INTRODUCTION = ` Acervus draft: styles that stand alike on several elements, and a class for each.
 Edit it by hand, then run: acervus adopt
   rename   change a name
   refuse   take: no
   merge    into: other-name   (its elements take that class; what the other lacks stays inline)
 Declarations may be respelt or left out, not changed: adopt proves that nothing looks different.`;

/** The text of a draft. In: an earlier draft's text, whose names, decisions and comments are kept where styles are the same. */
export function renderDraft(draft: Draft, earlier: string | undefined): string {
  const document = earlier === undefined ? undefined : parseDocument(earlier);
  if (document === undefined || document.errors.length > 0 || !isMap(document.contents))
    return freshDocument(draft);
  const known = document.get('styles');
  const items = new Map<string, YAMLMap>();
  if (isSeq(known)) {
    for (const item of known.items)
      if (isMap(item)) items.set(styleKey(String(item.get('declarations') ?? '')), item);
  }
  for (const [key, value] of Object.entries(draft))
    if (key !== 'styles') document.set(key, document.createNode(value));
  const styles = document.createNode([]) as YAMLSeq;
  for (const style of draft.styles) {
    const item = items.get(styleKey(style.declarations));
    if (item === undefined) {
      styles.items.push(styleNode(document, style));
      continue;
    }
    for (const key of ['selector', 'beats'] as const) item.delete(key);
    for (const key of ['selector', 'beats', 'on', 'saves', 'where'] as const) {
      if (style[key] !== undefined) item.set(key, document.createNode(style[key]));
    }
    styles.items.push(item);
  }
  document.set('styles', styles);
  return document.toString({ lineWidth: 100 });
}

function freshDocument(draft: Draft): string {
  const document = new Document({ ...draft, styles: [] });
  document.commentBefore = INTRODUCTION;
  const styles = document.createNode([]) as YAMLSeq;
  for (const style of draft.styles) styles.items.push(styleNode(document, style));
  document.set('styles', styles);
  return document.toString({ lineWidth: 100 });
}

function styleNode(document: Document, style: DraftStyle): YAMLMap {
  const node = document.createNode({ ...style, take: style.take ? 'yes' : 'no' }) as unknown as YAMLMap;
  node.spaceBefore = true;
  const css = node.get('declarations', true);
  if (isScalar(css)) css.type = 'BLOCK_LITERAL';
  return node;
}

/** Declarations without their spacing, for finding a style again. */
export function styleKey(declarations: string): string {
  return declarations
    .split(/;|\n/)
    .map((one) => one.replace(/\s+/g, ''))
    .filter((one) => one !== '')
    .sort()
    .join(';');
}

/** Reads a draft. Throws `UsageError` with the line and what was expected. */
export function parseDraft(text: string): Draft {
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines });
  const [problem] = document.errors;
  if (problem !== undefined) {
    const line = problem.linePos?.[0].line ?? 1;
    throw new UsageError(
      `${DRAFT_FILE}:${line}: is not valid YAML: ${problem.message.split('\n')[0]?.replace(/ at line.*$/, '')}; correct it, or delete it and draft again`,
    );
  }
  const result = draftSchema.safeParse(document.toJS());
  const lineOf = (path: readonly PropertyKey[]): number => {
    for (let length = path.length; length > 0; length--) {
      const node = document.getIn(path.slice(0, length) as (string | number)[], true);
      const range = (node as { range?: readonly number[] } | undefined)?.range;
      if (range?.[0] !== undefined) return lines.linePos(range[0]).line;
    }
    return 1;
  };
  if (!result.success)
    throw new UsageError(
      `${DRAFT_FILE}:${lineOf(result.error.issues[0]?.path ?? [])}: ${firstIssue(result.error)}`,
    );
  checkNames(result.data, (index) => lineOf(['styles', index, 'name']));
  return result.data;
}

function checkNames({ styles }: Draft, lineOf: (index: number) => number): void {
  const first = new Map<string, number>();
  styles.forEach(({ name, take, into }, index) => {
    if (!take || into !== undefined) return;
    if (!CLASS_NAME.test(name)) {
      throw new UsageError(
        `${DRAFT_FILE}:${lineOf(index)}: styles[${index}].name: "${name}" is no class name; use letters, digits, - and _, a letter first`,
      );
    }
    const other = first.get(name.toLowerCase());
    if (other !== undefined) {
      throw new UsageError(
        `${DRAFT_FILE}:${lineOf(index)}: styles[${index}].name: "${name}" names the style on line ${lineOf(other)} too; rename one, or merge it with "into: ${name}"`,
      );
    }
    first.set(name.toLowerCase(), index);
  });
  styles.forEach(({ name, take, into }, index) => {
    if (!take || into === undefined) return;
    const target = styles.find((style) => style.name === into && style.take && style.into === undefined);
    if (target === undefined)
      throw new UsageError(
        `${DRAFT_FILE}:${lineOf(index)}: styles[${index}].into: "${into}" is no style of the draft that is taken; "${name}" cannot go into it`,
      );
  });
}
