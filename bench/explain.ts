// Explanations against Chromium's own matched rules and winners, on elements spread over real pages:
//   npm run bench:explain -- FOLDER [ELEMENTS]   (200 elements unless told otherwise)
// And the time of one explanation against the time it takes only to parse the page and its sheets.

import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { startChromium } from '../src/browser/chromium.js';
import { openFolder } from '../src/site/files/files.js';
import { openPage } from '../src/site/rendering/one-page.js';
import { SiteReader } from '../src/site/rendering/reader.js';
import { AskedPage } from '../test/support/matched-styles.js';

const here = path.dirname(fileURLToPath(import.meta.url));
const site = path.resolve(process.argv[2] ?? '.');
const wanted = Number(process.argv[3] ?? 200);

const pages = new SiteReader(openFolder(site), {}).pagePaths.filter((file) => /\.html?$/.test(file));
const browser = await startChromium();
const context = await browser.newContext({ javaScriptEnabled: false });
await context.route(
  (url) => !/^(file|data):/.test(url.href),
  (route) => route.abort(),
);
const asked = new AskedPage(await context.newPage(), site);
const each = Math.max(1, Math.ceil(wanted / pages.length));
let [elements, rules, winners] = [0, 0, 0];
const disagreements: string[] = [];
for (const [at, file] of pages.entries()) {
  const { reader, isPlatform } = await openPage(site, file);
  const count = await asked.open(file);
  if (count !== reader.page.elements.length) {
    console.log(`${file}: ${count} elements in Chromium, ${reader.page.elements.length} here; left out`);
    continue;
  }
  for (let i = 0; i < each && elements < wanted; i++, elements++) {
    // Spread over the page, and differently on each.
    const index = Math.floor(((i + 0.5 + (at % 7) / 7) / (each + 1)) * count);
    const found = await asked.agree(reader, index, isPlatform);
    rules += found.rules;
    winners += found.winners;
    disagreements.push(...found.disagreements);
  }
}
await browser.close();
console.log(
  `${elements} elements, ${rules} matched rules, ${winners} winners: ${disagreements.length} disagreements`,
);
for (const one of disagreements.slice(0, 40)) console.log(`  ${one}`);

const program = path.resolve(here, '..', '..', 'dist', 'cli', 'main.js');
const timed = (args: readonly string[]): number => {
  let best = Number.POSITIVE_INFINITY;
  for (let round = 0; round < 5; round++) {
    const start = performance.now();
    spawnSync(process.execPath, args, { encoding: 'utf8', maxBuffer: 1 << 29 });
    best = Math.min(best, performance.now() - start);
  }
  return best / 1000;
};
const ratios: number[] = [];
for (const file of pages.filter((_, at) => at % Math.ceil(pages.length / 10) === 0)) {
  const { reader } = await openPage(site, file);
  const sheets = new Set(reader.sheetOrder.uses.map(({ source }) => source.path));
  const list = path.join(mkdtempSync(path.join(os.tmpdir(), 'acervus-bench-')), 'list.txt');
  writeFileSync(list, [...new Set([file, ...sheets])].map((one) => path.join(site, one)).join('\n'));
  const floor = timed([path.join(here, 'floor.js'), list]);
  const explained = timed([
    program,
    'explain',
    file,
    `${Math.ceil(reader.page.text.split('\n').length / 2)}`,
    site,
  ]);
  ratios.push(explained / floor);
  console.log(
    `${explained.toFixed(2).padStart(8)} s  ${(explained / floor).toFixed(2).padStart(6)} ×  ${file}`,
  );
}
console.log(
  `  mean ${(ratios.reduce((sum, one) => sum + one, 0) / ratios.length).toFixed(2)} × the parse floor`,
);
