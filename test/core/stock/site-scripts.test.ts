// What scripts keep where it is: the site's own reach any element, a library's those that the markup names, and what it shows.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { modelOf, scriptsOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

/** The kind of the objection to moving a property off the first paragraph. */
function objection(
  property: string,
  script: string,
  file = 'own.js',
  tag = '<p class="fare">',
): string | undefined {
  const files = { 'index.html': htmlPage(`${tag}x</p><script src="${file}"></script>`), [file]: script };
  const page = modelOf(files).page('index.html')!;
  const element = page.elements.find(({ name }) => name === 'p')!;
  return scriptsOf(files).objection(page, element, property)?.kind;
}

test('a script that clears a shorthand keeps its longhands, and the other way round', () => {
  assert.equal(objection('row-gap', "x.style.gap = ''"), 'script touches');
  assert.equal(objection('left', "x.style.inset = ''"), 'script touches');
  assert.equal(objection('column-count', "x.style.columns = ''"), 'script touches');
  assert.equal(objection('transform', "x.style.webkitTransform = ''"), 'script touches');
  assert.equal(objection('overflow-wrap', "x.style.wordWrap = ''"), 'script touches');
  assert.equal(objection('margin', "x.style.marginTop = ''"), 'script touches');
  assert.equal(objection('color', "x.style.gap = ''"), undefined);
});

test('a library keeps what it clears only where the markup names the element, but display everywhere', () => {
  const library = "jump('.other').style.height = ''; jump('.other').style.display = ''";
  assert.equal(objection('height', library, 'vendor/kit.js'), undefined);
  assert.equal(objection('height', library, 'vendor/kit.js', '<p class="other">'), 'script touches');
  assert.equal(objection('display', library, 'vendor/kit.js'), 'script touches');
});

test('a script that cannot be read keeps what it names, and display where it is the site’s own', () => {
  const broken = 'function ( { fare';
  assert.equal(objection('color', broken), 'script not read');
  assert.equal(objection('color', 'function ( { other'), undefined);
  assert.equal(objection('display', 'function ( { other'), 'script not read');
  assert.equal(objection('display', 'function ( { other', 'vendor/kit.js'), undefined);
});

test('a class attribute that is written anew keeps the elements that the script may mean', () => {
  const script = "document.querySelector('.fare').className = 'open'";
  assert.equal(objection('color', script), 'script writes its class');
  assert.equal(objection('color', script, 'own.js', '<p class="tide">'), undefined);
  const byTag = "document.querySelector('p').className = 'open'";
  assert.equal(objection('color', byTag, 'own.js'), 'script writes its class');
  // A library names tags for its own sake.
  assert.equal(objection('color', byTag, 'vendor/kit.js'), undefined);
});

test('a script that asks for style attributes keeps them all, unless it is a library', () => {
  assert.equal(objection('color', "document.querySelectorAll('[style]')"), 'script touches its style');
  assert.equal(objection('color', "document.querySelectorAll('[style]')", 'vendor/kit.js'), undefined);
});

test('a class or style that goes from an element that is not named keeps all that the script may mean', () => {
  const child = "document.querySelector('main').children[1]";
  for (const [kind, scripts] of Object.entries({
    'script writes its class': [
      `${child}.removeAttribute('class')`,
      `${child}.className.baseVal = 'hot'`,
      `${child}.classList.value = ''`,
      `if (${child}.className === 'fare') go()`,
      `switch (${child}.className) { case 'fare': go() }`,
      `${child}.outerHTML = ${child}.outerHTML.replace(/class="fare"/, '')`,
    ],
    'script touches its style': [
      `${child}.attributeStyleMap.clear()`,
      `${child}.style.cssText = ''`,
      `document.evaluate('//p[@style]', document)`,
      `while (${child}.attributes.length) go()`,
    ],
  }))
    for (const script of scripts) {
      assert.equal(objection('color', script), kind, script);
      assert.equal(objection('color', script, 'vendor/kit.js', '<p>'), undefined, script);
    }
  assert.equal(objection('color', "document.querySelector('.other').style.cssText = ''"), undefined);
});
