// What the CSS specifications declare of each property: longhands, aliases, groups. From @webref/css.

import { createRequire } from 'node:module';
import { BoundedMap } from '../../base/bounded.js';

interface SpecifiedProperty {
  readonly name: string;
  readonly inherited?: string;
  readonly initial?: string;
  readonly longhands?: readonly string[];
  readonly resetLonghands?: readonly string[];
  readonly legacyAliasOf?: string;
  readonly logicalPropertyGroup?: string;
}

const require = createRequire(import.meta.url);
const specified = new Map<string, SpecifiedProperty>();
for (const property of (require('@webref/css/css.json') as { properties: SpecifiedProperty[] }).properties) {
  specified.set(property.name, property);
}

/** Names that browsers treat as one property and the specifications' data does not (Compatibility Standard, CSS Break). */
const MORE_ALIASES: ReadonlyMap<string, string> = new Map([
  ['-webkit-margin-start', 'margin-inline-start'],
  ['-webkit-margin-end', 'margin-inline-end'],
  ['-webkit-margin-before', 'margin-block-start'],
  ['-webkit-margin-after', 'margin-block-end'],
  ['-webkit-padding-start', 'padding-inline-start'],
  ['-webkit-padding-end', 'padding-inline-end'],
  ['-webkit-padding-before', 'padding-block-start'],
  ['-webkit-padding-after', 'padding-block-end'],
  ['-webkit-border-start', 'border-inline-start'],
  ['-webkit-border-end', 'border-inline-end'],
  ['-webkit-border-before', 'border-block-start'],
  ['-webkit-border-after', 'border-block-end'],
  ['-webkit-border-start-color', 'border-inline-start-color'],
  ['-webkit-border-start-style', 'border-inline-start-style'],
  ['-webkit-border-start-width', 'border-inline-start-width'],
  ['-webkit-border-end-color', 'border-inline-end-color'],
  ['-webkit-border-end-style', 'border-inline-end-style'],
  ['-webkit-border-end-width', 'border-inline-end-width'],
  ['-webkit-border-before-color', 'border-block-start-color'],
  ['-webkit-border-before-style', 'border-block-start-style'],
  ['-webkit-border-before-width', 'border-block-start-width'],
  ['-webkit-border-after-color', 'border-block-end-color'],
  ['-webkit-border-after-style', 'border-block-end-style'],
  ['-webkit-border-after-width', 'border-block-end-width'],
  ['-webkit-logical-width', 'inline-size'],
  ['-webkit-logical-height', 'block-size'],
  ['-webkit-min-logical-width', 'min-inline-size'],
  ['-webkit-min-logical-height', 'min-block-size'],
  ['-webkit-max-logical-width', 'max-inline-size'],
  ['-webkit-max-logical-height', 'max-block-size'],
  ['-webkit-column-count', 'column-count'],
  ['-webkit-column-gap', 'column-gap'],
  ['-webkit-column-rule', 'column-rule'],
  ['-webkit-column-rule-color', 'column-rule-color'],
  ['-webkit-column-rule-style', 'column-rule-style'],
  ['-webkit-column-rule-width', 'column-rule-width'],
  ['-webkit-column-span', 'column-span'],
  ['-webkit-column-width', 'column-width'],
  ['-webkit-columns', 'columns'],
  ['-webkit-clip-path', 'clip-path'],
  ['-webkit-opacity', 'opacity'],
  ['-webkit-user-select', 'user-select'],
  ['-webkit-column-break-before', 'break-before'],
  ['-webkit-column-break-after', 'break-after'],
  ['-webkit-column-break-inside', 'break-inside'],
  ['page-break-before', 'break-before'],
  ['page-break-after', 'break-after'],
  ['page-break-inside', 'break-inside'],
]);

/** Shorthands by the newest drafts that browsers still keep as one longhand each. */
const STILL_LONGHANDS = new Set([
  'animation-delay',
  'box-shadow',
  'text-align',
  'vertical-align',
  'overflow-clip-margin',
  '-webkit-line-clamp',
  'size',
]);

/** What the drafts let a shorthand reset and browsers leave alone, or the other way round: both stay possible. */
const UNSETTLED: ReadonlyMap<string, readonly string[]> = new Map([
  ['animation', ['animation-trigger']],
  ['background', ['background-blend-mode']],
  ['columns', ['column-wrap']],
  ['mask', ['mask-border', '-webkit-mask-box-image']],
  ['view-timeline', ['view-timeline-inset']],
]);

/** Other names for parts of a longhand, in one browser or another. */
const PART_OF: ReadonlyMap<string, string> = new Map([
  ['-webkit-border-horizontal-spacing', 'border-spacing'],
  ['-webkit-border-vertical-spacing', 'border-spacing'],
  ['-webkit-transform-origin-x', 'transform-origin'],
  ['-webkit-transform-origin-y', 'transform-origin'],
  ['-webkit-transform-origin-z', 'transform-origin'],
  ['-webkit-perspective-origin-x', 'perspective-origin'],
  ['-webkit-perspective-origin-y', 'perspective-origin'],
  ['-webkit-text-combine', 'text-combine-upright'],
  ['-webkit-border-image', 'border-image-source'],
  ['window-drag', 'app-region'],
  ['-webkit-mask-position-x', 'mask-position'],
  ['-webkit-mask-position-y', 'mask-position'],
  // `size` for width and height is only drafted: in a rule no browser knows it, and the two stay independent.
  ...[...STILL_LONGHANDS]
    .filter((name) => name !== 'size')
    .flatMap((name) => (specified.get(name)?.longhands ?? []).map((part): [string, string] => [part, name])),
]);

/** Shorthands without a specification. */
const MORE_SHORTHANDS: ReadonlyMap<string, readonly string[]> = new Map([
  ['text-box', ['text-box-trim', 'text-box-edge']],
  ['-webkit-text-stroke', ['-webkit-text-stroke-width', '-webkit-text-stroke-color']],
]);

/** Whether any specification defines the property; custom properties count. */
export function isKnownProperty(name: string): boolean {
  return name.startsWith('--') || specified.has(name) || MORE_ALIASES.has(name);
}

/** Whether an element takes the property from its parent where nothing sets it. */
export function isInherited(longhand: string): boolean {
  return longhand.startsWith('--') || specified.get(longhand)?.inherited === 'yes';
}

export function knownPropertyNames(): Iterable<string> {
  return specified.keys();
}

/** The name under which a browser keeps a property: `word-wrap` is `overflow-wrap`. */
export function canonicalProperty(name: string): string {
  return specified.get(name)?.legacyAliasOf ?? MORE_ALIASES.get(name) ?? name;
}

/** What an alias declares in the words of the property that it stands for (CSS Fragmentation 3 §3.4). */
export function aliasedValue(name: string, form: string): string {
  if (form !== 'always') return form;
  if (/^page-break-(before|after)$/.test(name)) return 'page';
  return /^-webkit-column-break-(before|after)$/.test(name) ? 'column' : form;
}

export interface Longhands {
  /** In the order of the specification's data; the property itself when it is a longhand. */
  readonly set: readonly string[];
  /** Longhands that the shorthand only resets to their initial value. */
  readonly reset: readonly string[];
  /** Longhands that it resets in some browsers and not in others. */
  readonly unsettled: readonly string[];
}

/** Names that sites make up are among them. */
const longhandsOf = new BoundedMap<string, Longhands>(20_000);

/**
 * The longhands that a declaration of a property sets. Vendor variants of shorthands (`-moz-border-radius`) get
 * vendor longhands of the same names, since a browser that knows the one may not know the other.
 */
export function longhands(name: string): Longhands {
  return longhandsOf.get(name, () => findLonghands(canonicalProperty(name)));
}

/** Every longhand that a declaration of a property may set, reset or leave to the browser, in a fixed order. */
export function everyLonghand(name: string): string[] {
  const { set, reset, unsettled } = longhands(name);
  return [...set, ...reset, ...unsettled];
}

function findLonghands(name: string): Longhands {
  const property = specified.get(name);
  if (STILL_LONGHANDS.has(name)) return { set: [name], reset: [], unsettled: [] };
  const direct = MORE_SHORTHANDS.get(name) ?? property?.longhands;
  if (direct !== undefined && direct.length > 0) {
    const parts = direct.map(longhands);
    const set = new Set(parts.flatMap((part) => part.set));
    const resets = (property?.resetLonghands ?? []).map(longhands);
    const unsettled = new Set((UNSETTLED.get(name) ?? []).flatMap((part) => longhands(part).set));
    for (const part of parts) for (const longhand of part.unsettled) unsettled.add(longhand);
    const reset = new Set([
      ...parts.flatMap((part) => part.reset),
      ...resets.flatMap((part) => [...part.set, ...part.reset]),
    ]);
    return {
      set: [...set].filter((part) => !unsettled.has(part)),
      reset: [...reset].filter((part) => !set.has(part) && !unsettled.has(part)),
      unsettled: [...unsettled],
    };
  }
  const vendor = vendorBase(name);
  if (property === undefined && vendor !== undefined) {
    const base = longhands(vendor.base);
    if (base.set.length > 1)
      return { set: base.set.map((part) => `${vendor.prefix}${part}`), reset: [], unsettled: [] };
  }
  return { set: [name], reset: [], unsettled: [] };
}

function vendorBase(name: string): { prefix: string; base: string } | undefined {
  const match = /^(-(?:webkit|moz|ms|o|epub|khtml)-)(.+)$/.exec(name);
  return match === null ? undefined : { prefix: match[1]!, base: match[2]! };
}

export interface InteractionGroup {
  readonly name: string;
  /** Members of different kinds compete; members of one kind do not. */
  readonly kind: 'plain' | 'logical' | 'vendor';
}

/**
 * Longhands that are different names for what may be one computed value, so that their order in the cascade matters:
 * logical and physical ones (CSS Logical Properties §4), vendor variants and their base.
 */
export function interactionGroup(longhand: string): InteractionGroup {
  return groups.get(longhand, () => findGroup(longhand));
}

const groups = new BoundedMap<string, InteractionGroup>(5000);

function findGroup(longhand: string): InteractionGroup {
  const whole = PART_OF.get(longhand);
  if (whole !== undefined) return { name: whole, kind: 'vendor' };
  const property = specified.get(longhand);
  const logical = property?.logicalPropertyGroup;
  if (logical !== undefined) {
    const flowRelative = /(^|-)(inline|block|start|end)(-|$)/.test(longhand);
    return { name: logical, kind: flowRelative ? 'logical' : 'plain' };
  }
  const vendor = vendorBase(longhand);
  if (vendor !== undefined) {
    const base = specified.get(vendor.base)?.logicalPropertyGroup ?? vendor.base;
    return { name: base, kind: 'vendor' };
  }
  return { name: longhand, kind: 'plain' };
}

/** Whether two names may set one computed value: logical and physical, with and without a vendor's name. */
export function competesWith(name: string, longhand: string): boolean {
  const [one, other] = [interactionGroup(name), interactionGroup(longhand)];
  return one.name === other.name && (one.kind !== other.kind || one.kind === 'vendor');
}
