// What a page and a sheet lead to. Reads the markup alone: it is asked of every page of a site as it arrives.

import * as csstree from 'css-tree/utils';
import { type DefaultTreeAdapterTypes, parse } from 'parse5';
import { includesAny } from '../../base/phrases.js';
import { Token, tokenize, tokenText } from '../../read/sheets/tokens.js';
import { readAddress } from './addresses.js';

export interface Lead {
  /** As it is written. */
  readonly text: string;
  /** Where it leads. */
  readonly address: string;
}

export interface PageLeads {
  readonly pages: readonly string[];
  readonly sheets: readonly Lead[];
  readonly scripts: readonly Lead[];
  /** Pictures, fonts and films. */
  readonly others: readonly Lead[];
  /** The address that the page gives itself. */
  readonly canonical: string | undefined;
}

type Node = DefaultTreeAdapterTypes.ChildNode;

/** In: the text of a page; its address. */
export function leadsOfPage(text: string, address: string): PageLeads {
  const pages = new Set<string>();
  const sheets: Lead[] = [];
  const scripts: Lead[] = [];
  const others: Lead[] = [];
  let canonical: string | undefined;
  let base = address;
  let hasBase = false;
  const lead = (list: Lead[], written: string | undefined): void => {
    const found = written === undefined ? undefined : readAddress(written, base);
    if (written !== undefined && found !== undefined) list.push({ text: written.trim(), address: found });
  };
  const styles = (css: string): void => {
    const { imports, others: loaded } = leadsOfSheet(css, base);
    sheets.push(...imports);
    others.push(...loaded);
  };
  const readElement = (name: string, get: (attribute: string) => string | undefined, node: Node): void => {
    const style = get('style');
    if (style?.toLowerCase().includes('url(')) styles(style);
    switch (name) {
      case 'base': {
        const found = hasBase ? undefined : readAddress(get('href') ?? '', address);
        if (found !== undefined) [base, hasBase] = [found, true];
        return;
      }
      case 'a':
      case 'area': {
        const found = readAddress(get('href') ?? '', base);
        if (get('href') !== undefined && found !== undefined && get('download') === undefined)
          pages.add(found);
        return;
      }
      case 'link': {
        const words = (get('rel') ?? '').toLowerCase().split(/\s+/);
        if (words.includes('stylesheet')) lead(sheets, get('href'));
        else if (words.includes('canonical')) canonical ??= readAddress(get('href') ?? '', base);
        else if (words.includes('next') || words.includes('prev')) {
          const found = readAddress(get('href') ?? '', base);
          if (found !== undefined) pages.add(found);
        } else if (words.some((word) => includesAny(word, ['icon', 'preload']))) lead(others, get('href'));
        return;
      }
      case 'script':
        lead(scripts, get('src'));
        return;
      case 'style':
        if ('childNodes' in node)
          styles(node.childNodes.map((child) => ('value' in child ? child.value : '')).join(''));
        return;
      case 'img':
      case 'source':
      case 'video':
      case 'audio':
      case 'input':
        lead(others, get('src'));
        lead(others, get('poster'));
        for (const one of (get('srcset') ?? '').split(/,\s+/)) lead(others, /^\s*(\S+)/.exec(one)?.[1]);
        return;
    }
  };
  // A walk with a stack of its own: pages are nested deeper than calls may be.
  const left: Node[] = [];
  const add = (nodes: readonly Node[]): void => {
    for (let at = nodes.length - 1; at >= 0; at--) left.push(nodes[at]!);
  };
  add(parse(text).childNodes);
  for (let node = left.pop(); node !== undefined; node = left.pop()) {
    if ('attrs' in node) {
      const { attrs } = node;
      readElement(node.tagName, (name) => attrs.find((one) => one.name === name)?.value, node);
      if ('content' in node) add(node.content.childNodes);
    }
    if ('childNodes' in node) add(node.childNodes);
  }
  return { pages: [...pages], sheets, scripts, others, canonical };
}

export interface SheetLeads {
  readonly imports: readonly Lead[];
  readonly others: readonly Lead[];
}

/** In: the text of a sheet; the address that those in it start from. */
export function leadsOfSheet(css: string, base: string): SheetLeads {
  const imports: Lead[] = [];
  const others: Lead[] = [];
  const tokens = tokenize(css);
  let behindImport = false;
  let inUrl = false;
  const add = (text: string): void => {
    const address = text === '' ? undefined : readAddress(text, base);
    if (address !== undefined) (behindImport ? imports : others).push({ text, address });
    behindImport = false;
  };
  for (let at = 0; at < tokens.count; at++) {
    const text = tokenText(tokens, at);
    switch (tokens.types[at]) {
      case Token.AtKeyword:
        behindImport = text.toLowerCase() === '@import';
        break;
      case Token.Url:
        add(csstree.url.decode(text).trim());
        break;
      case Token.Function:
        inUrl = text.toLowerCase() === 'url(';
        break;
      case Token.String:
        if (behindImport || inUrl) add(csstree.string.decode(text).trim());
        inUrl = false;
        break;
      case Token.Semicolon:
        behindImport = false;
        break;
    }
  }
  return { imports, others };
}
