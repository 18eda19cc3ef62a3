// The cases of `intended.test.ts`, command by command.

import { FAMILY } from './family.js';
import { OUTLAST } from './outlast.js';
import { OVERRIDE } from './override.js';
import { RENAME } from './rename.js';
import { RESTYLE } from './restyle.js';
import type { IntendedCase } from './site.js';

export type { IntendedCase } from './site.js';

export const CASES: readonly IntendedCase[] = [...RESTYLE, ...OVERRIDE, ...RENAME, ...FAMILY, ...OUTLAST];
