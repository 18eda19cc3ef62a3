// Which colours a site uses, in how many spellings, and which are all but the same.

import type { Color } from 'culori';
import culori from 'culori/require';
import { includesAny } from '../base/phrases.js';
import { normalColour } from '../read/sheets/index.js';
import type { Written } from './written.js';

export interface ColourUse {
  /** Normal form, `#rrggbb` or `#rrggbb/alpha`. */
  readonly colour: string;
  readonly times: number;
  readonly spellings: readonly { readonly text: string; readonly times: number }[];
}

export interface NearMiss {
  readonly colour: string;
  readonly times: number;
  readonly near: string;
  readonly nearTimes: number;
  /** CIEDE2000; below 2 most people see no difference side by side. */
  readonly distance: number;
}

const COLOUR = /#[0-9a-f]{3,8}\b|\b(?:rgb|hsl)a?\([^()]*\)|\b[a-z]{3,20}\b/gi;
const COLOURED = ['color', 'background', 'border', 'outline', 'shadow', 'fill', 'stroke', 'decoration'];

/** Most used first. */
export function colourUses(written: readonly Written[]): ColourUse[] {
  const uses = new Map<string, Map<string, number>>();
  for (const { declaration, text, times } of written) {
    for (const spelling of spellingsIn(
      declaration === undefined ? undefined : declaration.property,
      declaration?.value ?? text,
    )) {
      const colour = normalColour(/^[0-9a-f]{6}$/i.test(spelling) ? `#${spelling}` : spelling);
      if (colour === undefined || colour === '#000000/0') continue;
      const spellings = uses.get(colour) ?? new Map<string, number>();
      uses.set(colour, spellings);
      spellings.set(spelling, (spellings.get(spelling) ?? 0) + times);
    }
  }
  const found = [...uses].map(([colour, spellings]) => ({
    colour,
    times: [...spellings.values()].reduce((sum, times) => sum + times, 0),
    spellings: [...spellings]
      .map(([text, times]) => ({ text, times }))
      .sort((a, b) => b.times - a.times || (a.text < b.text ? -1 : 1)),
  }));
  return found.sort((a, b) => b.times - a.times || (a.colour < b.colour ? -1 : 1));
}

function spellingsIn(property: string | undefined, value: string): string[] {
  if (property === undefined) {
    const attribute = /^(?:bgcolor|color|bordercolor|text|link|vlink|alink)="\s*([^"]*?)\s*"$/i.exec(value);
    return attribute === null ? [] : [attribute[1]!];
  }
  return coloursIn(property, value).map(({ text }) => text);
}

/** Everything in a value that could be a colour, with its offset. */
export function coloursIn(property: string, value: string): { readonly text: string; readonly at: number }[] {
  if (!includesAny(property, COLOURED) && !property.startsWith('--')) return [];
  const plain = value.replace(/url\([^)]*\)|"[^"]*"|'[^']*'/g, (hidden) => ' '.repeat(hidden.length));
  return [...plain.matchAll(COLOUR)].map((match) => ({ text: match[0], at: match.index }));
}

/** Pairs of different colours that look alike, the rarer one first. */
export function nearMisses(uses: readonly ColourUse[]): NearMiss[] {
  const distance = culori.differenceCiede2000();
  const opaque = uses
    .filter(({ colour }) => !colour.includes('/'))
    .map((use) => ({ ...use, parsed: culori.parse(use.colour) as Color }));
  const found: NearMiss[] = [];
  opaque.forEach((common, i) => {
    for (const rare of opaque.slice(i + 1)) {
      const apart = distance(common.parsed, rare.parsed);
      if (apart < 2)
        found.push({
          colour: rare.colour,
          times: rare.times,
          near: common.colour,
          nearTimes: common.times,
          distance: Number(apart.toFixed(2)),
        });
    }
  });
  return found.sort((a, b) => a.distance - b.distance || (a.colour < b.colour ? -1 : 1));
}
