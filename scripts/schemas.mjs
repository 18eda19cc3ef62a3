// Writes docs/schemas from the Zod types; with --check only says whether they are current.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import { documents } from '../dist/cli/documents.js';
import { everydayDocuments } from '../dist/cli/everyday-documents.js';
import { configSchema } from '../dist/site/config.js';
import { draftSchema } from '../dist/core/draft/text.js';
import { familySchema } from '../dist/core/change/family/table-file.js';

const folder = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), 'docs', 'schemas');
const check = process.argv.includes('--check');
const all = {
  'acervus.schema.json': configSchema,
  'acervus-draft.schema.json': draftSchema,
  'family-table.schema.json': familySchema,
  ...documents,
  ...everydayDocuments,
};
let stale = 0;
mkdirSync(folder, { recursive: true });
for (const [name, schema] of Object.entries(all)) {
  const text = `${JSON.stringify(z.toJSONSchema(schema, { io: 'input' }), null, 2)}\n`;
  const file = path.join(folder, name);
  let present = '';
  try {
    present = readFileSync(file, 'utf8');
  } catch {
    // Not written yet.
  }
  if (present === text) continue;
  stale++;
  if (check) process.stderr.write(`docs/schemas/${name} is not current: run npm run schemas\n`);
  else writeFileSync(file, text);
}
process.exit(check && stale > 0 ? 1 : 0);
