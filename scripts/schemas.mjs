// Writes what docs hold of the code: docs/schemas from the Zod types, docs/messages.md and docs/reasons.md from their tables. With
// --check only says whether they are current.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import { schemas } from '../dist/commands/schemas.js';
import { MESSAGES } from '../dist/core/base/messages/index.js';
import { REASONS } from '../dist/core/base/reasons/index.js';

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

const QUESTIONS = {
  stays: ['Why a declaration stays', 'Listed under `kept` in a draft, and by `draft` and `adopt`.'],
  undecided: [
    'Why nothing on a page is decided',
    'Behind "the page cannot be decided"; parts of components and sheets among them.',
  ],
  refused: ['Why a change is not made', 'Under `refused`, or beside what was left out.'],
};

function reasonsText() {
  const cell = (text) => text.replaceAll('|', '\\|').replace(/</g, '&lt;');
  const parts = Object.entries(QUESTIONS).map(([name, [title, about]]) => {
    const rows = Object.entries(REASONS[name]).map(
      ([code, [text, where, help]]) => `| ${cell(code)} | ${cell(text)} | ${cell(where)} | ${cell(help)} |`,
    );
    return `## ${title}

${about}

| Code | What is said | Where | What would help |
| --- | --- | --- | --- |
${rows.join('\n')}
`;
  });
  return `# Reasons

What Acervus leaves alone, it leaves alone for one of these reasons. What stands in braces differs from case to case. Where nothing
is said under the last heading, nothing but other markup would help.

${parts.join('\n')}`;
}

const texts = { 'messages.md': messagesText(), 'reasons.md': reasonsText() };
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
