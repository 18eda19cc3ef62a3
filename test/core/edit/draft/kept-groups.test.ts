import assert from 'node:assert/strict';
import { test } from 'node:test';
import { placeIn } from '../../../../src/core/base/source.js';
import { consolidateTokens } from '../../../../src/core/change/consolidate/tokens.js';
import { keptGroups } from '../../../../src/core/edit/draft/index.js';
import { PROVE } from '../../../../src/core/proof/index.js';
import { sheetValues } from '../../../../src/core/search/values.js';
import { adoptAll, modelOf } from '../../../support/model.js';
import { htmlPage } from '../../../support/site.js';

const link = '<link rel="stylesheet" href="t.css">';

test('what stays is counted once for everybody, declarations and old attributes alike', () => {
  const result = adoptAll({
    'index.html': htmlPage(
      '<p style="top: 0; left: 1px">a</p><table cellspacing="9"><tr><td>b</table>',
      link,
    ),
    't.css': 'p { margin: 0 }',
  });
  const groups = keptGroups(result.kept, result.keptElsewhere, result.placeOf);
  assert.deepEqual(
    groups.map(({ reason, declarations, places }) => [reason.slice(0, 12), declarations, places.length]),
    [['written once', 3, 2]],
  );
  assert.match(groups[0]!.examples[0]!, /^index\.html:\d+:\d+ top: 0/);
});

test('a rule or a value that the proof refuses is told beside the declarations, most first', () => {
  const place = placeIn('a.css', 'p {}', 0);
  const groups = keptGroups(
    [],
    [
      { text: '.a', declarations: 2, place, reason: { kind: 'proof', detail: 'b would change' } },
      {
        text: '#fff',
        declarations: 9,
        place,
        reason: { kind: 'no name', value: '#fff', detail: 'c would change' },
      },
      { text: '.b', declarations: 3, place, reason: { kind: 'proof', detail: 'b would change' } },
    ],
    () => place,
  );
  assert.deepEqual(
    groups.map(({ reason, declarations, examples }) => [reason, declarations, examples]),
    [
      ['#fff gets no name: the proof does not vouch for it: c would change', 9, ['a.css:1:1 #fff']],
      ['the proof does not vouch for it: b would change', 5, ['a.css:1:1 .a', 'a.css:1:1 .b']],
    ],
  );
});

test('a rule pasted into blocks that cannot move is told, and not passed over', () => {
  const block = '<style>.box { top: 0; left: 0 }</style>';
  const page = htmlPage('<p class="box">x</p>', `${block}${link}`);
  const result = adoptAll({ 'a.html': page, 'b.html': page, 't.css': '.box { top: 2px }' });
  // What the sheet behind the blocks says nothing of may go there; what it beats may not.
  assert.match(result.text('t.css'), /\.box \{ top: 2px; left: 0; \}/);
  assert.deepEqual(
    result.keptElsewhere.map(({ text, reason }) => [text, reason.kind]),
    [['.box', 'pasted']],
  );
});

test('a value whose name would change something gets none, and what would change is told', () => {
  const model = modelOf({
    'index.html': htmlPage('<p class="a">x<p class="b" style="--ink: red">y<p class="c">z', link),
    't.css': '.a { color: teal } .b { color: teal; top: 0 } .c { color: teal; left: 0 }',
  });
  const [value] = sheetValues(model, ['t.css']);
  const named = (name: string): ReturnType<typeof consolidateTokens> =>
    consolidateTokens(
      model,
      model,
      [{ ...value!, name, text: 'teal' }],
      { path: 't.css', partNames: {} },
      PROVE,
    );
  assert.deepEqual([named('--tide').tokens.length, named('--tide').refused.size], [1, 0]);
  const { tokens, refused, edits } = named('--ink');
  assert.deepEqual([tokens.length, edits.size], [0, 0]);
  assert.deepEqual(
    [...refused].map(([{ name }, reason]) => [name, reason.kind, reason.kind === 'proof' && reason.detail]),
    [['--ink', 'proof', 'color of p.b would change: .b sets var(--ink)']],
  );
});
