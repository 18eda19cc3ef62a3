// A whole page without the offsets of anything in it, in half the time: for seeing whether it looks the same.

import { isComponentFile } from '../kinds/index.js';
import { holdsEngineText } from '../templates/index.js';
import type { Page, ScriptReference } from './page.js';
import { parsePage, readPage } from './parse.js';

/** What is read by its place in the source: the texts of blocks, and what is in a template. */
const READ_BY_PLACE = /<(?:style|template)[\s>]/i;

/** Out: `undefined` where something in it is read by where it stands. */
export function parseUnplaced(path: string, text: string): Page | undefined {
  if (isComponentFile(path) || READ_BY_PLACE.test(text) || holdsEngineText(text, path)) return undefined;
  const page = readPage(path, text, { component: false, placed: false });
  return page.scripts.some(({ kind }) => kind === 'inline')
    ? { ...page, scripts: placedWhenAsked(page) }
    : page;
}

/** Few ask where a script of the page stands: who does has the page read once more. */
function placedWhenAsked({ path, text, scripts }: Page): ScriptReference[] {
  let placed: readonly ScriptReference[] | undefined;
  return scripts.map((script, at) => {
    if (script.kind === 'link') return script;
    return {
      ...script,
      get offset() {
        const only = script.how === 'script' ? onlyPlace(text, script.text) : undefined;
        if (only !== undefined) return only;
        placed ??= parsePage(path, text).scripts;
        const own = placed[at];
        return own?.kind === 'inline' ? own.offset : 0;
      },
    };
  });
}

/** Where a script stands, if what it says stands between such tags once. */
function onlyPlace(page: string, script: string): number | undefined {
  // The parser turns CR LF into LF.
  if (page.includes('\r')) return undefined;
  const whole = `>${script}</script`;
  const at = page.indexOf(whole);
  return at < 0 || page.indexOf(whole, at + 1) >= 0 ? undefined : at + 1;
}
