// What is read of components, and where a class may be put into code.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  askedName,
  blocksWith,
  type ComponentNode,
  classAttribute,
  classAttributeOf,
  classPlace,
  readComponent,
} from '../../../../src/core/read/components/index.js';
import { hasTemplateText, mayHaveOf, parsePage } from '../../../../src/core/read/markup/index.js';

/** Elements of a file as `name.class+mayHave`, `*` where any class may be there, nested ones in brackets. */
function shape(path: string, text: string): string {
  const show = (node: ComponentNode): string => {
    if (node.kind === 'text') return '';
    const written = node.attributes.find(({ name }) => name === 'class')?.value ?? '';
    const sure = node.engine?.classes ?? written.split(/\s+/).filter((one) => one !== '');
    const may =
      node.engine === undefined
        ? ''
        : node.engine.mayHave === undefined
          ? '*'
          : node.engine.mayHave.map((one) => `+${one}`).join('');
    const inside = node.children
      .map(show)
      .filter((one) => one !== '')
      .join(' ');
    return `${node.name}${sure.map((one) => `.${one}`).join('')}${may}${node.isOpen ? '…' : ''}${inside === '' ? '' : `(${inside})`}`;
  };
  const roots = readComponent(path, text)
    ?.roots.map(show)
    .filter((one) => one !== '');
  return roots === undefined ? 'not read' : roots.join(' | ');
}

/** A template literal. In: `$(x)` for what is put in. */
const template = (text: string): string =>
  `\`${text.replace(/\$\(([^)]*)\)/g, (_, code: string) => ['$', '{', code, '}'].join(''))}\``;

const jsx = (markup: string): string => shape('a.jsx', `export const A = () => ${markup};`);

test('elements of JSX, what may come among their children, and what stands in components', () => {
  assert.equal(jsx('<p className="a b">x<br/></p>'), 'p.a.b(br)');
  assert.equal(jsx('<ul>{list.map((one) => <li key={one}>{one}</li>)}</ul>'), 'ul…(li…)');
  assert.equal(jsx('<div>{a ? <p/> : <b/>}{c && <i/>}</div>'), 'div…(p b i)');
  assert.equal(jsx('<div><Box title={<h2/>}><p/></Box></div>'), 'div… | h2 | p');
  assert.equal(jsx('<><p/><b/></>'), 'p | b');
  assert.equal(
    jsx('<ul>{list.map((one) => { if (one) return <li/>; return <li className="b"/>; })}</ul>'),
    'ul…(li li.b)',
  );
  assert.equal(
    shape('a.tsx', 'const a = <T,>(x: T) => x as unknown as Array<string>; export const B = () => <p/>;'),
    'p',
  );
  assert.equal(shape('a.jsx', 'const a = <p>;'), 'not read');
});

test('classes that code decides: those that are sure, those that may be there, and where any could be', () => {
  const of = (code: string): string => jsx(`<p className={${code}}/>`).slice(1);
  assert.equal(of("'a b'"), '.a.b');
  assert.equal(of("x ? 'a c' : 'b c'"), '.c+a+b');
  assert.equal(of("x && 'a'"), '+a');
  assert.equal(of(template('a $(x ? "b" : "")')), '.a+b');
  assert.equal(of(template('a-$(x)')), '*');
  assert.equal(of("'a ' + (x ? 'b' : 'c')"), '.a+b+c');
  assert.equal(of("clsx('a', x && 'b', { c: y, d: true })"), '.a.d+b+c');
  assert.equal(of("['a', x ? 'b' : null].filter(Boolean).join(' ')"), '+a+b');
  assert.equal(of('styles.a'), '*');
  assert.equal(jsx('<p {...rest}/>'), 'p*');
});

test('elements of the three other frameworks', () => {
  assert.equal(
    shape(
      'a.vue',
      '<template><main><p v-if="a" class="b" :class="{ c: d }">{{ e }}</p><Box><i/></Box></main></template>',
    ),
    'main*…(p.b+c…) | i',
  );
  assert.equal(
    shape(
      'a.svelte',
      "{#if a}<p class=\"b {c ? 'd' : ''}\" class:e={f}>x</p>{:else}<b/>{/if}<Box><i {...g}/></Box>",
    ),
    'p.b+d+e | b | i*',
  );
  assert.equal(
    shape(
      'a.astro',
      '---\nconst a = 1 < 2;\n---\n<p class="b">{a && <b class:list={["c", { d: a }]}>x</b>}</p><Box><i/></Box>',
    ),
    'p.b…(b.c+d) | i',
  );
});

/** The style of the first element, as the model has it. */
function styleOf(path: string, text: string): string | undefined {
  return parsePage(path, text).elements.find(({ style }) => style !== undefined)?.style;
}

test('a style that is an object of literals is the text that the framework makes of it', () => {
  const of = (object: string): string | undefined => styleOf('a.jsx', `const a = <p style={${object}}/>;`);
  assert.equal(
    of('{ marginTop: 6, lineHeight: 1.4, color: "red", WebkitLineClamp: 2 }'),
    'margin-top: 6px; line-height: 1.4; color: red; -webkit-line-clamp: 2',
  );
  assert.equal(of('{ margin: 0, "--gap": 4, left: -2 }'), 'margin: 0; --gap: 4; left: -2px');
  for (const computed of [
    '{ color: x }',
    '{ ...rest, color: "red" }',
    'style',
    '{ color: "red !important" }',
  ])
    assert.ok(hasTemplateText(of(computed) ?? ''), computed);
  // What code comes to is marked, and the rest is read.
  assert.equal(
    of('{ color: "red", width: w + "%", top: w }'),
    'color: red; width: \u2060w + "%"\u2060; top: \u2060w\u2060',
  );
  assert.equal(
    styleOf('a.vue', '<template><p :style="{ lineHeight: \'1.4\' }"/></template>'),
    'line-height: 1.4',
  );
});

test('a root of a component may be given classes; one inside may not', () => {
  const page = parsePage('a.vue', '<template><main><p class="a"/></main></template>');
  assert.deepEqual(page.elements.map(mayHaveOf), [undefined, []]);
});

test('blocks of components: scoped, shared, and those that cannot be read', () => {
  const blocks = (path: string, text: string) =>
    blocksWith(readComponent(path, text)!, path, text, undefined).map(
      ({ isScoped, unread }) => unread ?? (isScoped ? 'scoped' : 'shared'),
    );
  const vue = '<template><p/></template>';
  assert.deepEqual(blocks('a.vue', `${vue}<style scoped>p {}</style><style>p {}</style>`), [
    'scoped',
    'shared',
  ]);
  assert.match(blocks('a.vue', `${vue}<style lang="less">p {}</style>`)![0]!, /written in less/);
  assert.match(blocks('a.vue', `${vue}<style scoped>:deep(p) {}</style>`)![0]!, /reaches out/);
  assert.deepEqual(blocks('a.vue', '<template functional><p/></template><style>p {}</style>'), ['shared']);
  assert.deepEqual(blocks('a.svelte', '<p/><style>p {}</style>'), ['scoped']);
  assert.deepEqual(blocks('a.astro', '<p/><style is:global>p {}</style>'), ['shared']);
  const styled = parsePage('a.jsx', 'export const A = () => <div><style>{`p {}`}</style></div>;');
  assert.match(styled.unread ?? '', /style block/);
  const written = parsePage('a.jsx', 'export const A = () => { ref.style.color = "red"; return <p/>; };');
  assert.match(written.unread ?? '', /writes styles/);
});

test('a class that code asks a module for is none that a name could be', () => {
  const from = "import styles from './a.module.css';\nexport const A = () => ";
  const asked = (code: string, more = ''): string =>
    shape('x/a.jsx', `${from}<p className={${code}}/>;${more}`);
  const any = '+*@x/a.module.css';
  assert.equal(asked('styles.note'), `p.note@x/a.module.css${any}`);
  assert.equal(asked("styles['so-so']"), `p.so-so@x/a.module.css${any}`);
  assert.equal(asked(template('card $(styles.note)')), `p.card.note@x/a.module.css${any}`);
  assert.equal(asked('clsx(b && styles.note)'), `p+note@x/a.module.css${any}`);
  assert.equal(asked('cx({ [styles.note]: b })'), `p+note@x/a.module.css${any}`);
  assert.equal(
    asked('styles.fareTable'),
    'p.fareTable@x/a.module.css+fare-table@x/a.module.css+fare_table@x/a.module.css+*@x/a.module.css',
  );
  assert.equal(asked('styles[b]'), 'p*', 'nobody knows which');
  assert.equal(asked('styles.note', '\nuse(styles);'), 'p*', 'somebody may change it');
  assert.equal(asked('other.note'), 'p*');
});

test('a class is put where code writes classes', () => {
  const put = (code: string, names = ['new']): string | undefined => {
    const text = `<p className={${code}}/>`;
    const place = classPlace(text, { start: 3, end: text.length - 2 });
    return place && text.slice(14, place.start) + place.text(names) + text.slice(place.end, -3);
  };
  assert.equal(put("'a'"), "'a new'");
  assert.equal(put(template('a $(b ? "c" : "")')), template('a $(b ? "c" : "") new'));
  assert.equal(put("clsx('a', b && 'c')"), "clsx('a', b && 'c', 'new')");
  assert.equal(put('cx()'), "cx('new')");
  assert.equal(put('styles.a'), template('$(styles.a) new'));
  const asked = [askedName('styles', 'far'), 'near', askedName('styles', 'so-so')];
  assert.equal(put("'a'", asked), template("a $(styles.far) near $(styles['so-so'])"));
  assert.equal(put(template('$(b)'), asked), template("$(b) $(styles.far) near $(styles['so-so'])"));
  assert.equal(put('clsx(a)', asked), "clsx(a, 'near', styles.far, styles['so-so'])");
  assert.equal(put('styles.a', asked.slice(0, 1)), template('$(styles.a) $(styles.far)'));
  assert.equal(classAttribute('className', asked.slice(0, 1)), 'className={styles.far}');
  assert.equal(
    classAttribute('className', ['near', asked[0]!]),
    `className={${template('near $(styles.far)')}}`,
  );
  assert.equal(put("a ? 'b' : 'c'"), undefined);
  assert.equal(put('clsx(a)(b)'), undefined);
  assert.equal(classAttributeOf('a.tsx', '<p className="a"/>'), 'className');
  assert.equal(classAttributeOf('a.tsx', '<p class="a"/>'), 'class');
  assert.equal(classAttributeOf('a.vue', '<p/>'), 'class');
});
