// The change that a draft was proven with, kept beside the ledger: adopting the draft as it was made, on the files as they
// were, needs no second proof. Lives in `.acervus/`; safe to delete.

import { existsSync, mkdirSync, readdirSync, readFileSync, rmdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import writeFileAtomic from 'write-file-atomic';
import { z } from 'zod';
import { type AdoptionReport, adoptionSchema, DRAFT_FILE } from '../../core/edit/draft/index.js';
import { decodeAs } from '../files/encoding.js';
import type { SiteFiles } from '../files/files.js';
import { changeablePath, insideSite } from '../files/inside.js';
import { programVersion } from '../version.js';
import type { FileChange } from './change.js';
import { sha256 } from './record.js';

/** Another version may plan otherwise. */
const PLANNER = programVersion();

const count = z.int().min(0);

const planSchema = z.strictObject({
  planner: z.literal(PLANNER),
  /** SHA-256 of the draft's text. */
  draft: z.string(),
  /** SHA-256 of the names of all files. */
  list: z.string(),
  /** SHA-256 of everything that was read, `null` for what was not there. */
  inputs: z.record(z.string(), z.string().nullable()),
  files: z.array(
    z.strictObject({
      path: changeablePath,
      encoding: z.strictObject({ name: z.string(), mark: z.boolean() }),
      edits: z.array(z.strictObject({ start: count, end: count, text: z.string() })),
    }),
  ),
  report: adoptionSchema,
});

const FILE = path.join('.acervus', 'plan.json');

/** Files whose every reading is noted. */
export interface NotedFiles extends SiteFiles {
  readonly inputs: ReadonlyMap<string, string | null>;
}

export function noteReadings(files: SiteFiles): NotedFiles {
  const inputs = new Map<string, string | null>();
  return {
    label: files.label,
    inputs,
    list: () => files.list(),
    isLinked: (file) => files.isLinked?.(file) ?? false,
    leadsOut: (file) => files.leadsOut?.(file) ?? false,
    read: (file) => {
      const bytes = files.read(file);
      inputs.set(file, bytes === undefined ? null : sha256(bytes));
      return bytes;
    },
  };
}

/** Keeps a plan. In: the text of its draft; what was read for it; the change; what is reported of it. */
export function savePlan(
  root: string,
  draft: string,
  files: NotedFiles,
  changes: readonly FileChange[],
  report: AdoptionReport,
): void {
  if (changes.length === 0) {
    dropPlan(root);
    return;
  }
  const plan: z.infer<typeof planSchema> = {
    planner: PLANNER,
    draft: sha256(Buffer.from(draft)),
    list: listPrint(files),
    inputs: Object.fromEntries(files.inputs),
    files: changes.map(({ path: file, encoding, edits }) => ({
      path: file,
      encoding,
      edits: edits.map(({ start, end, text }) => ({ start, end, text })),
    })),
    report,
  };
  const file = insideSite(root, FILE);
  mkdirSync(path.dirname(file), { recursive: true });
  writeFileAtomic.sync(file, JSON.stringify(plan));
}

/** The plan of a draft, if neither it nor anything that was read for it has changed since. */
export function findPlan(
  root: string,
  draft: string,
  files: SiteFiles,
): { readonly changes: readonly FileChange[]; readonly report: AdoptionReport } | undefined {
  const file = insideSite(root, FILE);
  if (!existsSync(file)) return undefined;
  const parsed = planSchema.safeParse(readPlan(file));
  if (!parsed.success) return undefined;
  const { draft: print, list, inputs, files: planned, report } = parsed.data;
  if (print !== sha256(Buffer.from(draft)) || list !== listPrint(files)) return undefined;
  const bytes = new Map<string, Buffer | undefined>();
  for (const [name, known] of Object.entries(inputs)) {
    const now = files.read(name);
    if ((now === undefined ? null : sha256(now)) !== known) return undefined;
    bytes.set(name, now);
  }
  const changes: FileChange[] = [];
  for (const { path: name, encoding, edits } of planned) {
    if (!(name in inputs)) return undefined;
    const now = bytes.get(name);
    const text = now === undefined ? '' : decodeAs(now, encoding);
    if (text === undefined) return undefined;
    changes.push({ path: name, text, encoding, edits });
  }
  return { changes, report };
}

/** A plan that is carried out, or whose site is another, is none any more. */
export function dropPlan(root: string): void {
  const file = insideSite(root, FILE);
  rmSync(file, { force: true });
  const folder = path.dirname(file);
  if (existsSync(folder) && readdirSync(folder).length === 0) rmdirSync(folder);
}

function readPlan(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    // A plan that cannot be read is made again.
    return undefined;
  }
}

/** The draft itself stands among the files, and is compared by its text. */
function listPrint(files: SiteFiles): string {
  return sha256(
    Buffer.from(
      files
        .list()
        .filter((name) => name !== DRAFT_FILE)
        .join('\n'),
    ),
  );
}
