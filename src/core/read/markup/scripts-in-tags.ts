// Scripts that stand in attributes of a tag: handlers, addresses that are scripts, and those of a page in `srcdoc`.

import { type DefaultTreeAdapterTypes, parse } from 'parse5';
import { scriptInAddress } from '../../base/script-address.js';

const ADDRESSES = new Set(['href', 'action', 'formaction', 'src', 'data', 'xlink:href']);

/** In: the attributes of a start tag that is no `<script>`. Out: the texts of scripts, each with its attribute's name. */
export function scriptsInTag(
  attributes: readonly { readonly name: string; readonly value: string }[],
): { name: string; text: string }[] {
  return attributes.flatMap(({ name, value }) => {
    if (name.startsWith('on')) return value === '' ? [] : [{ name, text: value }];
    if (name === 'srcdoc') return scriptsOfPage(value).map((text) => ({ name, text }));
    const text = ADDRESSES.has(name) ? scriptInAddress(value) : undefined;
    return text === undefined || text === '' ? [] : [{ name, text }];
  });
}

function scriptsOfPage(markup: string): string[] {
  const found: string[] = [];
  const visit = (node: DefaultTreeAdapterTypes.Node): void => {
    if (!('childNodes' in node)) return;
    if (node.nodeName === 'script')
      found.push(node.childNodes.map((child) => ('value' in child ? child.value : '')).join(''));
    else for (const child of node.childNodes) visit(child);
    if ('attrs' in node) for (const { text } of scriptsInTag(node.attrs)) found.push(text);
  };
  visit(parse(markup));
  return found;
}
