import assert from 'node:assert/strict';
import { test } from 'node:test';
import { type StyledTag, type StyledTagOptions, styledTagsOf } from '../../../src/core/stock/index.js';
import { modelOf, scriptsOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

function styledTags(
  body: string,
  options: Partial<StyledTagOptions> = {},
  more: Record<string, string> = {},
): StyledTag[] {
  const files = { 'index.html': htmlPage(body), ...more };
  return styledTagsOf(modelOf(files), scriptsOf(files), { pictureSizes: 'keep', ...options });
}

/** What each unit is taken out of, says, and why it stays. */
const movablesOf = (...args: Parameters<typeof styledTags>): string[] =>
  styledTags(...args).flatMap(({ movables }) =>
    movables.map(
      ({ key, from, objection }) =>
        `${from.kind === 'attributes' ? from.names.join('+') : from.kind}: ${key}${objection === undefined ? '' : ` (${objection.kind})`}`,
    ),
  );

test('old attributes are units beside the declarations of the style', () => {
  assert.deepEqual(
    movablesOf('<table><tr><td align="center" style="top: 0; left: 0" bgcolor="#DEF">x</table>'),
    [
      'style: top:0',
      'style: left:0',
      'align: text-align:-webkit-center',
      'bgcolor: background-color:#ddeeff',
    ],
  );
});

test('what no browser takes stays for a person to mend; beside what some take it goes along', () => {
  assert.deepEqual(movablesOf('<p style="overflow-x: hide; cursor: hand; cursor: pointer; algin: left">'), [
    'style: overflow-x:hide (unfitting value)',
    'style: cursor:hand; cursor:pointer',
    'style: algin:left (not understood)',
  ]);
});

test('attributes that depend on each other go together', () => {
  assert.deepEqual(movablesOf('<table border="2" bordercolor="red"><tr><td>x</table>'), [
    'border+bordercolor: border-width:2px; border-style:solid; border-color:#ff0000 cells border-width:1px; border-style:solid; border-color:inherit',
  ]);
  assert.deepEqual(movablesOf('<img width="4" height="3">', { pictureSizes: 'move' }), [
    'width+height: width:4px; aspect-ratio:auto 4/3; height:3px',
  ]);
  assert.deepEqual(movablesOf('<table border="1" rules="all"><tr><td>x</table>'), [
    'border+rules:  (no exact CSS)',
  ]);
});

test('a table says something of its cells, and of itself', () => {
  const [padding] = styledTags('<table cellpadding="4"><tr><td>x</table>')[0]!.movables;
  assert.deepEqual(
    [padding?.declarations.length, padding?.cells?.map(({ property, value }) => `${property}: ${value}`)],
    [0, ['padding: 4px']],
  );
});

test('what is no styling, or has no CSS that says the same, is left alone', () => {
  assert.deepEqual(movablesOf('<p width="4" lang="en" title="x">y'), []);
  assert.deepEqual(movablesOf('<fieldset><legend align="right">x</legend></fieldset>'), [
    'align:  (no exact CSS)',
  ]);
  assert.deepEqual(movablesOf('<img width="{{ w }}">'), ['width:  (no exact CSS)']);
  assert.deepEqual(movablesOf('<svg><rect width="4" fill="red"/></svg>'), []);
});

test('sizes of pictures keep their space; other attributes of a picture may go', () => {
  assert.deepEqual(movablesOf('<img width="4" height="3" hspace="2">'), [
    'width+height: width:4px; aspect-ratio:auto 4/3; height:3px (reserves space)',
    'hspace: margin-left:2px; margin-right:2px',
  ]);
});

test('outdated elements may get another name where they stand whole in the source, and no script names them', () => {
  assert.deepEqual(movablesOf('<center>x</center>'), ['name: text-align:-webkit-center']);
  assert.deepEqual(movablesOf('<font color="red">x</font>'), ['name: ', 'color: color:#ff0000']);
  assert.deepEqual(movablesOf('<p><font>x<p>y</font>')[0], 'name:  (no tag of its own)');
  assert.deepEqual(movablesOf('<div><font>x</div>')[0], 'name:  (no tag of its own)');
  assert.deepEqual(movablesOf('<font>x</font><script>$("font").hide()</script>'), [
    'name:  (named by a script)',
  ]);
  const quirks = styledTagsOf(modelOf({ 'q.html': '<html><body><font>x</font>' }), scriptsOf({}), {
    pictureSizes: 'keep',
  });
  assert.equal(quirks[0]?.movables[0]?.objection?.kind, 'no exact CSS');
});

test('a script that touches an attribute keeps it; a library does where the markup calls it', () => {
  const cell = (more = ''): string => `<table><tr><td bgcolor="red"${more}>x</table>`;
  const kept = (body: string, more: Record<string, string> = {}): boolean =>
    movablesOf(body, {}, more).some((movable) => movable.endsWith('(script touches)'));
  assert.equal(kept(cell()), false);
  assert.equal(kept(`${cell()}<script>cell.setAttribute('bgcolor', c)</script>`), true);
  assert.equal(kept(`${cell()}<script>cell.removeAttribute('align')</script>`), false);
  assert.equal(kept(`${cell()}<script>cell.bgColor = c</script>`), true);
  const library = { 'vendor/kit.js': '$(".lit").attr("bgcolor", "red")' };
  const use = '<script src="vendor/kit.js"></script>';
  assert.equal(kept(cell() + use, library), false);
  assert.equal(kept(cell(' class="lit"') + use, library), true);
});

test('one carrier stands for a tag, whatever number of elements it made', () => {
  const found = styledTags('<b style="top: 0"><p>x</b>y</p>');
  assert.equal(found.length, 1);
});

test('the same attributes on another page are the same units, addresses aside', () => {
  const files = {
    'a.html': htmlPage('<body background="m.png">'),
    'b/c.html': htmlPage('<body background="m.png">'),
  };
  const keys = styledTagsOf(modelOf(files), scriptsOf(files), { pictureSizes: 'keep' }).flatMap(
    ({ movables }) => movables.map(({ key }) => key),
  );
  assert.equal(new Set(keys).size, keys.length);
});

const ADDRESSES: [name: string, style: string, kind: string][] = [
  ['an address with escapes', 'background: url(t\\69 de.png)', 'address with escapes'],
  ['an address outside of url()', 'background: image-set("tide.png" 1x)', 'address outside url()'],
  ['an address into its own page', 'fill: url(#tide)', 'address in its page'],
  ['an address in a custom property', '--tide: url(tide.png)', 'address in a custom property'],
];
for (const [name, style, kind] of ADDRESSES)
  test(`${name} stays where it is written`, () => {
    assert.match(
      movablesOf(`<p style='${style}'>x`)[0]!,
      new RegExp(`\\(${kind.replace(/[()]/g, '\\$&')}\\)$`),
    );
  });

test('a plain address may move', () => {
  assert.doesNotMatch(movablesOf('<p style="background: url(tide.png)">x')[0]!, /\(address/);
});

test('an outdated element stays where a script picks out what it would become', () => {
  const script = (text: string): string => `<center>x</center><script>${text}</script>`;
  assert.deepEqual(movablesOf(script("document.querySelector('div')")), [
    'name: text-align:-webkit-center (named by a script)',
  ]);
  assert.deepEqual(movablesOf(script("document.querySelector('ul')")), ['name: text-align:-webkit-center']);
  // A library's `div` is none of the page's.
  assert.deepEqual(
    movablesOf(
      '<center>x</center><script src="vendor/kit.js"></script>',
      {},
      { 'vendor/kit.js': "make('div')" },
    ),
    ['name: text-align:-webkit-center'],
  );
});
