// What is asked of the attributes of an element.

import type { Token } from 'parse5';
import type { Attribute } from './page.js';

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
