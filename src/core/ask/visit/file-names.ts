// Where in the folder an address is kept: so that relative addresses lead from file to file as they do on the site, and
// whatever a server calls its pages, the name is one that every file system takes.

import { createHash } from 'node:crypto';
import { either, hasOneOf, SPACE, trimmedAfter, trimmedBefore } from '../../base/characters.js';
import { decodePart } from './addresses.js';

export type Kind = 'page' | 'sheet' | 'script' | 'other';

const ENDINGS: Readonly<Record<Kind, { readonly is: RegExp; readonly usual: string }>> = {
  page: { is: /\.html?$/i, usual: '.html' },
  sheet: { is: /\.css$/i, usual: '.css' },
  script: { is: /\.m?js$/i, usual: '.js' },
  other: { is: /\.\w{1,8}$/, usual: '' },
};
/** Longer names than this are cut: file systems take 255 bytes, and a name is not alone in them. */
const LONGEST = 100;
const DEEPEST = 12;
/** Names that mean a device on some systems, and those of our own files. */
const TAKEN =
  /^(?:con|prn|aux|nul|com\d|lpt\d|acervus\.json|visit\.json|acervus-draft\.yaml|work-list|own)$/i;
/** Folders that commands do not look into. */
const UNREAD = new Set(['node_modules', 'bower_components', 'jspm_packages']);

export class FileNames {
  readonly #files = new Map<string, string>();
  /** Lower case, as some file systems see them. */
  readonly #used = new Set<string>();
  readonly #folders = new Set<string>();

  /** In: addresses that have their files already. */
  constructor(known: Iterable<readonly [address: string, file: string]> = []) {
    for (const [address, file] of known) {
      this.#files.set(address, file);
      this.#note(file);
    }
  }

  /** In: an address; what it leads to; the origin of the site. Out: a path in the folder, of no other address. */
  nameOf(address: string, kind: Kind, origin: string): string {
    const known = this.#files.get(address);
    if (known !== undefined) return known;
    const wanted = this.#besideFiles(plainName(new URL(address), kind, origin));
    const name = wanted.toLowerCase();
    const file = this.#used.has(name) || this.#folders.has(name) ? withDigest(wanted, address) : wanted;
    this.#files.set(address, file);
    this.#note(file);
    return file;
  }

  #note(file: string): void {
    this.#used.add(file.toLowerCase());
    for (const folder of foldersOf(file.toLowerCase())) this.#folders.add(folder);
  }

  /** A file may not stand where another one has its folder. */
  #besideFiles(file: string): string {
    const taken = foldersOf(file).find((folder) => this.#used.has(folder.toLowerCase()));
    return taken === undefined ? file : this.#besideFiles(`${taken}-in${file.slice(taken.length)}`);
  }
}

/** `a/b/c.html` lies in `a` and `a/b`. */
function foldersOf(file: string): string[] {
  const parts = file.split('/').slice(0, -1);
  return parts.map((_, at) => parts.slice(0, at + 1).join('/'));
}

function plainName(url: URL, kind: Kind, origin: string): string {
  const parts = url.pathname.split('/').slice(1).map(plainPart);
  let last = parts.pop() ?? '';
  if (last === '') last = 'index';
  const { is, usual } = ENDINGS[kind];
  const ending = is.exec(last)?.[0] ?? usual;
  const stem = is.test(last) ? last.slice(0, -ending.length) : last;
  const query = url.search === '' ? '' : `--${plainPart(decodePart(url.search.slice(1)))}`;
  const name = shortened(`${stem}${query}`, url.href) + ending;
  const folders = parts.filter((part) => part !== '').map((part) => shortened(part, part));
  const deep = folders.length > DEEPEST ? [...folders.slice(0, DEEPEST - 1), digestOf(url.href)] : folders;
  const inside = [...deep, name].join('/');
  return url.origin === origin ? inside : `elsewhere/${plainPart(url.host)}/${inside}`;
}

/** One name out of a part of an address. */
function plainPart(part: string): string {
  const plain = trimmedAfter(
    trimmedBefore(
      [...decodePart(part)]
        .map((char) =>
          char < ' ' || char === '\u007f' || hasOneOf(char, either(SPACE, '<>:"/\\|?*%&=#')) ? '-' : char,
        )
        .join(''),
      '.',
    ),
    '. ',
  );
  if (part !== '' && plain === '') return '-';
  const [stem = ''] = plain.split('.');
  return TAKEN.test(plain) || TAKEN.test(stem) || UNREAD.has(plain.toLowerCase()) ? `-${plain}` : plain;
}

function shortened(name: string, address: string): string {
  if (Buffer.byteLength(name) <= LONGEST) return name;
  let cut = name;
  while (Buffer.byteLength(cut) > LONGEST - 9) cut = [...cut].slice(0, -1).join('');
  return `${cut}-${digestOf(address)}`;
}

function withDigest(file: string, address: string): string {
  const dot = file.lastIndexOf('.');
  const cut = dot > file.lastIndexOf('/') ? dot : file.length;
  return `${file.slice(0, cut)}-${digestOf(address)}${file.slice(cut)}`;
}

function digestOf(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, 8);
}
