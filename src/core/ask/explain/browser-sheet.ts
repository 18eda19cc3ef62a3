// What browsers' own sheets declare, as far as reading a site needs it: how elements are laid out, and which of what they
// would inherit they set themselves (HTML standard, "Rendering").

const DISPLAYS: readonly (readonly [string, string])[] = [
  [
    'block',
    'html body address article aside blockquote center dd details dialog dir div dl dt fieldset figcaption figure footer form frameset h1 h2 h3 h4 h5 h6 header hgroup hr legend listing main menu nav ol optgroup option p plaintext pre search section summary ul xmp',
  ],
  [
    'none',
    'area base basefont datalist head link meta noembed noframes param rp script style template title',
  ],
  ['list-item', 'li'],
  ['table', 'table'],
  ['table-caption', 'caption'],
  ['table-column-group', 'colgroup'],
  ['table-column', 'col'],
  ['table-header-group', 'thead'],
  ['table-row-group', 'tbody'],
  ['table-footer-group', 'tfoot'],
  ['table-row', 'tr'],
  ['table-cell', 'td th'],
  ['inline-block', 'button input select textarea meter progress marquee'],
  ['ruby', 'ruby'],
  ['ruby-text', 'rt'],
];

const displays = new Map(
  DISPLAYS.flatMap(([display, names]) => names.split(' ').map((name) => [name, display])),
);

/** How a browser lays an element out where no sheet declares. */
export function usualDisplay(name: string): string {
  return displays.get(name) ?? 'inline';
}

const REPLACED = new Set(
  'img video audio canvas iframe embed object input button select textarea meter progress svg math picture'.split(
    ' ',
  ),
);

/** Whether an element is drawn by something else than its content, with a size of its own. */
export function isReplaced(name: string): boolean {
  return REPLACED.has(name);
}

const OWN: readonly (readonly [RegExp, readonly string[]])[] = [
  [/^h[1-6]$/, ['font-size', 'font-weight']],
  [/^(b|strong|th)$/, ['font-weight']],
  [/^(i|em|cite|dfn|var|address)$/, ['font-style']],
  [/^(small|sub|sup|big)$/, ['font-size']],
  [/^(code|kbd|samp|tt|pre|listing)$/, ['font-family', 'font-size']],
  [/^(pre|listing|textarea)$/, ['white-space-collapse', 'text-wrap-mode']],
  [/^(th|caption|center)$/, ['text-align']],
  [/^(ul|ol|menu|dir)$/, ['list-style-type']],
  [
    /^(input|button|select|textarea)$/,
    [
      ...['font-family', 'font-size', 'font-weight', 'font-style', 'line-height', 'color', 'letter-spacing'],
      ...['word-spacing', 'text-align', 'text-indent', 'text-transform', 'text-shadow', 'cursor'],
    ],
  ],
  [/^table$/, ['border-spacing', 'text-indent']],
];

/** The longhands that a browser's own sheet sets on an element, so that it does not inherit them. */
export function setByBrowser(name: string, isLink: boolean): ReadonlySet<string> {
  const found = new Set(OWN.flatMap(([names, longhands]) => (names.test(name) ? longhands : [])));
  if (isLink) for (const longhand of ['color', 'cursor']) found.add(longhand);
  return found;
}
