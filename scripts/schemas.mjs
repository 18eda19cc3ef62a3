// Writes what docs hold of the code: docs/schemas from the Zod types, docs/messages.md from the table of messages. With
// --check only says whether they are current.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import { schemas } from '../dist/commands/schemas.js';
import { MESSAGES } from '../dist/core/base/messages/index.js';

const docs = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), 'docs');
const check = process.argv.includes('--check');

function messagesText() {
  const cell = (text) => (text === '' ? '' : text.replaceAll('|', '\\|').replace(/</g, '&lt;'));
  const rows = Object.entries(MESSAGES)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([code, [where, what, todo]]) => `| \`${code}\` | ${cell(where)} | ${cell(what)} | ${cell(todo)} |`);
  return `# Messages

What only a person can mend is said in one line on stderr, \`acervus: where: what; what to do\`, with exit code 2. From a
script, \`error.code\` of a \`UsageError\` is the code below, and \`error.values\` what stands in braces.

| Code | Where | What | What to do |
| --- | --- | --- | --- |
${rows.join('\n')}
`;
}

const texts = { 'messages.md': messagesText() };
for (const [name, schema] of Object.entries(schemas))
  texts[`schemas/${name}`] = `${JSON.stringify(z.toJSONSchema(schema, { io: 'input' }), null, 2)}\n`;
let stale = 0;
mkdirSync(path.join(docs, 'schemas'), { recursive: true });
for (const [name, text] of Object.entries(texts)) {
  const file = path.join(docs, name);
  let present = '';
  try {
    present = readFileSync(file, 'utf8');
  } catch {
    // Not written yet.
  }
  if (present === text) continue;
  stale++;
  if (check) process.stderr.write(`docs/${name} is not current: run npm run schemas\n`);
  else writeFileSync(file, text);
}
process.exit(check && stale > 0 ? 1 : 0);
