// Text that only looks like other text: what browsers pass over, addresses that mean another file elsewhere, names in escapes.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { acervus, makeSite, read } from '../support/site.js';

/** The page and the sheet after a draft and its adoption; the body stands three times. */
async function adopted(body: string, css = '.berth { padding: 1px }\n', config = {}) {
  const site = makeSite({
    'a.html': `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Fares</title><link rel="stylesheet" href="css/line.css"></head><body>\n${`${body}\n`.repeat(3)}</body></html>\n`,
    'css/line.css': css,
    'acervus.json': JSON.stringify(config),
  });
  assert.equal((await acervus('draft', site)).code, 0);
  const { code, stderr } = await acervus('adopt', site);
  assert.ok(code === 0 || /nothing|no style/i.test(stderr), stderr);
  return { page: read(site, 'a.html'), sheet: read(site, 'css/line.css') };
}

test('a vertical tab or a no-break space in front of a value is a part of it, and browsers pass it over', async () => {
  for (const space of ['\u000b', '\u00a0']) {
    const { page, sheet } = await adopted(
      `<p class="berth" style="color: red; font-weight:${space}bold">x</p>`,
    );
    assert.match(sheet, /color: red/);
    assert.doesNotMatch(sheet, /bold/);
    assert.equal(page.split('bold').length, 4, 'it stays for a person to mend');
  }
});

test('an address that is a query alone leads to the page, wherever it is written', async () => {
  const { sheet } = await adopted('<p class="berth" style="background-image: url(?a=1)">x</p>');
  assert.match(sheet, /url\(\.\.\/a\.html\?a=1\)/);
});

test('a declaration stays whose custom property holds an address: it resolves where it is used', async () => {
  const { page, sheet } = await adopted(
    '<p class="berth" style="--bg: url(img/pier.png); background-image: var(--bg)">x</p>',
  );
  assert.doesNotMatch(sheet, /var\(--bg\)/);
  assert.equal(page.split('var(--bg)').length, 4);
  const plain = await adopted('<p class="berth" style="--bg: red; background-color: var(--bg)">x</p>');
  assert.match(plain.sheet, /var\(--bg\)/);
});

test('an attribute that a sheet shows stays, by whatever letters the sheet names it', async () => {
  for (const css of ['td::after { content: attr(bgcolor) }', 'td::after { content: a\\74tr(\\62 gcolor) }']) {
    const { page } = await adopted('<table><tr><td bgcolor="#eeeeee">x</table>', css, { outdated: 'move' });
    assert.equal(page.split('bgcolor').length, 4, css);
  }
});

test('no rule reaches what a table’s own methods make, what stands in a template, or what people write', async () => {
  const red = (tag: string, more: string) => `<${tag} style="color: red; margin: 2px">x</${tag}>${more}`;
  const cell = '<script>document.querySelector("table").insertRow().insertCell()</script>';
  for (const [body, type] of [
    [`<table><tr><td style="color: red; margin: 2px">x</td></tr></table>${cell}`, 'td'],
    [red('p', '<template><p>y</p></template><script>document.body.append(1)</script>'), 'p'],
    [`<div contenteditable>${red('p', '')}</div>`, 'p'],
  ] as const) {
    const { sheet } = await adopted(body);
    assert.doesNotMatch(sheet, new RegExp(`(^|[\\s>])${type} \\{`, 'm'), body);
    assert.match(sheet, /color: red/);
  }
  const { sheet } = await adopted(`<div contenteditable="false">${red('p', '')}</div>`);
  assert.match(sheet, /(^|\s)p \{/m, 'where nobody writes, the type will do');
});
