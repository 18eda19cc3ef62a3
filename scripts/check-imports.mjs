// Checks that every import leads down the pipeline, and that no two files name each other: types included.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const src = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), 'src');
/** A folder may name those before it. What stands in none of them, as `index.ts` does, may name all. */
const ORDER = [
  'core/base',
  ...within('core/read', 'templates kinds components markup standing sheets hints scripts'),
  ...within('core', 'cascade stock search'),
  ...within('core/edit', 'factor draft text sources'),
  'core/proof',
  ...within('core/change', 'excerpt consolidate'),
  'core/change',
  ...within('core/ask', 'explain reach visit hold values sampler starter'),
  ...'site browser report commands cli'.split(' '),
];

function within(wing, folders) {
  return folders.split(' ').map((folder) => `${wing}/${folder}`);
}

function layerOf(file) {
  return ORDER.findIndex((folder) => file.startsWith(`${folder}/`));
}

const imports = new Map();
for (const file of readdirSync(src, { recursive: true }).map((name) => name.replaceAll(path.sep, '/'))) {
  if (!file.endsWith('.ts')) continue;
  const text = readFileSync(path.join(src, file), 'utf8');
  const names = [...text.matchAll(/(?:from|import\()\s*'(\.[^']+)\.js'/g)].map(([, name]) =>
    path.posix.join(path.posix.dirname(file), `${name}.ts`),
  );
  imports.set(file, names);
}

const faults = [];
for (const [file, names] of imports)
  for (const name of names)
    if (layerOf(file) >= 0 && layerOf(name) > layerOf(file))
      faults.push(`${file} names ${name}, which comes after it`);

const done = new Set();
const visit = (file, way) => {
  if (way.includes(file)) faults.push(`in a ring: ${[...way.slice(way.indexOf(file)), file].join(' > ')}`);
  if (way.includes(file) || done.has(file)) return;
  for (const name of imports.get(file) ?? []) visit(name, [...way, file]);
  done.add(file);
};
for (const file of imports.keys()) visit(file, []);
for (const fault of faults.slice(0, 5)) process.stderr.write(`imports: ${fault}\n`);
process.exit(faults.length > 0 ? 1 : 0);
