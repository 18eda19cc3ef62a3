// Overrides that are to survive an update.

import { byHand, type IntendedCase, kit } from './site.js';

const plainMend = ['outlast', '--platform', 'kit/kit.css=new/kit.css', '--mend'] as const;
/** Mended, and then updated. */
const mend = (name: string, own: string, old: string, fresh: string, wanted: string): IntendedCase => ({
  name,
  runs: [plainMend],
  files: kit(old, own, { 'new/kit.css': fresh }),
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
];
