// Overrides that are to survive an update.

import { byHand, type IntendedCase, kit, page } from './site.js';

const plainMend = ['outlast', '--platform', 'kit/kit.css=new/kit.css', '--mend'] as const;
/** Mended, and then updated. */
const mend = (
  name: string,
  own: string,
  old: string,
  fresh: string,
  wanted: string,
  body?: string,
): IntendedCase => ({
  name,
  runs: [plainMend],
  files: kit(old, own, { 'new/kit.css': fresh, ...(body === undefined ? {} : { 'a.html': body }) }),
  becomes: byHand(wanted),
});

export const OUTLAST: readonly IntendedCase[] = [
  mend(
    'outlast --mend shows nothing before the update',
    '.a{color:red;margin:5px}',
    '.a{color:blue;margin:1px}',
    'html .a{color:blue}body .a.a{margin:1px}',
    '.a{color:red;margin:5px}',
  ),
  mend(
    'outlast --mend leaves what importance in a layer beats',
    'p.a{color:red}',
    '.a{color:blue}',
    '@layer kit{.a{color:blue !important}}',
    'p.a{color:red}',
  ),
  mend(
    'outlast --mend takes no importance that would beat what an element says of itself, by whatever name',
    '.a{top:5px}',
    '.a{top:1px}',
    '.a{top:1px !important}',
    '.a{top:5px}',
    page('<p class="a">1</p><p class="a" style="position: relative; all: unset">2</p>'),
  ),
];
