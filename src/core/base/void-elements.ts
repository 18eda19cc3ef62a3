// Elements of HTML that hold nothing and have no end tag.

const VOID: ReadonlySet<string> = new Set([
  'area',
  'base',
  'br',
  'col',
  'embed',
  'hr',
  'img',
  'input',
  'link',
  'meta',
  'param',
  'source',
  'track',
  'wbr',
]);

/** In: the name of an element in small letters. */
export function isVoid(name: string): boolean {
  return VOID.has(name);
}
