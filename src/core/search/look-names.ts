// Class names that say how something looks, or where it stands in a grid, and not what it is.
import { DIGIT, isMadeOf } from '../base/characters.js';

/** Words of such names, as frameworks and people write them. */
const LOOK = new RegExp(
  `^(?:${[
    'd|w|h|m[trblxyse]?|p[trblxyse]?|mh|mw|vh|vw|z|g[xy]?|fs|fw|lh',
    'text|font|bg|color|colour|border|rounded|shadow|float|pull|align|justify|flex|grid|gap|order|offset',
    'display|position|overflow|opacity|width|height|margin|padding|clear|clearfix|fix|hide|hidden|show|visible|invisible',
    'center|centered|centred|left|right|top|bottom|middle|bold|italic|normal|small|large|tiny|huge|muted|light|dark|upper|uppercase',
    'lower|lowercase|caps|nowrap|truncate|block|inline|none|full|half|wide|narrow|tall|round|circle|relative|absolute|fixed|static',
    'no|not|red|green|blue|grey|gray|white|black|yellow|orange|purple|pink|navy|brown',
  ].join('|')})$`,
  'i',
);

/** Whether a name is about a look: `text-center`, `mt-2`, `pull-right`. */
export function isLookName(name: string): boolean {
  const words = name
    .split(/[-_]+|(?<=[a-z])(?=[A-Z0-9])/)
    .filter((word) => word !== '' && !isMadeOf(word, DIGIT));
  const looks = words.filter((word) => LOOK.test(word)).length;
  return looks > 0 && looks * 2 >= words.length;
}

/** A column of a grid, `col-md-6`, or a look: neither says what stands in it or has it. */
export function saysLittle(name: string): boolean {
  return (
    /^(?:col|offset|order|span|g[xy]?)(?:[-_]?[a-z]{2})?[-_]?\d+$/i.test(name) ||
    /^(?:text|bg|font|border|float|pull|d|w|h|m[trblxyse]?|p[trblxyse]?|align|justify|rounded|shadow)[-_]\w/i.test(
      name,
    )
  );
}
