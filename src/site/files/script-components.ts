// Components in files that end like any script, as much of React is written.

import { isTagged } from '../../core/read/components/index.js';
import { endingOf } from '../../core/read/kinds/index.js';
import { decodeFile } from './encoding.js';
import type { SiteFiles } from './files.js';
import { APART } from './owner.js';

/** What is served as it is, and what mentions components beside the site. */
const NO_COMPONENT = /\.(stories|config|snap|umd|cjs|esm)\.js$|(^|\/)(__\w+__|public|plugins)\//i;
/** Bytes: larger files are libraries. */
const LARGEST = 500_000;
/** A package that turns tags in scripts into elements. */
const MAKER = /"(react|preact|solid-js|inferno|next|gatsby)"\s*:/;

/** In: the files of a site. Out: whether one is a script that holds markup; none where packages are named and none takes markup. */
export function scriptComponents(files: SiteFiles): (file: string) => boolean {
  let mayBe: boolean | undefined;
  return (file) => {
    if (endingOf(file) !== 'js' || APART.test(file) || NO_COMPONENT.test(file)) return false;
    mayBe ??= namesMaker(files);
    return mayBe && holdsTags(files, file);
  };
}

function namesMaker(files: SiteFiles): boolean {
  const packages = files.list().filter((file) => /(^|\/)package\.json$/.test(file));
  return packages.length === 0 || packages.some((file) => MAKER.test(files.read(file)?.toString() ?? ''));
}

function holdsTags(files: SiteFiles, file: string): boolean {
  const bytes = files.read(file);
  if (bytes === undefined || bytes.length > LARGEST || !(bytes.includes('/>') || bytes.includes('</')))
    return false;
  const text = decodeFile(bytes)?.text;
  return text !== undefined && isTagged(file, text);
}
