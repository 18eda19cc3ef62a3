// Small random sites with everything mixed: the same seed gives the same site on every machine.

export class Random {
  #state: number;

  constructor(seed: number) {
    this.#state = seed * 2654435761;
  }

  /** From 0 up to, not including, `below` (mulberry32). */
  number(below: number): number {
    this.#state = (this.#state + 0x6d2b79f5) | 0;
    let value = Math.imul(this.#state ^ (this.#state >>> 15), 1 | this.#state);
    value = (value + Math.imul(value ^ (value >>> 7), 61 | value)) ^ value;
    return ((value ^ (value >>> 14)) >>> 0) % below;
  }

  chance(percent: number): boolean {
    return this.number(100) < percent;
  }

  pick<T>(items: readonly T[]): T {
    return items[this.number(items.length)]!;
  }

  times<T>(least: number, most: number, make: () => T): T[] {
    return Array.from({ length: least + this.number(most - least + 1) }, make);
  }
}

const TAGS = [
  'div',
  'p',
  'span',
  'section',
  'ul',
  'li',
  'a',
  'b',
  'h2',
  'table',
  'input',
  'fieldset',
  'font',
];
const VOID_TAGS = new Set(['input']);
const CLASSES = ['a', 'b', 'c', 'd', 'Quay'];
const DECLARATIONS = [
  'color: red',
  'color: #00F',
  'color: rgb(0, 128, 0)',
  'color: var(--ink)',
  '--ink: teal',
  '--ink: #123456',
  'margin: 0',
  'margin: 4px 8px',
  'margin-left: 3px',
  'margin-inline-start: 9px',
  'padding: 2px',
  'padding-top: 5px',
  'border: 1px solid red',
  'border-top: 2px dotted',
  'border-color: lime',
  'background: #eee',
  'background-color: cyan',
  'font-weight: bold',
  'font-size: 12px',
  'font: italic 14px/1.2 serif',
  'width: 50%',
  'width: 120px',
  'display: inline-block',
  'display: none',
  'text-align: centre',
  'text-align: center',
  'opacity: .5',
  'colour: red',
  'overflow: hidden',
  'border-radius: 3px',
  '-webkit-border-radius: 6px',
  'letter-spacing: 1px',
  'float: left',
  'position: relative',
  'top: 3px',
  'background: url(tide.svg) no-repeat',
  'text-decoration: underline',
  'line-height: 2',
  'all: unset',
  'word-wrap: break-word',
  'inset: 1px',
  'container-type: inline-size',
  'color: var(--none, olive)',
  'margin-top: var(--gap, 2px)',
  '--gap: 6px',
  'background-color: inherit',
  'color: revert-layer',
  'border-width: 1px 2px 3px',
  'flex: 1 1 auto',
  'text-align: -webkit-center',
  'width: fit-content',
  'color: rgb(0 128 0 / 50%)',
  'transform: rotate(3deg)',
];
const STATES = [
  ':hover',
  ':focus',
  ':visited',
  '::before',
  '::after',
  '::-webkit-scrollbar',
  '::-x-unknown',
  ':-x-unknown',
];

export function selector(random: Random, depth = 0, plain = false): string {
  const parts = random.times(1, depth > 1 ? 1 : 3, () => compound(random, depth, plain));
  return parts.reduce((text, part) => `${text}${random.pick([' ', ' ', ' > ', ' + ', ' ~ '])}${part}`);
}

function compound(random: Random, depth: number, plain: boolean): string {
  let text = random.chance(50) ? random.pick([...TAGS, '*', 'DIV']) : '';
  if (random.chance(45)) text += `.${random.pick(CLASSES)}`;
  if (random.chance(8)) text += `#${random.pick(['one', 'two'])}`;
  if (random.chance(10))
    text += random.pick([
      '[style]',
      '[class]',
      '[class="a"]',
      '[class~="b"]',
      '[class^="a"]',
      '[class*="ua"]',
      '[style*="red"]',
      '[title]',
      '[title="Tide" i]',
    ]);
  if (random.chance(22)) {
    text += random.pick([
      ':first-child',
      ':last-child',
      ':only-child',
      ':nth-child(2n+1)',
      ':nth-child(2)',
      ':nth-last-child(odd)',
      ':first-of-type',
      ':nth-of-type(2)',
      ':empty',
      ':root',
      ':nth-child(-n+2)',
      ':nth-last-of-type(2n)',
      ':only-of-type',
      ':any-link',
      ':lang(en)',
      // Newer than the rest: inside a list that forgives, it stays open.
      depth === 0 ? ':lang(en-GB, fr)' : ':lang(fr)',
      depth === 0 ? ':dir(rtl)' : ':lang(en)',
      ':disabled',
      ':enabled',
      ':required',
      ':optional',
      ':defined',
    ]);
  }
  if (depth < 2 && random.chance(14)) {
    const inner = (): string => random.times(1, 2, () => selector(random, depth + 1, plain)).join(', ');
    text += random.pick([
      () => `:not(${inner()})`,
      () => `:is(${inner()})`,
      () => `:where(${inner()})`,
      () => `:has(${random.pick(['', '> ', '+ '])}${selector(random, 2, true)})`,
      () => `:nth-child(odd of ${inner()})`,
    ])();
  }
  if (!plain && depth === 0 && random.chance(12)) text += random.pick(STATES);
  return text === '' ? random.pick(TAGS) : text;
}

/** Declarations that only the style attribute of one element can stand for: see the engine's test. */
const WHOLE = /^(all|margin: var|--)|revert-layer|container-type/;

export interface Taste {
  /** Leaves `all` and custom properties out. */
  readonly plain?: boolean;
}

let taste: Taste = {};

/** Sites generated inside `make` follow a taste. */
export function withTaste<T>(wanted: Taste, make: () => T): T {
  taste = wanted;
  try {
    return make();
  } finally {
    taste = {};
  }
}

function declarations(random: Random, most: number): string {
  return random
    .times(
      1,
      most,
      () =>
        random.pick(taste.plain === true ? DECLARATIONS.filter((one) => !WHOLE.test(one)) : DECLARATIONS) +
        (random.chance(8) ? ' !important' : ''),
    )
    .join('; ');
}

const SUPPORTS = [
  '(display: grid)',
  'not (display: grid)',
  '(display: grid) and (not (x-unknown: 1))',
  '(x-unknown: 1) or (color: red)',
  'selector(:has(a))',
  '((color: red))',
];

export function sheet(random: Random, rules: number): string {
  const rule = (): string => {
    const nested = random.chance(8)
      ? ` &${random.pick(['.a', ':hover', ' b', ' > p'])} { ${declarations(random, 2)} }`
      : '';
    const grouped = random.chance(6)
      ? ` ${random.pick(['@media print', '@media (min-width: 700px)', '@container (min-width: 10px)', '@supports (color: red)'])} { ${declarations(random, 2)} }`
      : '';
    const content = random.chance(6) ? ' content: "x";' : '';
    return `${random.times(1, 2, () => selector(random)).join(', ')} {${content} ${declarations(random, 3)};${nested}${grouped} }`;
  };
  return random
    .times(1, rules, () => {
      if (random.chance(8))
        return `@media ${random.pick(['print', '(max-width: 600px)', 'screen and (min-width: 601px)'])} { ${rule()} }`;
      if (random.chance(7)) return `@supports ${random.pick(SUPPORTS)} { ${rule()} }`;
      if (random.chance(4)) return `@container (min-width: ${random.pick([100, 400])}px) { ${rule()} }`;
      if (random.chance(3)) return `@layer ${random.pick(['theme, kit', 'kit.base, late'])};`;
      if (random.chance(2)) return `@layer { ${rule()} }`;
      if (random.chance(2)) return `@scope (.a) to (.b) { ${rule()} }`;
      if (random.chance(2)) return `@starting-style { ${rule()} }`;
      if (random.chance(6)) return `@layer ${random.pick(['kit', 'theme', 'kit.base'])} { ${rule()} }`;
      return rule();
    })
    .join('\n');
}

const OLD = [
  'align="center"',
  'bgcolor="#def"',
  'align="left" width="50%"',
  'width="120" height="20"',
  'valign="top"',
  'cellpadding="4" cellspacing="0"',
  'border="1"',
  'color="navy" size="5"',
  'nowrap',
];

export function body(random: Random): string {
  const styles = random.times(2, 5, () => declarations(random, 3));
  const ids = ['one', 'two'];
  const element = (depth: number): string => {
    const tag = random.pick(TAGS);
    let attributes = '';
    if (random.chance(55))
      attributes += ` class="${random.times(1, 2, () => random.pick(CLASSES)).join(' ')}"`;
    if (random.chance(45)) attributes += ` style="${random.pick(styles)}"`;
    if (ids.length > 0 && random.chance(6)) attributes += ` id="${ids.pop()}"`;
    if (random.chance(8)) attributes += ' title="tide"';
    if (tag === 'a' && random.chance(60)) attributes += ' href="#x"';
    if (random.chance(8)) attributes += ` ${random.pick(OLD)}`;
    if (random.chance(5))
      attributes += ` ${random.pick(['lang="en"', 'lang="en-GB"', 'lang="fr"', 'dir="rtl"'])}`;
    if (random.chance(tag === 'input' || tag === 'fieldset' ? 40 : 3))
      attributes += ` ${random.pick(['disabled', 'required', 'type="submit" required'])}`;
    if (VOID_TAGS.has(tag)) return `<${tag}${attributes}>`;
    if (tag === 'table' && random.chance(60))
      return `<table${attributes}><tr><td>${depth > 3 ? 'x' : element(depth + 1)}<td${random.chance(50) ? ` ${random.pick(OLD)}` : ''}>tide</table>`;
    const inside =
      depth > 3 ? 'x' : random.times(0, 3, () => (random.chance(60) ? element(depth + 1) : 'tide ')).join('');
    return `<${tag}${attributes}>${inside}</${tag}>`;
  };
  const late = random.chance(10) ? `<style>${sheet(random, 3)}</style>` : '';
  return random.times(3, 7, () => element(0)).join('\n') + late;
}

const IMPORTS = [
  ...['', '', '', '', ''],
  '@import "more.css";\n',
  '@import "more.css" layer(kit) screen;\n',
  '@import url(more.css) layer;\n',
  '@import url("more.css") supports(display: grid) (min-width: 600px);\n',
];

/** Files of a site of one or two pages with one linked sheet and, at times, a block of their own. */
export function site(seed: number): Record<string, string> {
  const random = new Random(seed);
  const page = (): string => {
    const block = random.chance(40)
      ? `<style${random.pick(['', '', ' media="print"', ' media="(min-width: 600px)"', ' title="day"', ' title="night"'])}>${sheet(random, 4)}</style>`
      : '';
    const doctype = random.chance(85) ? '<!DOCTYPE html>\n' : '';
    return `${doctype}<html>\n<head>\n<meta charset="utf-8">\n<link rel="stylesheet" href="kit.css">${block}\n</head>\n<body>\n${body(random)}\n</body>\n</html>\n`;
  };
  const files: Record<string, string> = {
    'index.html': page(),
    'kit.css': `${random.pick(IMPORTS)}${sheet(random, 9)}`,
    'more.css': sheet(random, 3),
    'tide.svg': '<svg xmlns="http://www.w3.org/2000/svg" width="4" height="4"/>',
  };
  if (random.chance(40)) files['other.html'] = page();
  return files;
}

const IDS = ['one', 'two'];

/** Statements of a script that gives, takes and toggles what selectors of these sites ask for. */
function statement(random: Random): string {
  const name = random.pick(CLASSES);
  const whom = random.pick([
    'document.body',
    'document.documentElement',
    `document.getElementById('${random.pick(IDS)}')`,
    `document.querySelector('${random.pick(TAGS)}')`,
    `document.querySelector('.${random.pick(CLASSES)}')`,
  ]);
  const stem = name.slice(0, -1);
  const built = stem === '' ? `'${name}'` : `'${stem}' + '${name.slice(-1)}'`;
  return random.pick([
    `${whom}?.classList.toggle('${name}')`,
    `${whom}?.classList.add('${name}')`,
    `${whom}?.classList.remove('${name}')`,
    `${whom}?.classList.add(${built})`,
    `if (${whom}) ${whom}.className += ' ${name}'`,
    `for (const one of document.querySelectorAll('${random.pick(TAGS)}')) one.classList.toggle('${name}')`,
    `[...document.querySelectorAll('.${random.pick(CLASSES)}')].forEach((one) => one.classList.remove('${name}'))`,
    `${whom}?.setAttribute('title', 'tide')`,
    `if (${whom}) ${whom}.lang = 'fr'`,
    `if (${whom}) ${whom}.id = '${random.pick(IDS)}'`,
  ]);
}

/** The same site with a script on each page, whose function `tide` does what the script does. */
export function scriptedSite(seed: number): Record<string, string> {
  const random = new Random(seed * 7 + 3);
  const files = site(seed);
  for (const [name, text] of Object.entries(files)) {
    if (!name.endsWith('.html')) continue;
    const script = random.times(1, 4, () => statement(random)).join(';\n');
    files[name] = text.replace(
      '\n</head>',
      () => `\n<script>function tide() {\n${script};\n}</script>\n</head>`,
    );
  }
  return files;
}
