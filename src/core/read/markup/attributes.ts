// What is asked of the attributes of an element.

import type { Token } from 'parse5';
import type { Attribute } from './page.js';
import { splitTokens } from './tokens.js';

/** `xlink:href` is another attribute than `href`, whatever the parser makes of its name. */
export function qualified(attributes: readonly Token.Attribute[]): readonly Attribute[] {
  if (!attributes.some(({ prefix }) => prefix !== undefined && prefix !== '')) return attributes;
  return attributes.map(({ name, prefix, value }) => ({
    name: prefix === undefined || prefix === '' ? name : `${prefix}:${name}`,
    value,
  }));
}

export function attributeOf(attributes: readonly Attribute[], name: string): string | undefined {
  for (const attribute of attributes) if (attribute.name === name) return attribute.value;
  return undefined;
}

export function isCss(attributes: readonly Attribute[]): boolean {
  const type = attributeOf(attributes, 'type')?.trim().toLowerCase();
  return type === undefined || type === '' || type === 'text/css';
}

export function mediaOf(attributes: readonly Attribute[]): string {
  return attributeOf(attributes, 'media') ?? '';
}

/** Whether people write into the element: `contenteditable`, unless it says no. */
export function isEditable(attributes: readonly Attribute[]): boolean {
  const value = attributeOf(attributes, 'contenteditable');
  return value !== undefined && value.trim().toLowerCase() !== 'false';
}

/** Its type, `.classes` and `#id`. */
export function namesOf({
  tagName,
  attrs,
}: {
  readonly tagName: string;
  readonly attrs: readonly Attribute[];
}): string[] {
  const id = attributeOf(attrs, 'id');
  const classes = splitTokens(attributeOf(attrs, 'class') ?? '').map((name) => `.${name}`);
  return [tagName, ...classes, ...(id === undefined ? [] : [`#${id}`])];
}
