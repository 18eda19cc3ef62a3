// Tags of sources, numbered and found again; edits of pages as edits of sources.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { SiteModel } from '../../../../src/core/cascade/index.js';
import { carryOver, markTags, SourcePlaces } from '../../../../src/core/edit/sources/index.js';
import { applyEdits, type Edit } from '../../../../src/core/edit/text/index.js';
import {
  countMarks,
  parsePage,
  sourceNumberOf,
  withoutMarks,
} from '../../../../src/core/read/markup/index.js';

/** What is numbered in a source: the names of the tags. */
function numbered(path: string, text: string): string[] {
  return markTags(path, text, 1).tags.map(({ name }) => name);
}

test('every tag of a source is numbered, whatever stands in it and around it', () => {
  assert.deepEqual(numbered('a.njk', '<p class="{{ a > b }}"><b>x</b></p>{# <i> #}<!-- <u> -->'), ['p', 'b']);
  assert.deepEqual(numbered('a.ejs', '<% if (a < b) { %><p title="<%= x > y %>">x</p><% } %>'), ['p']);
  assert.deepEqual(numbered('a.md', '---\ntitle: A\n---\nText, <em style="color: red">red</em>.'), ['em']);
  assert.deepEqual(numbered('a.html', '<script>"<p>"</script><style>p {}</style><p>x'), ['style', 'p']);
  assert.deepEqual(numbered('a.svelte', '{#if a}<p class={a > b ? "x" : "y"} {...rest}>x</p>{/if}'), ['p']);
  assert.deepEqual(numbered('a.astro', '---\nconst a = 1;\n---\n<p style={`a: b>`}>x</p>'), ['p']);
  assert.deepEqual(numbered('a.vue', '<template>\n<p :class="{ a: b > c }" @click="d"/></template>'), ['p']);
});

test('without its marks a text is what it was', () => {
  const sources = {
    'a.html': '<br/><p>x</p><img src="a.png"/><p\nclass=a>y</p>',
    'a.vue': '<template><p/><input class="a" /></template>',
  };
  for (const [path, text] of Object.entries(sources)) {
    const { text: marked, tags } = markTags(path, text, 1);
    assert.notEqual(marked, text);
    assert.equal(withoutMarks(marked), text);
    for (const { range, name } of tags) assert.ok(text.slice(range.start).startsWith(`<${name}`));
  }
});

test('what a page has of a mark is no attribute in the model', () => {
  const page = parsePage('a.html', markTags('a.html', '<p class="a">x</p><a href="/">y</a>', 7).text);
  const tags = page.elements.filter(({ name }) => name === 'p' || name === 'a');
  assert.deepEqual(
    tags.map(({ attributes }) => attributes.map(({ name }) => name)),
    [['class'], ['href']],
  );
  assert.deepEqual(
    tags.map(({ tag }) => sourceNumberOf(page, tag)),
    [7, 8],
  );
});

test('a number that was seen before is told', () => {
  const seen = new Set<number>();
  const text = markTags('a.html', '<p>x</p>', 3).text;
  assert.match(countMarks(text + text, seen).text, /=3>x<\/p><p data-acervus-origin=3\+>x/);
  assert.match(countMarks(text, seen).text, /=3\+>/);
});

/** A site of pages that an imagined build makes of one source; each page is the source with words put in. */
function builtOf(source: string, pages: readonly ((marked: string) => string)[]) {
  const { text, tags } = markTags('source.njk', source, 1);
  const seen = new Set<number>();
  const texts = new Map(pages.map((make, at) => [`page-${at}.html`, countMarks(make(text), seen).text]));
  const sourcePlaces = new SourcePlaces({
    tags: new Map(tags.map((tag, at) => [at + 1, tag])),
    sources: new Map([['source.njk', source]]),
    renderings: new Map(tags.map((_, at) => [at + 1, { tags: pages.length, pages: pages.length }])),
    sheets: new Map([['css/site.css', 'assets/site.css']]),
  });
  const model = new SiteModel({
    pages: texts,
    components: new Set(),
    sheets: new Map([['css/site.css', 'p {}']]),
    copies: new Map(),
  });
  return { model, sourcePlaces };
}

/** Replaces a text on every page, and says what becomes of the source. */
function carried(
  source: string,
  pages: readonly ((marked: string) => string)[],
  from: string | RegExp,
  to: string,
) {
  const { model, sourcePlaces } = builtOf(source, pages);
  const edits = new Map<string, Edit[]>();
  for (const page of model.pages) {
    const own = [...page.text.matchAll(new RegExp(from, 'g'))].map(({ 0: whole, index }) => ({
      start: index,
      end: index + whole.length,
      text: to,
    }));
    edits.set(page.path, own);
  }
  const done = carryOver(model, sourcePlaces, edits, () => undefined);
  return { ...done, text: applyEdits(source, done.edits.get('source.njk') ?? []) };
}

const asIs = (text: string): string => text;

test('a style that leaves a tag on every page leaves the tag of the source, and a class takes its place', () => {
  const source = '<p style="color: red; margin: 0">{{ day }}</p>\n<b>x</b>';
  const done = carried(source, [asIs, asIs], 'style="color: red; margin: 0"', 'class="note"');
  assert.equal(done.text, '<p class="note">{{ day }}</p>\n<b>x</b>');
  assert.equal(done.refused.size + done.stray.length, 0);
});

test('a part of a style leaves the rest as it is written', () => {
  const done = carried(
    '<p class="a" style="color:red;  margin: 0 ;padding:1px">x</p>',
    [asIs],
    /margin: 0 ;/,
    '',
  );
  assert.equal(done.text, '<p class="a" style="color:red;  padding:1px">x</p>');
  const last = carried('<p style="color: red; margin: 0;">x</p>', [asIs], / margin: 0;/, '');
  assert.equal(last.text, '<p style="color: red;">x</p>');
});

test('a class is put behind those that an engine writes', () => {
  const source = '<p class="a {{ state }}" style="color: red">x</p>';
  const open = (text: string): string => text.replace('{{ state }}', 'open');
  const shut = (text: string): string => text.replace('{{ state }}', 'shut');
  const done = carried(source, [open, shut], /(?<=open|shut)" style="color: red"/, ' note"');
  assert.equal(done.text, '<p class="a {{ state }} note">x</p>');
});

test('what an engine writes stays, with the reason', () => {
  const source = '<p style="color: {{ colour }}; margin: 0">x</p>';
  const red = (text: string): string => text.replace('{{ colour }}', 'red');
  const beside = carried(source, [red], /; margin: 0/, '');
  assert.equal(beside.text, '<p style="color: {{ colour }}">x</p>');
  const written = carried(source, [red], /color: red; /, '');
  assert.equal(written.text, source);
  assert.deepEqual([...written.refused.values()], [{ kind: 'written by code' }]);
  const whole = carried(
    '<p style="{{ style }}; margin: 0">x</p>',
    [(text) => text.replace('{{ style }}', 'top: 0')],
    /; margin: 0/,
    '',
  );
  assert.deepEqual([...whole.refused.values()], [{ kind: 'written by code' }]);
});

test('a tag whose pages would need different changes stays', () => {
  const { model, sourcePlaces } = builtOf('<p style="margin: 0">x</p>', [asIs, asIs]);
  const at = model.page('page-0.html')!.text.indexOf(' style=');
  const edits = new Map([['page-0.html', [{ start: at, end: at + ' style="margin: 0"'.length, text: '' }]]]);
  const done = carryOver(model, sourcePlaces, edits, () => undefined);
  assert.deepEqual([...done.refused.values()], [{ kind: 'renderings differ' }]);
  assert.equal(done.edits.size, 0);
});

test('an edit that no tag of a source takes is told, and one of a copied sheet is made in its source', () => {
  const { model, sourcePlaces } = builtOf('<p>x</p>', [asIs]);
  const edits = new Map([
    ['page-0.html', [{ start: 0, end: 0, text: '<style>p {}</style>' }]],
    ['css/site.css', [{ start: 0, end: 4, text: '' }]],
    ['css/new.css', [{ start: 0, end: 0, text: 'b {}' }]],
  ]);
  const done = carryOver(model, sourcePlaces, edits, (file) => `assets/${file.split('/').at(-1)}`);
  assert.deepEqual(done.stray, ['page-0.html']);
  assert.deepEqual([...done.edits.keys()], ['assets/site.css', 'assets/new.css']);
});

test('tags that are made of one come to one tag', () => {
  const { model, sourcePlaces } = builtOf('<p>x</p>', [asIs, asIs, asIs]);
  const shares = model.pages.map((page) => {
    const tag = page.elements.find(({ name }) => name === 'p')?.tag;
    return sourcePlaces.shareOf(page, tag);
  });
  assert.equal(
    shares.reduce((all, one) => all + one, 0),
    1,
  );
  assert.deepEqual(sourcePlaces.placeOfNumber(1), { path: 'source.njk', line: 1, column: 1 });
});

/** The source of one tag after an edit of the pages that it makes. In: the ending of its file. */
function edited(ending: string, source: string, from: string | RegExp, to: string): string {
  const path = `source.${ending}`;
  const { text, tags } = markTags(path, source, 1);
  const rendered = text
    .replaceAll('className', 'class')
    .replace(/style=\{\{([^}]*)\}\}/g, (_, object: string) => {
      const said = object
        .trim()
        .replace(/'/g, '')
        .replace(/, /g, '; ')
        .replace('marginTop: 4', 'margin-top: 4px');
      return `style="${said}"`;
    });
  const model = new SiteModel({
    pages: new Map([['a.html', rendered]]),
    components: new Set(),
    sheets: new Map(),
    copies: new Map(),
  });
  const sourcePlaces = new SourcePlaces({
    tags: new Map(tags.map((tag, at) => [at + 1, tag])),
    sources: new Map([[path, source]]),
    renderings: new Map(),
    sheets: new Map(),
  });
  const page = model.page('a.html')!;
  const edits = [...page.text.matchAll(new RegExp(from, 'g'))].map(({ 0: whole, index }) => ({
    start: index,
    end: index + whole.length,
    text: to,
  }));
  const done = carryOver(model, sourcePlaces, new Map([['a.html', edits]]), () => undefined);
  return done.refused.size > 0 ? 'refused' : applyEdits(source, done.edits.get(path) ?? []);
}

test('classes leave a source where they are words in it, and go with the last of them', () => {
  assert.equal(edited('html', '<p class="a b c" id="x">x</p>', ' b', ''), '<p class="a c" id="x">x</p>');
  assert.equal(edited('html', '<p class="b" id="x">x</p>', ' class="b"', ''), '<p id="x">x</p>');
  assert.equal(edited('html', '<p class="a b">x</p>', 'a b', 'a new'), '<p class="a new">x</p>');
  assert.equal(edited('njk', '<p class="a {{ x }} b">x</p>', ' b"', '"'), 'refused');
});

test('old attributes go, and a class takes the place of the first', () => {
  assert.equal(
    edited(
      'html',
      '<td align="right" nowrap valign="top">x</td>'.replace(/^/, '<table><tr>'),
      'align="right" nowrap',
      'class="right"',
    ),
    '<table><tr><td class="right" valign="top">x</td>',
  );
  assert.equal(edited('html', '<br clear=all><p>x</p>', ' clear=all', ''), '<br><p>x</p>');
});

test('entries leave an object in code, with their commas', () => {
  const source = "const a = <p style={{ color: 'red', marginTop: 4, padding: '1px' }}>x</p>;";
  assert.equal(edited('jsx', source, / margin-top: 4px;/, ''), source.replace(' marginTop: 4,', ''));
  assert.equal(edited('jsx', source, /; padding: 1px/, ''), source.replace(", padding: '1px'", ''));
  assert.equal(
    edited('jsx', source, /style="[^"]*"/, 'class="note"'),
    'const a = <p className="note">x</p>;',
  );
});
