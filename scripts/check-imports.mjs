// Checks that every import leads down the pipeline, and that no two files name each other: types included.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const src = path.join(path.dirname(path.dirname(fileURLToPath(import.meta.url))), 'src');
/** A folder may name those before it. What is in none of them stands beside them, as `core/source.ts` does. */
const ORDER =
  'core templates components markup standing sheets hints scripts cascade stock search factor draft edits origins proof excerpt consolidate ask change visit hold values sampler starter site browser report cli'.split(
    ' ',
  );
const layerOf = (file) => {
  const [first, second] = file.split('/');
  return ORDER.indexOf(first === 'core' && ORDER.includes(second) ? second : first);
};

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
