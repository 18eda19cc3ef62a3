// What counts as understood in a script, and what is named because it is not.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { notUnderstood, readScript, type ScriptReading } from '../../../../src/core/read/scripts/index.js';

const own = (reading: ScriptReading) => ({ reading, isLibrary: false });

function unclear(text: string, areAll = true): string[] {
  const [found] = notUnderstood([own(readScript(text))], areAll);
  return found!.map(({ does, name }) => (name === undefined ? does : `${does} ${name}`)).sort();
}

test('the everyday forms of a script are understood', () => {
  for (const text of [
    "document.querySelector('.menu').classList.toggle('is-open')",
    'for (let i = 0; i < rows.length; i++) rows[i].hidden = list[i + 1] === undefined',
    'const ports = {}; for (const one of names) ports[one] = true; names.forEach((one, at) => (ports[at] = one))',
    'const state = { open: new Map() }; state.open[name] = 1; window[name] = 2',
    'function sail(ferry) { return ferry.name } sail(one); handlers[2]()',
    'const table = { add() {} }; table[kind](); Object.assign({}, options); Object.assign(button, { hidden: true })',
    "setTimeout(() => show(), 10); setTimeout(later, 10); setTimeout('tide()', 5); var show, later, tide",
    "fetch('/times').then((reply) => reply.json()).catch(console.error)",
  ])
    assert.deepEqual(unclear(text), [], text);
});

test('what could reach an element in a form that is not followed is named', () => {
  const expected: [string, string][] = [
    ['element[name] = value', 'sets a property that it names only as it runs'],
    ["for (const key in options) element[key] = 'x'", 'sets a property that it names only as it runs'],
    ["[element.className] = ['dark']", 'sets a property that it names only as it runs'],
    ['for (element.className of names);', 'sets a property that it names only as it runs'],
    ["element.classList[method]('dark')", 'calls what it names only as it runs'],
    ['eval(text)', 'runs code that it puts together'],
    ["setTimeout('go(' + i + ')', 5)", 'runs code that it puts together'],
    ["new Function('e', body)", 'runs code that it puts together'],
    ['Object.assign(element, options)', 'sets the properties of another object'],
    ["Reflect.set(element, 'className', 'dark')", 'sets the properties of another object'],
    ['const set = element.setAttribute.bind(element)', 'keeps a method that changes elements'],
    ["document.execCommand('bold')", 'uses what is not followed'],
    ['with (element) className = name', 'uses what is not followed'],
    ['copy(element.outerHTML)', 'uses what is not followed'],
  ];
  for (const [text, does] of expected) assert.ok(unclear(text).includes(does), `${text}: ${unclear(text)}`);
});

test('a call of what no script of the page defines is named, where all of them were read', () => {
  assert.deepEqual(unclear("element.moor('quay')"), ['calls moor']);
  assert.deepEqual(unclear("element.moor('quay')", false), []);
  const library = { reading: readScript('Tide.fn.moor = function () {}'), isLibrary: true };
  const [found] = notUnderstood([own(readScript("element.moor('quay')")), library], true);
  assert.deepEqual(found, []);
});

test('code in strings and addresses is read as the script itself', () => {
  for (const text of [
    `eval("document.body.className = 'dark'")`,
    `(0, eval)("document.body.className = 'dark'")`,
    `window.setTimeout("document.body.className = 'dark'", 9)`,
    `new Function("document.body.className = 'dark'")()`,
    `import "data:text/javascript,document.body.className = 'dark'"`,
    `import("data:text/javascript;base64,${Buffer.from("document.body.className = 'dark'").toString('base64')}")`,
  ]) {
    const { writes } = readScript(text);
    assert.ok(
      writes.some(({ kind, names }) => kind === 'class' && names.includes('dark')),
      text,
    );
  }
});

test('the element is the scope of a handler', () => {
  for (const text of ["className = 'dark'", "classList.add('dark')", "setAttribute('class', 'dark')"])
    assert.deepEqual(
      readScript(text).writes.map(({ kind, names }) => [kind, ...names]),
      [['class', 'dark']],
      text,
    );
  assert.deepEqual(readScript("body.className = 'dark'").writes[0]?.target, [
    { type: 'body', id: undefined, classes: [] },
  ]);
  // A name of its own is no element's.
  assert.deepEqual(readScript("var className; className = 'dark'").writes, []);
});
