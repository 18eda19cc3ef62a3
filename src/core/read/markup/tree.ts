// The tree that parse5 builds for us: its own default nodes, with source offsets kept as plain fields. Copying a location
// object at every end tag, as the default does, costs a fifth of the parsing.

import type { DefaultTreeAdapterMap, Token, DefaultTreeAdapterTypes as Tree, TreeAdapter } from 'parse5';
import { defaultTreeAdapter, type html } from 'parse5';
import type { SourceRange } from '../../base/source.js';

export interface SourceElement extends Tree.Element {
  /** Of the start tag, with the attributes; `null` for what the source does not hold. */
  startTag: Token.LocationWithAttributes | null;
  /** Offset of the end tag's first character, -1 for none. */
  endTag: number;
  /** Offset behind the element, -1 where the source does not end it. */
  end: number;
  /** Where its style is an object in code: the entries, in the order of the declarations. */
  styleEntries?: readonly SourceRange[];
  /** Characters of its style that the attribute writes; without, all of it. */
  styleLength?: number;
}

export const sourceTree: TreeAdapter<DefaultTreeAdapterMap> = {
  ...defaultTreeAdapter,
  isElementNode: isSourceElement,
  createElement: (tagName: string, namespaceURI: html.NS, attrs: Token.Attribute[]): SourceElement => ({
    nodeName: tagName,
    tagName,
    attrs,
    namespaceURI,
    childNodes: [],
    parentNode: null,
    startTag: null,
    endTag: -1,
    end: -1,
  }),
  setNodeSourceCodeLocation: (node, location) => {
    if (isSourceElement(node)) node.startTag = location === null ? null : (location.startTag ?? location);
    else if (node.nodeName === '#documentType') node.sourceCodeLocation = location;
  },
  getNodeSourceCodeLocation: (node) => (isSourceElement(node) ? node.startTag : null),
  updateNodeSourceCodeLocation: (node, { endTag, endOffset }) => {
    if (!isSourceElement(node)) return;
    node.endTag = endTag?.startOffset ?? -1;
    node.end = endOffset ?? -1;
  },
};

export function isSourceElement(node: Tree.Node): node is SourceElement {
  // Every node of another kind is named `#text`, `#comment` and so on; asking for a property is slower.
  return node.nodeName.charCodeAt(0) !== 35;
}
