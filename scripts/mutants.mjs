// `npm run mutants`: changes one condition at a time and runs the tests that stand nearest to it. A mutant that no test notices is a
// condition that nobody holds.
//   npm run mutants                       the files that differ from HEAD, or from --base REV
//   npm run mutants core/proof --count 30 files whose path holds a word, so many mutants of them
//   options: --seed N (another choice), --seconds N (for the tests of one mutant), --files N (test files for each)
import { spawn, spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parse } from 'acorn';
import { full } from 'acorn-walk';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const { words, options } = readArguments(process.argv.slice(2));
const seed = Number(options.seed ?? 1);
const count = Number(options.count ?? 20);
const seconds = Number(options.seconds ?? 120);
const mostFiles = Number(options.files ?? 14);

function readArguments(given) {
  const found = { words: [], options: {} };
  for (let at = 0; at < given.length; at++)
    if (given[at].startsWith('--')) found.options[given[at].slice(2)] = given[++at];
    else found.words.push(given[at]);
  return found;
}

/** Sources that are asked for, without their ending. */
function wanted() {
  const all = readdirSync(path.join(root, 'src'), { recursive: true }).map(String);
  const names = all.filter((file) => file.endsWith('.ts') && !file.endsWith('.d.ts'));
  if (words.length > 0) return names.filter((file) => words.some((word) => file.includes(word)));
  const changed = spawnSync('git', ['diff', '--name-only', options.base ?? 'HEAD', '--', 'src'], {
    cwd: root,
  });
  const paths = new Set(String(changed.stdout).trim().split('\n'));
  return names.filter((file) => paths.has(`src/${file}`));
}

/** Out: every way to change one condition of a text, each with where it stands. */
function mutationsOf(text) {
  const found = [];
  const at = (node) => text.slice(node.start, node.end);
  const add = (node, to) => found.push({ start: node.start, end: node.end, from: at(node), to });
  const edge = { '<': '<=', '<=': '<', '>': '>=', '>=': '>', '===': '!==', '!==': '===' };
  full(parse(text, { ecmaVersion: 'latest', sourceType: 'module' }), (node) => {
    if (node.type === 'IfStatement' || node.type === 'ConditionalExpression')
      add(node.test, `!(${at(node.test)})`);
    if (node.type === 'LogicalExpression' && node.operator !== '??') {
      add(node, at(node.left));
      add(node, at(node.right));
    }
    if (node.type === 'BinaryExpression' && edge[node.operator] !== undefined)
      add(node, `${at(node.left)} ${edge[node.operator]} ${at(node.right)}`);
  });
  return found;
}

/** The modules that a file imports, directly. */
function importsOf(file) {
  const text = readFileSync(file, 'utf8');
  return [...text.matchAll(/(?:from|import\()\s*["'](\.[^"']+)["']/g)].map(([, name]) =>
    path.resolve(path.dirname(file), name),
  );
}

/** Tests of the program as a whole, for what those of the parts let pass. */
const WHOLE = ['cli/commands.test.js', 'cli/whole-site.test.js'];

/** Test files that reach a module, those of its own folder first, then those that reach it by the fewest files. */
function nearestTests(build) {
  const tests = readdirSync(path.join(build, 'test'), { recursive: true })
    .map(String)
    .filter((file) => file.endsWith('.test.js') && !/^(browser|package)/.test(file));
  const closures = tests.map((test) => {
    const seen = new Map([[path.join(build, 'test', test), 0]]);
    for (const [file, depth] of seen)
      for (const next of importsOf(file)) if (existsSync(next) && !seen.has(next)) seen.set(next, depth + 1);
    return { test, seen };
  });
  return (file) => {
    const folder = path.dirname(file);
    const isOwn = (test) => path.dirname(test) === folder;
    return closures
      .flatMap(({ test, seen }) => {
        const depth = seen.get(path.join(build, 'src', `${file}.js`));
        const rank = isOwn(test) ? 0 : depth === undefined ? undefined : depth * 1000 + seen.size;
        // Those that drive the program take longer: they come last.
        return rank === undefined || test.startsWith('cli') ? [] : [{ test, rank }];
      })
      .sort((a, b) => a.rank - b.rank)
      .slice(0, mostFiles)
      .map(({ test }) => test)
      .concat(WHOLE);
  };
}

/** A copy of what is built, in which files may be changed. */
function sandbox() {
  const folder = mkdtempSync(path.join(tmpdir(), 'acervus-mutants-'));
  for (const part of ['.build', 'dist'])
    cpSync(path.join(root, part), path.join(folder, part), { recursive: true });
  for (const part of ['node_modules', 'demo', 'docs', 'test', 'scripts', 'package.json', 'CHANGELOG.md'])
    symlinkSync(path.join(root, part), path.join(folder, part));
  return folder;
}

function runTests(folder, tests) {
  return new Promise((resolve) => {
    const files = tests.map((test) => path.join(folder, '.build', 'test', test));
    const child = spawn(process.execPath, ['--test', '--test-concurrency=1', ...files], {
      cwd: folder,
      stdio: ['ignore', 'pipe', 'ignore'],
      env: { ...process.env, CI: 'true' },
      detached: true,
    });
    const end = (isKilled) => {
      clearTimeout(timer);
      try {
        process.kill(-child.pid, 'SIGKILL');
      } catch {
        // It has ended.
      }
      resolve(isKilled);
    };
    // Tests that do not end have noticed.
    const timer = setTimeout(() => end(true), seconds * 1000);
    // The first failure is enough.
    child.stdout.on('data', (data) => /^\s*(✖|not ok)/m.test(String(data)) && end(true));
    child.on('exit', (code) => end(code !== 0));
  });
}

let state = seed;
const random = (below) => {
  state = (state * 1103515245 + 12345) & 0x7fffffff;
  return (state >> 8) % below;
};

const sources = wanted().map((file) => file.replace(/\.ts$/, ''));
const all = sources.flatMap((file) => {
  const text = readFileSync(path.join(root, '.build', 'src', `${file}.js`), 'utf8');
  return mutationsOf(text).map((mutation) => ({ file, text, ...mutation }));
});
const chosen = [];
while (chosen.length < Math.min(count, all.length)) chosen.push(...all.splice(random(all.length), 1));
const survivors = [];
let done = 0;

/** Test files that pass with nothing changed: what fails anyway notices nothing. */
const passes = new Map();
function passesUnchanged(folder, test) {
  if (!passes.has(test))
    passes.set(
      test,
      runTests(folder, [test]).then((isKilled) => !isKilled),
    );
  return passes.get(test);
}

async function work() {
  const folder = sandbox();
  const testsOf = nearestTests(path.join(folder, '.build'));
  try {
    for (let one = chosen.pop(); one !== undefined; one = chosen.pop()) {
      const mutated = one.text.slice(0, one.start) + one.to + one.text.slice(one.end);
      const tests = [];
      for (const test of testsOf(one.file)) if (await passesUnchanged(folder, test)) tests.push(test);
      const places = ['.build/src', 'dist'].map((part) => path.join(folder, part, `${one.file}.js`));
      for (const place of places) writeFileSync(place, mutated);
      const isWhole = (test) => WHOLE.includes(test);
      const parts = tests.filter((test) => !isWhole(test));
      const isKilled =
        (parts.length > 0 && (await runTests(folder, parts))) ||
        (await runTests(folder, tests.filter(isWhole)));
      for (const place of places) writeFileSync(place, one.text);
      const line = one.text.slice(0, one.start).split('\n').length;
      process.stdout.write(
        `${String(++done).padStart(4)} ${isKilled ? 'killed  ' : 'SURVIVED'} ${one.file}.js:${line}  ${short(one.from)}  =>  ${short(one.to)}\n`,
      );
      if (!isKilled) survivors.push(one);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function short(text) {
  const line = text.replace(/\s+/g, ' ');
  return line.length > 90 ? `${line.slice(0, 88)} …` : line;
}

if (chosen.length === 0)
  process.stdout.write('mutants: no source is meant; name a folder, such as core/proof\n');
const total = chosen.length;
await Promise.all(Array.from({ length: Math.min(total, availableParallelism()) }, work));
if (total > 0)
  process.stdout.write(`\n${total - survivors.length} of ${total} were noticed (seed ${seed})\n`);
