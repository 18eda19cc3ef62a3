// How a folder that a visit filled is read as a site: its pages, where their addresses lead, and the boxes that are the
// developer's.

import type { Config } from '../config.js';
import type { SiteFiles } from '../files/files.js';
import { readManifest } from './manifest.js';
import type { Visited } from './with-boxes.js';

const NOTHING: Visited = {
  pages: [],
  addresses: new Map(),
  boxes: [],
  addressOf: new Map(),
  files: new Map(),
  origin: '',
};

/** In: the files of a site, and its configuration. Out: `undefined` for one that nobody visited. Throws `UsageError`. */
export function readVisited(files: SiteFiles, config: Config): Visited | undefined {
  const { rendering } = config;
  if (typeof rendering !== 'object' || !('visit' in rendering)) return undefined;
  const manifest = readManifest(files);
  if (manifest === undefined) return NOTHING;
  const sheets = manifest.files.filter(({ kind }) => kind === 'sheet');
  return {
    pages: manifest.pages.map(({ file }) => file).sort(),
    addresses: new Map(Object.entries(manifest.addresses)),
    addressOf: new Map(manifest.pages.map(({ file, address }) => [file, address])),
    files: new Map(
      [...manifest.files, ...manifest.pages].flatMap((one) =>
        [one.address, ...('also' in one ? (one.also ?? []) : [])].map(
          (address) => [address, one.file] as const,
        ),
      ),
    ),
    origin: manifest.origin,
    boxes: (config.own ?? []).map((box) => ({
      box,
      sheet: 'sheet' in box ? sheets.find((one) => endsWith(one, box.sheet))?.file : undefined,
    })),
  };
}

function endsWith({ file, address }: { file: string; address: string }, end: string): boolean {
  const tail = `/${end.replace(/^(?:…|\.\.\.)?\/*/, '')}`;
  return `/${file}`.endsWith(tail) || new URL(address).pathname.endsWith(tail) || address === end;
}
