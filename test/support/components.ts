// Random components, written as three frameworks want them, and rendered by the frameworks themselves.

import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { compileScript, compileStyle, parse } from '@vue/compiler-sfc';
import { build, type Metafile, type Plugin } from 'esbuild';
import { compile } from 'svelte/compiler';
import type { Random } from './generate.js';
import { PROJECT } from './site.js';

export type Framework = 'react' | 'vue' | 'svelte';

/** What components are shown with: names of conditions, and a list. */
export type Props = Readonly<Record<string, boolean | readonly string[]>>;

interface Tag {
  readonly name: string;
  readonly style: Readonly<Record<string, string>>;
  readonly classes: readonly string[];
  /** A class that code asks a module for, where there is one. */
  readonly asked: string | undefined;
  /** A class that comes with a condition. */
  readonly late: { readonly name: string; readonly when: string } | undefined;
  /** Style that code decides. */
  readonly computed: boolean;
  /** One entry of its style is computed. */
  readonly partly: boolean;
  readonly children: readonly Part[];
}

type Part =
  | { readonly kind: 'tag'; readonly tag: Tag }
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'if'; readonly when: string; readonly shown: Part; readonly otherwise: Part | undefined }
  | { readonly kind: 'list'; readonly tag: Tag }
  | { readonly kind: 'card'; readonly children: readonly Part[] };

const NAMES = ['div', 'p', 'span', 'section', 'h2', 'em', 'ul', 'b'];
const STYLES: readonly (readonly [string, string])[] = [
  ['color', 'red'],
  ['color', '#004466'],
  ['marginTop', '4px'],
  ['margin', '0'],
  ['padding', '4px'],
  ['fontWeight', '700'],
  ['lineHeight', '1.4'],
  ['width', '100px'],
];
const CONDITIONS = ['shut', 'late'];
const CLASSES = ['note', 'card', 'fare'];

export const RULES = [
  'p { color: green }',
  '.note { margin: 2px }',
  '.card p { padding: 8px }',
  'ul > li { color: navy }',
  '.is-late { font-weight: 300 }',
  '#main .fare { width: 50px }',
  'h2 + p { margin-top: 9px }',
  'p:first-child { line-height: 2 }',
];

const MODULE_RULES = [
  '.pier {\n  color: teal;\n}',
  '.note {\n  margin: 3px;\n}',
  'p.pier {\n  padding: 2px;\n}',
  '.pier > b,\n.note b {\n  color: olive;\n}',
  '.pier-wide {\n  width: 9px;\n}',
  ':global(.card) .pier {\n  line-height: 3;\n}',
];

/** What may stand in an element, so that parsers leave it where it is written. */
type Room = 'flow' | 'phrasing' | 'items';

function roomIn(name: string): Room {
  if (name === 'ul') return 'items';
  return /^(p|span|h2|em|b)$/.test(name) ? 'phrasing' : 'flow';
}

function nameFor(random: Random, room: Room): string {
  if (room === 'items') return 'li';
  return random.pick(room === 'phrasing' ? ['span', 'em', 'b'] : NAMES);
}

function tagOf(random: Random, depth: number, name: string): Tag {
  const style = Object.fromEntries(random.times(0, 3, () => random.pick(STYLES)));
  const room = roomIn(name);
  const text: readonly Part[] = room === 'items' ? [] : [{ kind: 'text', text: 'x' }];
  return {
    name,
    style: random.chance(70) ? style : {},
    classes: random.chance(40) ? [random.pick(CLASSES)] : [],
    asked: random.chance(30) ? random.pick(['pier', 'note']) : undefined,
    late: random.chance(25) ? { name: 'is-late', when: random.pick(CONDITIONS) } : undefined,
    computed: random.chance(8),
    partly: random.chance(20),
    children: depth <= 0 ? text : random.times(1, 3, () => partOf(random, depth - 1, room)),
  };
}

function partOf(random: Random, depth: number, room: Room): Part {
  const tag = (): Tag => tagOf(random, depth, nameFor(random, room));
  const kind = random.number(10);
  if (kind === 0 && room !== 'items') return { kind: 'text', text: random.pick(['quay', 'pier']) };
  if (kind === 1 || (room === 'items' && kind < 5)) return { kind: 'list', tag: tag() };
  if (kind <= 3) {
    const otherwise: Part | undefined = random.chance(50) ? { kind: 'tag', tag: tag() } : undefined;
    return { kind: 'if', when: random.pick(CONDITIONS), shown: { kind: 'tag', tag: tag() }, otherwise };
  }
  if (kind === 4 && depth > 0 && room === 'flow')
    return { kind: 'card', children: random.times(1, 2, () => partOf(random, depth - 1, 'flow')) };
  return { kind: 'tag', tag: tag() };
}

/** A component does not show itself. */
function withoutCards(tag: Tag): Tag {
  return {
    ...tag,
    children: tag.children.flatMap((part): Part[] => {
      if (part.kind === 'card') return [];
      if (part.kind === 'tag' || part.kind === 'list') return [{ ...part, tag: withoutCards(part.tag) }];
      return part.kind === 'if' ? [] : [part];
    }),
  };
}

/** A site of two components. Out: its files, and the path of the one that shows all. */
export function randomComponents(random: Random, framework: Framework): Record<string, string> {
  const app = tagOf(random, 3, 'main');
  const card = withoutCards(tagOf(random, 2, 'section'));
  const writer = WRITERS[framework];
  const sheet = [...new Set(random.times(2, 6, () => random.pick(RULES)))].join('\n');
  const scoped = (): string =>
    framework !== 'react' && random.chance(50)
      ? `\n<style${framework === 'vue' ? ' scoped' : ''}>\n${random.pick(RULES.slice(0, 4))}\n</style>\n`
      : '';
  const files: Record<string, string> = {
    'src/site.css': `body { margin: 0 }\n${sheet}\n`,
    [`src/App.${writer.ending}`]: writer.file(writer.tag(app), true) + scoped(),
    [`src/Card.${writer.ending}`]: writer.file(writer.tag(card, true), false) + scoped(),
  };
  if (framework !== 'react') return files;
  for (const name of ['App', 'Card']) {
    const file = `src/${name}.jsx`;
    const asks = random.chance(60) && /styles\./.test(files[file]!);
    files[file] = asks
      ? `import styles from './${name}.module.css';\n${files[file]}`
      : files[file]!.replace(/ className=\{styles\.\w+\}| ?\$\{styles\.\w+\}/g, '');
    if (asks)
      files[`src/${name}.module.css`] =
        `${[...new Set(random.times(1, 4, () => random.pick(MODULE_RULES)))].join('\n\n')}\n`;
  }
  return files;
}

interface Writer {
  readonly ending: string;
  readonly file: (markup: string, usesCard: boolean) => string;
  readonly tag: (tag: Tag, hasSlot?: boolean, more?: string) => string;
}

function css(style: Tag['style']): string {
  return Object.entries(style)
    .map(([key, value]) => `${key.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}: ${value}`)
    .join('; ');
}

/** In: what the padding is computed by, where it is. */
function object(style: Tag['style'], computed?: string): string {
  const entries = Object.entries(style).map(
    ([key, value]) => `${key}: ${/^[\d.]+$/.test(value) ? value : `'${value}'`}`,
  );
  return `{ ${[...entries, ...(computed === undefined ? [] : [`paddingLeft: ${computed}`])].join(', ')} }`;
}

const react: Writer = {
  ending: 'jsx',
  file: (markup, usesCard) =>
    `${usesCard ? "import './site.css';\nimport { Card } from './Card.jsx';\n" : ''}\nexport function ${usesCard ? 'App' : 'Card'}({ shut, late, list = [], children }) {\n  return (\n    ${markup}\n  );\n}\n`,
  tag: (tag, hasSlot = false, more = '') => {
    const late = tag.late && `\${${tag.late.when} ? '${tag.late.name}' : ''}`;
    const asked = tag.asked && `\${styles.${tag.asked}}`;
    const names = [...tag.classes, asked ?? [], late ?? []].flat();
    const written =
      names.length === 0
        ? ''
        : asked !== undefined && names.length === 1
          ? ` className={styles.${tag.asked}}`
          : asked === undefined && late === undefined
            ? ` className="${names.join(' ')}"`
            : ` className={\`${names.join(' ')}\`}`;
    const style = tag.computed
      ? ' style={{ ...(shut ? { color: "teal" } : {}) }}'
      : tag.partly
        ? ` style={${object(tag.style, "shut ? '3px' : '5px'")}}`
        : Object.keys(tag.style).length === 0
          ? ''
          : ` style={${object(tag.style)}}`;
    return `<${tag.name}${more}${written}${style}>${tag.children.map(reactPart).join('')}${hasSlot ? '{children}' : ''}</${tag.name}>`;
  },
};

function reactPart(part: Part): string {
  switch (part.kind) {
    case 'text':
      return part.text;
    case 'tag':
      return react.tag(part.tag);
    case 'card':
      return `<Card shut={shut}>${part.children.map(reactPart).join('')}</Card>`;
    case 'list':
      return `{list.map((one) => (${react.tag(part.tag, false, ' key={one}')}))}`;
    case 'if':
      return part.otherwise === undefined
        ? `{${part.when} && ${reactPart(part.shown)}}`
        : `{${part.when} ? ${reactPart(part.shown)} : ${reactPart(part.otherwise)}}`;
  }
}

const vue: Writer = {
  ending: 'vue',
  file: (markup, usesCard) =>
    `<template>\n  ${markup}\n</template>\n<script setup>\n${usesCard ? "import './site.css';\nimport Card from './Card.vue';\n" : ''}defineProps(['shut', 'late', 'list']);\n</script>\n`,
  tag: (tag, hasSlot = false, more = '') => {
    const names = tag.classes.length === 0 ? '' : ` class="${tag.classes.join(' ')}"`;
    const late = tag.late === undefined ? '' : ` :class="{ '${tag.late.name}': ${tag.late.when} }"`;
    const style = tag.computed
      ? ' :style="shut ? { color: \'teal\' } : {}"'
      : tag.partly
        ? ` style="${css(tag.style)}" :style="{ paddingLeft: shut ? '3px' : null }"${tag.name === 'p' ? ' v-show="late"' : ''}`
        : Object.keys(tag.style).length === 0
          ? ''
          : tag.style.color === 'red'
            ? ` :style="${object(tag.style).replace(/lineHeight: 1\.4|fontWeight: 700/g, (one) => one.replace(/: (.*)/, ": '$1'"))}"`
            : ` style="${css(tag.style)}"`;
    return `<${tag.name}${more}${names}${late}${style}>${tag.children.map((one) => vuePart(one)).join('')}${hasSlot ? '<slot/>' : ''}</${tag.name}>`;
  },
};

function vuePart(part: Part, more = ''): string {
  switch (part.kind) {
    case 'text':
      return part.text;
    case 'tag':
      return vue.tag(part.tag, false, more);
    case 'card':
      return `<Card :shut="shut">${part.children.map((one) => vuePart(one)).join('')}</Card>`;
    case 'list':
      return vue.tag(part.tag, false, ' v-for="one in list" :key="one"');
    case 'if':
      return `${vuePart(part.shown, ` v-if="${part.when}"`)}${part.otherwise === undefined ? '' : vuePart(part.otherwise, ' v-else')}`;
  }
}

const svelte: Writer = {
  ending: 'svelte',
  file: (markup, usesCard) =>
    `<script>\n${usesCard ? "  import './site.css';\n  import Card from './Card.svelte';\n" : ''}  export let shut = false;\n  export let late = false;\n  export let list = [];\n</script>\n\n${markup}\n`,
  tag: (tag, hasSlot = false) => {
    const { late, classes } = tag;
    const names =
      late === undefined || classes.length === 0
        ? (classes.length === 0 ? '' : ` class="${classes.join(' ')}"`) +
          (late === undefined ? '' : ` class:${late.name}={${late.when}}`)
        : ` class="${classes.join(' ')} {${late.when} ? '${late.name}' : ''}"`;
    const style = tag.computed
      ? ` style="${css(tag.style)}" style:color={shut ? "teal" : "olive"}`
      : tag.partly
        ? ` style="${css(tag.style)}${Object.keys(tag.style).length === 0 ? '' : '; '}padding-left: {shut ? 3 : 5}px"`
        : Object.keys(tag.style).length === 0
          ? ''
          : ` style="${css(tag.style)}"`;
    return `<${tag.name}${names}${style}>${tag.children.map(sveltePart).join('')}${hasSlot ? '<slot />' : ''}</${tag.name}>`;
  },
};

function sveltePart(part: Part): string {
  switch (part.kind) {
    case 'text':
      return part.text;
    case 'tag':
      return svelte.tag(part.tag);
    case 'card':
      return `<Card {shut}>${part.children.map(sveltePart).join('')}</Card>`;
    case 'list':
      return `{#each list as one}${svelte.tag(part.tag)}{/each}`;
    case 'if':
      return `{#if ${part.when}}${sveltePart(part.shown)}${part.otherwise === undefined ? '' : `{:else}${sveltePart(part.otherwise)}`}{/if}`;
  }
}

const WRITERS: Readonly<Record<Framework, Writer>> = { react, vue, svelte };

/** The pages that a site of components comes to, one for each of what it is shown with, with all sheets in the order of a bundle. */
export async function renderComponents(
  site: string,
  framework: Framework,
  shown: readonly Props[],
): Promise<string[]> {
  const styles = new Map<string, string[]>();
  const entry = `src/App.${WRITERS[framework].ending}`;
  const render = {
    react: `import { createElement } from 'react'; import { renderToStaticMarkup } from 'react-dom/server'; import { App } from './${entry}'; export default (props) => renderToStaticMarkup(createElement(App, props));`,
    vue: `import { createSSRApp } from 'vue'; import { renderToString } from 'vue/server-renderer'; import App from './${entry}'; export default (props) => renderToString(createSSRApp(App, props));`,
    svelte: `import { render } from 'svelte/server'; import App from './${entry}'; export default (props) => render(App, { props }).body;`,
  }[framework];
  const result = await build({
    stdin: { contents: render, resolveDir: site },
    bundle: true,
    write: false,
    metafile: true,
    absWorkingDir: site,
    format: 'cjs',
    platform: 'node',
    jsx: 'automatic',
    logLevel: 'silent',
    define: { 'process.env.NODE_ENV': '"production"' },
    nodePaths: [path.join(PROJECT, 'node_modules')],
    plugins: [compilers(styles)],
  });
  const file = path.join(site, `.rendered-${process.hrtime.bigint()}.cjs`);
  writeFileSync(file, result.outputFiles[0]!.text);
  const loaded: { default: { default: (props: Props) => string | Promise<string> } } = await import(
    pathToFileURL(file).href
  );
  const sheets = inOrder(result.metafile.inputs).flatMap(
    (file) => styles.get(path.resolve(site, file)) ?? [],
  );
  const pages: string[] = [];
  for (const props of shown) {
    const body = await loaded.default.default(props);
    pages.push(
      `<!DOCTYPE html>\n<html><head><title>x</title>\n${sheets.map((text) => `<style>${text}</style>`).join('\n')}\n</head><body><div id="main">${body.replace(/<!--[\s\S]*?-->/g, '')}</div></body></html>\n`,
    );
  }
  return pages;
}

/** Files in the order in which a bundle puts their styles: behind those of what they import. */
function inOrder(inputs: Metafile['inputs']): string[] {
  const found = new Set<string>();
  const seen = new Set<string>();
  const visit = (file: string): void => {
    if (seen.has(file)) return;
    seen.add(file);
    for (const { path: other } of inputs[file]?.imports ?? []) visit(other);
    found.add(file);
  };
  visit('<stdin>');
  return [...found];
}

/** The frameworks' compilers in a bundle. In: where the texts of styles go, by the file that brings them. */
function compilers(styles: Map<string, string[]>): Plugin {
  return {
    name: 'components',
    setup: (bundle) => {
      bundle.onLoad({ filter: /\.module\.css$/ }, async ({ path: file }) => {
        const { readFile } = await import('node:fs/promises');
        const base = path.basename(file, '.module.css');
        const names = new Map<string, string>();
        const text = (await readFile(file, 'utf8')).replace(
          /:global\(([^)]*)\)|\.([a-z][\w-]*)/gi,
          (whole: string, plain: string | undefined, name: string) => {
            if (plain !== undefined) return plain;
            if (/^\d/.test(name)) return whole;
            names.set(name, `${base}_${name}__x1`);
            return `.${names.get(name)}`;
          },
        );
        styles.set(file, [text]);
        return { contents: `export default ${JSON.stringify(Object.fromEntries(names))};`, loader: 'js' };
      });
      bundle.onLoad({ filter: /\.css$/ }, async ({ path: file }) => {
        const { readFile } = await import('node:fs/promises');
        styles.set(file, [await readFile(file, 'utf8')]);
        return { contents: '', loader: 'js' };
      });
      bundle.onLoad({ filter: /\.vue$/ }, async ({ path: file }) => {
        const { readFile } = await import('node:fs/promises');
        const { descriptor } = parse(await readFile(file, 'utf8'), { filename: file });
        const id = path.basename(file, '.vue').toLowerCase();
        const blocks = descriptor.styles.map(
          ({ content, scoped }) =>
            compileStyle({ source: content, filename: file, id: `data-v-${id}`, scoped: scoped ?? false })
              .code,
        );
        styles.set(file, blocks);
        const script = compileScript(descriptor, {
          id,
          inlineTemplate: true,
          genDefaultAs: 'made',
          templateOptions: {
            ssr: true,
            ssrCssVars: [],
            // Always, so that a block that is new brings no attribute.
            scoped: true,
            compilerOptions: { scopeId: `data-v-${id}` },
          },
        });
        return {
          contents: `${script.content}\nmade.__scopeId = 'data-v-${id}';\nexport default made;`,
          loader: 'js',
          resolveDir: path.dirname(file),
        };
      });
      bundle.onLoad({ filter: /\.svelte$/ }, async ({ path: file }) => {
        const { readFile } = await import('node:fs/promises');
        const { js, css: own } = compile(await readFile(file, 'utf8'), {
          generate: 'server',
          css: 'external',
          filename: path.basename(file),
        });
        if (own !== null) styles.set(file, [own.code]);
        return { contents: js.code, loader: 'js', resolveDir: path.dirname(file) };
      });
    },
  };
}
