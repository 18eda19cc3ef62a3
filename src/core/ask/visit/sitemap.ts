// A sitemap, or an index of sitemaps (the protocol of sitemaps.org): the addresses in it.

import sax from 'sax';
import { readAddress } from './addresses.js';

export interface Sitemap {
  readonly pages: readonly string[];
  /** Further sitemaps, where it is an index. */
  readonly sitemaps: readonly string[];
}

/** Out: `undefined` for a text that is no sitemap. What is broken in one ends it there. */
export function readSitemap(text: string, base: string): Sitemap | undefined {
  const pages = new Set<string>();
  const sitemaps = new Set<string>();
  const open: string[] = [];
  let root: string | undefined;
  let said = '';
  const parser = sax.parser(true, { xmlns: false, trim: true });
  parser.onopentag = ({ name }) => {
    const local = name.replace(/^.*:/, '');
    root ??= local;
    open.push(local);
    said = '';
  };
  parser.ontext = (part) => {
    said += part;
  };
  parser.oncdata = (part) => {
    said += part;
  };
  parser.onclosetag = () => {
    const name = open.pop();
    const address = name === 'loc' ? readAddress(said, base) : undefined;
    // Pictures and films of a page have a `loc` of their own.
    if (address !== undefined && open.length === 2 && open[1] === 'url') pages.add(address);
    if (address !== undefined && open.length === 2 && open[1] === 'sitemap') sitemaps.add(address);
    said = '';
  };
  let isBroken = false;
  parser.onerror = () => {
    isBroken = true;
  };
  for (let at = 0; at < text.length && !isBroken; at += PIECE) parser.write(text.slice(at, at + PIECE));
  return root === 'urlset' || root === 'sitemapindex'
    ? { pages: [...pages], sitemaps: [...sitemaps] }
    : undefined;
}

const PIECE = 65_536;
