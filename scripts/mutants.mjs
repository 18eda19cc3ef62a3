// `npm run mutants`: changes one condition at a time and runs the tests that run it. A mutant that no test notices is a
// condition that nobody holds.
//   npm run mutants                       the files that differ from HEAD, or from --base REV
//   npm run mutants core/proof --count 30 files whose path holds a word, so many mutants of them
//   options: --seed N (another choice), --seconds N (for the tests of one mutant)
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { parse } from 'acorn';
import { full } from 'acorn-walk';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const { words, options } = readArguments(process.argv.slice(2));
const seed = Number(options.seed ?? 1);
const count = Number(options.count ?? 20);
const seconds = Number(options.seconds ?? 120);

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

/**
 * Which tests run which parts of the sources, as V8 counts them: those of the programs that a test starts, too.
 * Out: by test file, how long it takes in milliseconds and, by source, the ranges that it ran and that it did not.
 */
async function measureTests(folder, files) {
  const all = readdirSync(path.join(folder, '.build', 'test'), { recursive: true })
    .map(String)
    .filter((file) => file.endsWith('.test.js') && !file.startsWith('package'));
  const measured = [];
  const queue = [...all];
  const work = async () => {
    for (let test = queue.pop(); test !== undefined; test = queue.pop()) {
      const counts = mkdtempSync(path.join(tmpdir(), 'acervus-ran-'));
      const started = Date.now();
      const { failed } = await runTests(folder, [test], 600, { NODE_V8_COVERAGE: counts });
      const time = Date.now() - started;
      // What fails anyway notices nothing.
      if (failed) process.stderr.write(`\nmutants: ${test} fails with nothing changed, and is left out\n`);
      else measured.push({ test, time, ran: rangesRun(folder, counts, files) });
      rmSync(counts, { recursive: true, force: true });
      process.stderr.write(`\rmutants: measured ${all.length - queue.length} of ${all.length} test files `);
    }
  };
  await Promise.all(Array.from({ length: availableParallelism() }, work));
  process.stderr.write('\n');
  return measured;
}

/** Out: by source, the functions' ranges of every process that loaded it. */
function rangesRun(folder, counts, files) {
  const found = new Map();
  const names = new Map();
  for (const file of files)
    for (const part of ['.build/src', 'dist'])
      names.set(pathToFileURL(path.join(folder, part, `${file}.js`)).href, file);
  for (const name of readdirSync(counts)) {
    let result = [];
    try {
      result = JSON.parse(readFileSync(path.join(counts, name), 'utf8')).result;
    } catch {
      // A process that was ended while it wrote.
    }
    for (const { url, functions } of result) {
      const file = names.get(url);
      if (file === undefined) continue;
      const ranges = functions.flatMap((one) => one.ranges);
      found.set(file, [...(found.get(file) ?? []), ranges]);
    }
  }
  return found;
}

/** Whether the innermost range around a place was run, in any of the processes. */
function isRun(processes, start, end) {
  return (processes ?? []).some((ranges) => {
    let inner;
    for (const one of ranges)
      if (one.startOffset <= start && one.endOffset >= end)
        if (inner === undefined || one.endOffset - one.startOffset <= inner.endOffset - inner.startOffset)
          inner = one;
    return inner !== undefined && inner.count > 0;
  });
}

/** The tests that run a place: those of its own folder first, then the quick ones, as far as the time for one mutant goes. */
function testsFor(measured, { file, start, end }) {
  const isOwn = ({ test }) => path.dirname(test) === path.dirname(file);
  const running = measured.filter(({ ran }) => isRun(ran.get(file), start, end));
  running.sort((a, b) => Number(isOwn(b)) - Number(isOwn(a)) || a.time - b.time);
  let sum = 0;
  const upTo = running.map(({ time }) => {
    sum += time;
    return sum;
  });
  return running.filter((_, at) => upTo[at] <= seconds * 1000).map(({ test }) => test);
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

/** Out: whether a test failed, or did not end in so many seconds. */
function runTests(folder, tests, most, more = {}) {
  return new Promise((resolve) => {
    const files = tests.map((test) => path.join(folder, '.build', 'test', test));
    const child = spawn(process.execPath, ['--test', '--test-concurrency=1', ...files], {
      cwd: folder,
      stdio: ['ignore', 'pipe', 'ignore'],
      env: { ...process.env, CI: 'true', ...more },
      detached: true,
    });
    const end = (failed) => {
      clearTimeout(timer);
      try {
        process.kill(-child.pid, 'SIGKILL');
      } catch {
        // It has ended.
      }
      resolve({ failed });
    };
    // Tests that do not end have noticed.
    const timer = setTimeout(() => end(true), most * 1000);
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

async function work(measured) {
  const folder = sandbox();
  try {
    for (let one = chosen.pop(); one !== undefined; one = chosen.pop()) {
      const mutated = one.text.slice(0, one.start) + one.to + one.text.slice(one.end);
      const tests = testsFor(measured, one);
      const places = ['.build/src', 'dist'].map((part) => path.join(folder, part, `${one.file}.js`));
      for (const place of places) writeFileSync(place, mutated);
      let isKilled = false;
      // One file after the other: the first that notices is enough.
      for (const test of tests) {
        const { time } = measured.find((known) => known.test === test);
        isKilled = (await runTests(folder, [test], 30 + (4 * time) / 1000)).failed;
        if (isKilled) break;
      }
      for (const place of places) writeFileSync(place, one.text);
      const line = one.text.slice(0, one.start).split('\n').length;
      const end = isKilled ? 'killed  ' : tests.length === 0 ? 'not run ' : 'SURVIVED';
      process.stdout.write(
        `${String(++done).padStart(4)} ${end} ${one.file}.js:${line}  ${short(one.from)}  =>  ${short(one.to)}\n`,
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
if (total > 0) {
  const folder = sandbox();
  const measured = await measureTests(folder, new Set(chosen.map(({ file }) => file)));
  rmSync(folder, { recursive: true, force: true });
  await Promise.all(Array.from({ length: Math.min(total, availableParallelism()) }, () => work(measured)));
  process.stdout.write(`\n${total - survivors.length} of ${total} were noticed (seed ${seed})\n`);
}
