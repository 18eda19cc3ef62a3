// `--paste`: the whole text of each box or sheet that was changed, to be pasted where it stands on the running site.

import { boxName } from '../../core/ask/visit/index.js';
import { isStyleSheet } from '../../core/read/kinds/index.js';
import { openFolder } from '../../site/files/files.js';
import { readConfig } from '../../site/files/pages.js';
import { readText } from '../../site/files/text.js';
import { readVisited } from '../../site/visiting/visited.js';
import { boxFile, type Visited } from '../../site/visiting/with-boxes.js';
import type { PasteFlags } from './paste-option.js';
import type { PictureFlags } from './picture-option.js';
import { present, type ShowFlags } from './present.js';
import type { Terminal } from './terminal.js';

/** As `present`, but for `--paste` where something was written. In: the site's folder. */
export async function presentChange(
  terminal: Terminal,
  folder: string,
  document: Parameters<typeof present>[1] & Changed,
  flags: ShowFlags & PasteFlags & PictureFlags,
  lines: () => Promise<readonly string[]>,
): Promise<void> {
  if (flags.paste === true && document.written) await pasteFiles(terminal, folder, document.files);
  else await present(terminal, document, flags, lines);
  if (flags.picture !== true) return;
  const { showPicture } = await import('./picture.js');
  const { written, command, moved } = document;
  await showPicture(terminal, folder, flags, {
    written,
    moved: moved?.pages.map((one) => one.path) ?? [],
    title: `acervus ${command}`,
  });
}

/** What every document of a change says. */
interface Changed {
  readonly written: boolean;
  readonly files: readonly string[];
  /** Most first. */
  readonly moved?: { readonly pages: readonly { readonly path: string }[] };
}

/** In: the site's folder; the files that were written. Texts go to stdout alone, so that they can be piped on. */
async function pasteFiles(
  { write, warn, canAsk }: Terminal,
  folder: string,
  changed: readonly string[],
): Promise<void> {
  const files = openFolder(folder);
  const visited = readVisited(files, await readConfig(files));
  const texts = changed.map((file) => ({
    file,
    name: nameOf(visited, file),
    text: `${(readText(files, file)?.text ?? '').trim()}\n`,
  }));
  for (const { name, text } of texts.filter(({ file }) => isStyleSheet(file))) {
    if (texts.length > 1) write(`/* ${name} */\n`);
    write(text);
  }
  if (texts.length === 0) return;
  const [only, ...others] = texts;
  const copied = canAsk && others.length === 0 && (await copy(only!.text));
  const names = texts.map(({ name }) => name).join(', ');
  warn(`paste it into ${names} in place of what is there${copied ? '; it is on the clipboard' : ''}\n`);
}

function nameOf(visited: Visited | undefined, file: string): string {
  for (const place of visited?.boxes ?? []) {
    for (const page of visited?.pages ?? [])
      if (boxFile(place, page) === file)
        return 'page' in place.box
          ? `${boxName(place.box)} of ${visited?.addressOf.get(page) ?? page}`
          : boxName(place.box);
  }
  return file;
}

/** Out: whether there is a clipboard. */
async function copy(text: string): Promise<boolean> {
  try {
    const { default: clipboard } = await import('clipboardy');
    await clipboard.write(text);
    return true;
  } catch {
    return false;
  }
}
