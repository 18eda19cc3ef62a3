// What is not written out in a value: see `markup/template-text.ts`.

import { INVISIBLE_MARK } from '../../base/engine-marks.js';

export function unwritten(code: string): string {
  return `${INVISIBLE_MARK}${code}${INVISIBLE_MARK}`;
}
