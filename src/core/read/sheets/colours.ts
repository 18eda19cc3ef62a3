// Colours in one form: every spelling of an sRGB colour becomes `#rrggbb`, or `#rrggbb/alpha`.

import type { Color } from 'culori';
import culori from 'culori/require';
import { BoundedMap } from '../../base/bounded.js';
import { isMadeOf, LOWER } from '../../base/characters.js';

const NONE = '';
const known = new BoundedMap<string, string>(5_000);

/**
 * The normal form of one colour token or function (`#FFF`, `white`, `rgb(255, 255, 255)`), lower case.
 * Out: `undefined` for what is no absolute colour, or none that 8-bit sRGB holds exactly (`lab()`, `currentcolor`).
 */
export function normalColour(text: string): string | undefined {
  const key = text.toLowerCase();
  return known.get(key, () => computeColour(key) ?? NONE) || undefined;
}

/** The name itself, lower case, when CSS knows a colour of that name. */
export function colourName(word: string): string | undefined {
  return isMadeOf(word, LOWER) && Object.hasOwn(culori.colorsNamed, word) ? word : undefined;
}

function computeColour(text: string): string | undefined {
  if (text === 'transparent') return '#000000/0';
  // Hex, names, and rgb() of whole numbers: of fractions and hsl() browsers differ in the rounding.
  const hex = text.startsWith('#');
  if (!hex && !/^rgba?\(\s*\d+[\s,]+\d+[\s,]+\d+\s*([,/]\s*[\d.]+%?\s*)?\)$/.test(text)) {
    // culori reads `bad` as a hex colour without its sign; CSS does not.
    if (!isMadeOf(text, LOWER) || /^[0-9a-f]+$/.test(text)) return undefined;
  }
  const parsed: Color | undefined = culori.parse(text);
  if (parsed?.mode !== 'rgb') return undefined;
  const { r, g, b, alpha = 1 } = parsed;
  if ([r, g, b, alpha].some((part) => !Number.isFinite(part) || part < 0 || part > 1)) return undefined;
  const channels = [r, g, b].map((part) => byte(part * 255));
  // Browsers keep alpha as a fraction: 0.5 is not 128/255, so the fraction itself stays in the form.
  if (alpha === 1) return `#${channels.join('')}`;
  return `#${channels.join('')}/${Number(alpha.toFixed(6))}`;
}

function byte(value: number): string {
  return Math.round(value).toString(16).padStart(2, '0');
}
