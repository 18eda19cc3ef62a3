import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { applyEdits, type Edit, planLink, reverseEdits } from '../../../../src/core/edit/text/index.js';
import { parsePage } from '../../../../src/core/read/markup/index.js';
import { adoptAll } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

test('reversed edits give the text back, for any edits', () => {
  const text = fc.string({ minLength: 1, maxLength: 60 });
  const cuts = fc.array(fc.tuple(fc.nat(60), fc.nat(8), fc.string({ maxLength: 5 })), { maxLength: 6 });
  fc.assert(
    fc.property(text, cuts, (before, raw) => {
      const edits: Edit[] = [];
      let at = 0;
      for (const [start, length, added] of [...raw].sort((a, b) => a[0] - b[0])) {
        const from = Math.min(Math.max(at, start), before.length);
        const to = Math.min(from + length, before.length);
        edits.push({ start: from, end: to, text: added });
        at = to + 1;
        if (at > before.length) break;
      }
      const after = applyEdits(before, edits);
      assert.equal(applyEdits(after, reverseEdits(before, edits)), before);
    }),
    { numRuns: 300 },
  );
});

test('edits that overlap are refused, unless both only take out', () => {
  const overlapping = [
    { start: 0, end: 3, text: 'x' },
    { start: 2, end: 4, text: '' },
  ];
  assert.throws(() => applyEdits('abcdef', overlapping), RangeError);
  const out = overlapping.map((edit) => ({ ...edit, text: '' }));
  assert.equal(applyEdits('abcdef', out), 'ef');
  assert.equal(applyEdits('ef', reverseEdits('abcdef', out)), 'abcdef');
});

/** The lines of the body after adoption; each line of `body` must hold one tag. */
function adopted(...body: string[]): string[] {
  // A paragraph without the style keeps it from becoming a rule on all of them.
  const { text } = adoptAll({ 'index.html': htmlPage([...body, '<p>', '<P CLASS="">'].join('\n')) });
  const lines = text('index.html').split('\n');
  const start = lines.indexOf('<body>') + 1;
  return lines.slice(start, start + body.length);
}

test('the class goes beside those that are there, in the quotes that are there', () => {
  assert.deepEqual(
    adopted(
      `<p class="a" style="opacity: .5">`,
      `<p style='opacity: .5' class='b c'>`,
      `<p class=d style="opacity: .5">`,
      `<p id=x style="opacity:.5;">`,
      `<p class style="opacity: .5">`,
      `<P CLASS="" STYLE="opacity: .5" >`,
    ),
    [
      `<p class="a text-faded">`,
      `<p class='b c text-faded'>`,
      `<p class="d text-faded">`,
      `<p id=x class="text-faded">`,
      `<p class="text-faded">`,
      `<P CLASS="text-faded" >`,
    ],
  );
});

test('what stays in the style attribute stays as it was written', () => {
  assert.deepEqual(
    adopted(
      `<p style="opacity: .5; width: 37%">`,
      `<p style="WIDTH:12% ;opacity:.5">`,
      `<p style="left: 3px; opacity: .5; top: 4px;">`,
      `<p style="opacity: .5">`,
    ),
    [
      `<p class="text-faded" style="width: 37%">`,
      `<p class="text-faded" style="WIDTH:12%">`,
      `<p class="text-faded" style="left: 3px; top: 4px;">`,
      `<p class="text-faded">`,
    ],
  );
});

test('an attribute written with character references goes whole or not at all', () => {
  const whole = adopted(
    `<p style="font-family: &quot;Lato&quot;">`,
    `<p style="font-family: &quot;Lato&quot;">`,
  );
  assert.ok(whole.every((line) => !line.includes('style=')));
  const part = adopted(
    `<p style="font-family: &quot;Lato&quot;; top: 1px">`,
    `<p style="font-family: &quot;Lato&quot;; top: 2px">`,
  );
  assert.ok(part.every((line) => line.includes('style=') && !line.includes('class=')));
});

test('addresses are rewritten for the sheet; the same text in two folders is not the same', () => {
  const files = {
    'index.html': htmlPage(
      '<p style="background-image: url(media/a.png)"><p style="background-image: url(media/a.png)">',
    ),
    'fares/index.html': htmlPage(
      '<p style="background-image: url(\'../media/a.png\')"><p style="background-image: url(media/a.png)">',
    ),
  };
  const { text, styles, kept } = adoptAll(files, { shared: { path: 'theme/shared.css', partNames: {} } });
  assert.match(text('theme/shared.css'), /url\(.?\.\.\/media\/a\.png.?\)/);
  assert.equal(styles[0]?.members.length, 3);
  assert.deepEqual(
    kept.map(({ reason }) => reason.kind),
    ['written once'],
  );
});

test('what stands in the shared sheet stays, and the part that is there is added to', () => {
  const files = {
    'index.html': htmlPage(
      '<p style="opacity: .5"><p style="opacity: .5"><p>',
      '<link rel="stylesheet" href="shared.css">',
    ),
    'shared.css':
      '/* ours */\r\n.a {\r\n\ttop: 0;\r\n}\r\n\r\n/* part: components */\r\n\r\n.b {\r\n\ttop: 0;\r\n}\r\n',
  };
  const after = adoptAll(files).text('shared.css');
  assert.equal(after, `${files['shared.css']}\r\n.text-faded {\r\n\topacity: .5;\r\n}\r\n`);
});

test('a new sheet with letters outside ASCII declares its encoding', () => {
  const { text } = adoptAll({
    'index.html': htmlPage(`<p style="quotes: '»' '«'"><p style="quotes: '»' '«'">`),
  });
  assert.ok(text('shared.css').startsWith('@charset "utf-8";'));
});

function linked(text: string): string {
  const { edit } = planLink(parsePage('fares/index.html', text), 'theme/shared.css', () => undefined);
  return edit === undefined ? text : applyEdits(text, [edit]);
}

test('the link stands behind the last sheet of the head, in its hand', () => {
  const link = '<link rel="stylesheet" href="../theme/shared.css"';
  assert.equal(
    linked('<head>\n\t<link rel="stylesheet" href="a.css" />\n\t<title>x</title></head>'),
    `<head>\n\t<link rel="stylesheet" href="a.css" />\n\t${link} />\n\t<title>x</title></head>`,
  );
  assert.equal(
    linked('<head>\n  <style>a{}</style>\n</head>'),
    `<head>\n  <style>a{}</style>\n  ${link}>\n</head>`,
  );
  assert.equal(
    linked('<head>\n  <title>x</title>\n</head>'),
    `<head>\n  <title>x</title>\n  ${link}>\n</head>`,
  );
  assert.equal(linked('<!DOCTYPE html><title>x</title><p>'), `<!DOCTYPE html>\n${link}><title>x</title><p>`);
  const present = '<head><link rel="stylesheet" href="../theme/shared.css?v=2"></head>';
  assert.equal(linked(present), present);
});

test('an edit that ends before it starts, or behind the text, is refused; two at one place keep their order', () => {
  assert.throws(() => applyEdits('abc', [{ start: 2, end: 1, text: 'x' }]), RangeError);
  assert.throws(() => applyEdits('abc', [{ start: 2, end: 4, text: 'x' }]), RangeError);
  assert.equal(
    applyEdits('abc', [
      { start: 1, end: 1, text: '1' },
      { start: 1, end: 1, text: '2' },
    ]),
    'a12bc',
  );
});
