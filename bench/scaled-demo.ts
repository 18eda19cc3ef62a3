// The demo at any size: its pages copied beside themselves, each with an id, a text and a width of its own.

import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** Writes a site of `count` pages into `target`, which must not exist. Sheets, scripts and media are the demo's. */
export function writeScaledDemo(demo: string, target: string, count: number): void {
  mkdirSync(target, { recursive: true });
  cpSync(demo, target, { recursive: true, filter: (file) => !file.endsWith('.html') });
  const pages = readdirSync(demo, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.html'))
    .map((entry) => path.relative(demo, path.join(entry.parentPath, entry.name)))
    .sort();
  const texts = pages.map((page) => readFileSync(path.join(demo, page), 'utf8'));
  for (let number = 0; number < count; number++) {
    const at = number % pages.length;
    const own = `<p id="sailing-${number}" style="width: ${number % 50}em">Sailing ${number}</p>\n</body>`;
    const name = number < pages.length ? pages[at]! : pages[at]!.replace(/\.html$/, `-${number}.html`);
    writeFileSync(
      path.join(target, name),
      texts[at]!.replace('</body>', () => own),
    );
  }
}
