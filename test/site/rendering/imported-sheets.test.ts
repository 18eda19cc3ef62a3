// The sheets that modules import, in the order in which a bundler meets them.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { applyEdits } from '../../../src/core/edit/text/index.js';
import { openFolder } from '../../../src/site/files/files.js';
import {
  blockText,
  findImportedSheets,
  importEdit,
  isBlockName,
  isImport,
} from '../../../src/site/rendering/imported-sheets.js';
import { SiteReader } from '../../../src/site/rendering/reader.js';
import { makeSite } from '../../support/site.js';

const sheetsOf = (files: Record<string, string>): readonly string[] =>
  findImportedSheets(openFolder(makeSite(files))).sheets;

test('depth first: what a module imports comes before what stands behind that import', () => {
  const sheets = sheetsOf({
    'src/main.js': "import './first.css';\nimport App from './App.vue';\nimport './last.css';\n",
    'src/App.vue':
      '<template><p/></template>\n<script>\nimport "./app.scss";\nimport Card from "./Card";\n</script>',
    'src/Card.jsx': "import './card.css';\nimport './first.css';\nexport const Card = () => <p/>;\n",
    ...Object.fromEntries(
      ['first.css', 'app.scss', 'card.css', 'last.css'].map((name) => [`src/${name}`, 'p {}']),
    ),
  });
  assert.deepEqual(sheets, ['src/first.css', 'src/app.scss', 'src/card.css', 'src/last.css']);
});

test('short names, packages and addresses are resolved; tests, and what is not there, are passed over', () => {
  const sheets = sheetsOf({
    'src/main.ts':
      "import '@/styles/a.css';\nimport 'quay-kit/dist/kit.css';\nimport '~/b.css?inline';\nimport './gone.css';\nrequire('./c.css');\n",
    'src/main.test.ts': "import './test.css';\n",
    'src/styles/a.css': '',
    'src/b.css': '',
    'src/c.css': '',
    'src/test.css': '',
    'node_modules/quay-kit/dist/kit.css': 'p {}',
  });
  assert.deepEqual(sheets, [
    'src/styles/a.css',
    'node_modules/quay-kit/dist/kit.css',
    'src/b.css',
    'src/c.css',
  ]);
});

test('modules that import each other end', () => {
  assert.deepEqual(
    sheetsOf({
      'a.js': "import './b.js';\nimport './a.css';",
      'b.js': "import './a.js';\nimport './b.css';",
      'a.css': '',
      'b.css': '',
    }),
    ['b.css', 'a.css'],
  );
});

const NONE = (): undefined => undefined;

test('a block that styles more than its component is a sheet, known by its file and number', () => {
  const text = '<template><p/></template>\n<style scoped>b {}</style>\n<style>p {}</style>\n';
  const [name = ''] = sheetsOf({ 'src/App.vue': text });
  assert.ok(isBlockName(name) && name.startsWith('src/App.vue'));
  assert.equal(
    blockText(name, () => text, NONE),
    'p {}',
  );
  assert.equal(
    blockText(name, () => undefined, NONE),
    undefined,
  );
  assert.equal(
    blockText('src/App.vue', () => text, NONE),
    undefined,
  );
});

test('where no sheet of one’s own is imported, one is added behind the last, in the words of the module', () => {
  const main = 'import "quay-kit/kit.css"\n  import "./line.scss"\nstart()\n';
  const site = makeSite({
    'src/main.js': main,
    'src/line.scss': 'p { color: red }',
    'src/App.vue': '<template><p/></template>',
    'node_modules/quay-kit/kit.css': '',
  });
  const { added } = new SiteReader(openFolder(site), {});
  assert.deepEqual(added, { sheet: 'src/shared.css', behind: 'src/line.scss', module: 'src/main.js' });
  const edit = importEdit(main, added)!;
  assert.ok(isImport(edit));
  assert.equal(
    applyEdits(main, [edit]),
    'import "quay-kit/kit.css"\n  import "./line.scss"\n  import "./shared.css"\nstart()\n',
  );
  assert.equal(importEdit('start()\n', added), undefined);
  assert.equal(isImport({ start: 0, end: 4, text: "\nimport './a.css'" }), false);
  assert.equal(isImport({ start: 0, end: 0, text: '\nalert(1)' }), false);
});

test('where one is, nothing is added, and rules go into the last of them', () => {
  const site = makeSite({
    'src/main.js': "import './a.css';\nimport './b.css';\nimport './c.module.css';\n",
    'src/a.css': 'p { margin: 0 }',
    'src/b.css': 'p { margin: 0 }',
    'src/c.module.css': '.a { margin: 0 }',
    'src/App.vue': '<template><p/></template>',
  });
  const reader = new SiteReader(openFolder(site), {});
  assert.equal(reader.added, undefined);
  assert.deepEqual(reader.sheetsFor('src/App.vue'), ['src/a.css', 'src/b.css', 'src/c.module.css']);
  assert.ok(reader.isPlatform('src/c.module.css'));
  assert.equal(reader.shared([], []), 'src/b.css');
});
