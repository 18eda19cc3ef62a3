// The parse floor: the HTML and CSS files of a list through parse5 (with source locations) and css-tree, one thread,
// nothing else. Prints the seconds of parsing alone, modules loaded and files read before.
//   node floor.js LIST   (a file with one path a line)

import { readFileSync } from 'node:fs';
import { parse as parseCss } from 'css-tree';
import { parse as parseHtml } from 'parse5';

const texts = readFileSync(process.argv[2]!, 'utf8')
  .split('\n')
  .filter((file) => file !== '')
  .map((file) => ({ css: file.endsWith('.css'), text: readFileSync(file, 'utf8') }));
const start = performance.now();
for (const { css, text } of texts) {
  if (css) parseCss(text, { positions: true });
  else parseHtml(text, { sourceCodeLocationInfo: true });
}
process.stdout.write(`${(performance.now() - start) / 1000}\n`);
