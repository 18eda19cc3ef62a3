// Asks which block or sheet is the developer's.

import { checkbox } from '@inquirer/prompts';
import { type Box, type BoxCandidate, boxName } from '../../core/ask/visit/index.js';
import { clean } from '../../core/base/site-text.js';

export async function askBoxes(likely: readonly BoxCandidate[]): Promise<readonly Box[]> {
  return checkbox<Box>({
    message: 'Which of these hold CSS of your own? All else is the platform’s.',
    choices: likely.map(({ box, why }, at) => ({
      name: `${clean(boxName(box))}  (${why})`,
      value: box,
      checked: at === 0,
    })),
  });
}
