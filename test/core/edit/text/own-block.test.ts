import assert from 'node:assert/strict';
import { test } from 'node:test';
import { applyEdits } from '../../../../src/core/edit/text/edit.js';
import { ownBlockOf, planOwnBlock } from '../../../../src/core/edit/text/own-block.js';
import { parseSheet } from '../../../../src/core/read/sheets/index.js';
import type { SharedRule } from '../../../../src/core/search/index.js';

function rule(selector: string, text: string, holder: string): SharedRule {
  const { declarations } = parseSheet(`a { ${text} }`).rules[0]!;
  return {
    selectors: [selector],
    part: 'components',
    declarations: declarations.map((declaration) => ({ declaration, holder })),
  };
}

function written(path: string, text: string): string {
  const rules = [rule('.fare', 'padding: 6px; color: navy', path), rule('.late', 'color: maroon', path)];
  return applyEdits(text, [planOwnBlock(path, text, rules)]);
}

test('rules go to the end of the block of a component, set out as those that are there', () => {
  assert.equal(
    written(
      'Fare.svelte',
      '<p>x</p>\r\n\r\n<style lang="scss">\r\n\t.old {\r\n\t\ttop: 0;\r\n\t}\r\n</style>\r\n<b></b>',
    ),
    '<p>x</p>\r\n\r\n<style lang="scss">\r\n\t.old {\r\n\t\ttop: 0;\r\n\t}\r\n\r\n\t.fare {\r\n\t\tpadding: 6px;\r\n\t\tcolor: navy;\r\n\t}\r\n\r\n\t.late {\r\n\t\tcolor: maroon;\r\n\t}\r\n</style>\r\n<b></b>',
  );
  const vue = '<template><p>x</p></template>\n<style>\nbody { top: 0 }\n</style>\n<style scoped>';
  assert.equal(
    written('Fare.vue', `${vue}p { top: 0 } i { left: 0 }</style>`),
    `${vue}p { top: 0 } i { left: 0 }\n.fare { padding: 6px; color: navy; }\n.late { color: maroon; }\n</style>`,
  );
  assert.equal(
    written('Fare.vue', `${vue}\n\n</style>`),
    `${vue}\n.fare {\n  padding: 6px;\n  color: navy;\n}\n\n.late {\n  color: maroon;\n}\n</style>`,
  );
});

test('a component without one gets a block behind all else', () => {
  const rules = '  .fare {\n    padding: 6px;\n    color: navy;\n  }\n\n  .late {\n    color: maroon;\n  }\n';
  assert.equal(
    written('Fare.vue', '<template>\n    <p>x</p>\n</template>\n'),
    `<template>\n    <p>x</p>\n</template>\n\n<style scoped>\n${rules.replace(/^ {2}/gm, '').replace(/^ {2}/gm, '    ')}</style>\n`,
  );
  assert.equal(written('Fare.svelte', '<p>x</p>'), `<p>x</p>\n\n<style>\n${rules}</style>\n`);
  assert.equal(written('Fare.astro', '<p>\n  x\n</p>\n\n'), `<p>\n  x\n</p>\n\n<style>\n${rules}</style>\n`);
});

test('a block is open where a plain rule in it styles this component alone', () => {
  const vue = (block: string): string => ownBlockOf('A.vue', `<template><p>x</p></template>\n${block}`);
  assert.equal(vue('<style scoped>p { top: 0 }</style>'), 'open');
  assert.equal(vue('<style scoped lang="scss">p { b { top: 0 } }</style>'), 'open');
  assert.equal(vue('<style scoped lang="sass">\np\n  top: 0\n</style>'), 'closed');
  assert.equal(vue('<style scoped lang="less">p { top: 0 }</style>'), 'closed');
  assert.equal(vue('<style>p { top: 0 }</style>'), 'closed');
  assert.equal(vue(''), 'none');
  assert.equal(ownBlockOf('A.astro', '<p>x</p><style is:global>p { top: 0 }</style>'), 'closed');
  assert.equal(ownBlockOf('A.jsx', 'export const A = () => <p>x</p>;'), 'closed');
});
