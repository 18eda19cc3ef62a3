// Each reason for which nothing on a page is decided, by a page that has it and one that nearly has.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { undecidedReason } from '../../../src/core/stock/undecided.js';
import { modelOf } from '../../support/model.js';
import { htmlPage } from '../../support/site.js';

function why(files: Record<string, string>, path = 'index.html'): string | undefined {
  const model = modelOf(files);
  const page = model.page(path)!;
  const reason = undecidedReason(
    page,
    model.readersOf(page).map(({ sheetOrder }) => sheetOrder),
  );
  return reason?.kind === 'page undecided' ? String(reason.why) : undefined;
}

const deep = (levels: number): string => `${'<i>'.repeat(levels)}${'</i>'.repeat(levels)}`;
const page = (body: string, head = ''): Record<string, string> => ({ 'index.html': htmlPage(body, head) });
const policy = '<meta http-equiv="Content-Security-Policy" content="style-src \'self\'">';
const linked = '<link rel="stylesheet" href="a.css">';

const CASES: readonly [string, Record<string, string>, RegExp | undefined][] = [
  ['a plain page is decided', page('<p>x</p>'), undefined],
  ['a <base> element', page('<p>x</p>', '<base href="/x/">'), /<base>/],
  ['a content security policy', page('<p>x</p>', policy), /security policy/],
  ['a declared shadow root', page('<p><template shadowrootmode="open">x</template></p>'), /shadow roots/],
  ['500 levels of nesting', page(deep(510)), /nested \d+ levels deep/],
  ['less than 500 levels are decided', page(deep(480)), undefined],
  ['no sign of a whole page', { 'index.html': '<p>x</p>' }, /whole page/],
  [
    'a scope without a root in a sheet',
    { ...page('<p>x</p>', linked), 'a.css': '@scope { p { top: 0 } }' },
    /scope .* in a\.css/,
  ],
  [
    'a layer under a condition in a sheet',
    { ...page('<p>x</p>', linked), 'a.css': '@media print { @layer a { p { top: 0 } } }' },
    /layer under a condition in a\.css/,
  ],
  [
    'a layer that is first named in a sheet under a condition',
    {
      ...page('<p>x</p>', '<link rel="stylesheet" media="print" href="a.css">'),
      'a.css': '@layer a { p { top: 0 } }',
    },
    /first named in a sheet under a condition/,
  ],
];

for (const [name, files, expected] of CASES)
  test(`undecided: ${name}`, () => {
    if (expected === undefined) assert.equal(why(files), undefined);
    else assert.match(why(files) ?? '', expected);
  });

test('undecided: a part that no page could show', () => {
  assert.match(why({ 'part.tpl': '<p>x</p>' }, 'part.tpl') ?? '', /no page of the site could show it/);
  assert.equal(why({ 'part.tpl': '<p>x</p>', ...page('{{> part}}') }, 'part.tpl'), undefined);
});
