import assert from 'node:assert/strict';
import { test } from 'node:test';
import { type OverrideInput, override, readWithin } from '../../../../src/core/change/override/index.js';
import { applyEdits } from '../../../../src/core/edit/text/index.js';
import { modelOf } from '../../../support/model.js';

const PAGE = (body: string, head = ''): string =>
  `<!DOCTYPE html>\n<html>\n<head>\n<link rel="stylesheet" href="kit.css">\n<link rel="stylesheet" href="shared.css">\n${head}</head>\n<body>\n${body}\n</body>\n</html>\n`;

interface Written {
  /** The shared sheet afterwards, in one line. */
  readonly sheet: string;
  readonly clean: boolean;
  readonly important: boolean;
}

function write(
  kit: string,
  body: string,
  selector: string,
  declaration: string,
  more: Partial<OverrideInput> & {
    readonly head?: string;
    readonly shared?: string;
    readonly files?: Record<string, string>;
  } = {},
): Written {
  const { head = '', shared: _shared, files = {}, ...options } = more;
  const sheet = more.shared ?? '';
  const model = modelOf({ 'index.html': PAGE(body, head), 'kit.css': kit, 'shared.css': sheet, ...files });
  const [property = '', value = ''] = declaration.split(/:\s*/);
  const result = override({
    model,
    partNames: {},
    selector,
    changes: [{ property, value, important: false }],
    within: { kind: 'site' },
    medium: undefined,
    everywhere: false,
    unreadDocuments: [],
    ...options,
    shared: 'shared.css',
  });
  if (result.kind !== 'planned') return { sheet: result.kind, clean: false, important: false };
  const text = applyEdits(sheet, result.edits.get('shared.css') ?? []);
  return {
    sheet: text.replace('/* part: overrides */', '').replace(/\s+/g, ' ').trim(),
    clean: result.proof.strays.length + result.unmet.length === 0,
    important: result.important,
  };
}

test('what stands behind the shared sheet is beaten by being more specific', () => {
  const { sheet, clean } = write('', '<p class="a">x</p>', '.a', 'color: teal', {
    head: '<style>.a { color: red }</style>\n',
  });
  assert.deepEqual([sheet, clean], ['body .a { color: teal; }', true]);
});

test('rules in layers and old attributes lose to anything', () => {
  const layered = write(
    '@layer kit { #top .a { color: red } }',
    '<div id="top"><p class="a">x</p></div>',
    'p',
    'color: teal',
  );
  assert.deepEqual([layered.sheet, layered.clean], ['p { color: teal; }', true]);
  const old = write('', '<table><tr><td bgcolor="red">x</table>', 'td', 'background-color: teal');
  assert.deepEqual([old.sheet, old.clean], ['td { background-color: teal; }', true]);
});

test('what nothing beats is told, not tried', () => {
  const body = '<p class="a" style="color: red !important">x</p>';
  assert.equal(write('', body, '.a', 'color: teal').sheet, 'impossible');
  assert.equal(
    write('@layer kit { .a { color: red !important } }', '<p class="a">x</p>', '.a', 'color: teal').sheet,
    'impossible',
  );
  assert.equal(write('', body, '.b', 'color: teal').sheet, 'nothing matches');
});

test('pseudo-elements, states and lists of selectors are meant as they are written', () => {
  const kit = '.a::before { content: "x"; color: red } .a:hover { color: red } .b { color: red }';
  const body = '<p class="a">x</p><p class="b">y</p>';
  assert.equal(write(kit, body, '.a::before', 'color: teal').sheet, '.a::before { color: teal; }');
  assert.equal(write(kit, body, '.a:hover', 'color: teal').sheet, '.a:hover { color: teal; }');
  const list = write(kit, body, '.a, .b', 'color: teal');
  assert.deepEqual([list.sheet, list.clean], ['.a, .b { color: teal; }', true]);
});

test('a rule of the platform for some of the elements gets a rule for those', () => {
  const kit = 'p { color: red } .kw-x.kw-x p { color: blue } p:hover { color: black }';
  const { sheet, clean } = write(
    kit,
    '<p class="a">x</p><div class="kw-x"><p>y</p></div>',
    'p',
    'color: teal',
  );
  assert.deepEqual([sheet, clean], ['p, .kw-x.kw-x p { color: teal; }', true]);
});

test('logical names, `all` and custom properties compete too', () => {
  const kit = '.a.a { margin-inline-start: 4px } .b.b { all: unset }';
  const one = write(kit, '<p class="a">x</p>', 'p', 'margin-left: 2px');
  assert.match(one.sheet, /margin-left: 2px; \}$/);
  assert.ok(one.clean);
  const all = write(kit, '<p class="b">x</p>', '.b', 'opacity: 0.5');
  assert.deepEqual([all.sheet, all.clean], ['.b.b { opacity: 0.5; }', true]);
  const token = write(':root { --tide: red }', '<p class="b">x</p>', ':root', '--tide: teal');
  assert.deepEqual([token.sheet, token.clean], [':root { --tide: teal; }', true]);
});

test('a page that does not link the shared sheet is linked, and not when what else stands there would change it', () => {
  const bare = PAGE('<p class="a">x</p><p class="c">y</p>').replace(
    '<link rel="stylesheet" href="shared.css">\n',
    '',
  );
  const files = { 'bare.html': bare };
  const linked = write('.a { color: red }', '<p class="a">x</p>', '.a', 'color: teal', { files });
  assert.ok(linked.clean);
  const apart = write('.a { color: red }', '<p class="a">x</p>', '.a', 'color: teal', {
    files,
    shared: '.c { color: lime; }\n',
  });
  assert.deepEqual([apart.sheet, apart.clean], ['.c { color: lime; } .a { color: teal; }', true]);
});

test('what is so already is not written', () => {
  const { sheet, clean } = write('.a { color: teal }', '<p class="a">x</p>', '.a', 'color: #008080');
  assert.deepEqual([sheet, clean], ['', true]);
});

test('how far it is meant to reach is read from what stands on the site', () => {
  const model = modelOf({
    'index.html': PAGE('<p class="box">x</p>').replace('<body>', '<body class="home">'),
    'fares/index.html': PAGE('<p>x</p>'),
  });
  const kind = (text: string | undefined): string => readWithin(text, model).kind;
  assert.deepEqual(
    [
      undefined,
      'site',
      'index.html',
      './fares/',
      'fares',
      'body.home',
      '.home',
      '.box',
      'body.away',
      '#top p',
    ].map(kind),
    [
      'site',
      'site',
      'page',
      'folder',
      'folder',
      'body class',
      'body class',
      'selector',
      'body class',
      'selector',
    ],
  );
});
