import assert from 'node:assert/strict';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { test } from 'node:test';
import { PNG } from 'pngjs';
import type { Looks } from '../../src/browser/capture.js';
import { findChromium } from '../../src/browser/chromium.js';
import { compareLooks, comparePictures } from '../../src/browser/compare.js';
import { judge } from '../../src/browser/judge.js';
import { serveSite } from '../../src/browser/serve.js';
import { openFolder } from '../../src/site/files/files.js';
import { withBrowser } from '../support/chromium.js';
import { htmlPage, makeSite } from '../support/site.js';

const looks = (values: readonly string[], box = '0 0 10 10', hidden: readonly string[] = []): Looks => ({
  properties: ['border-top-color', 'color', 'height'],
  nodes: [{ name: 'P', label: '#x.a', box, values }],
  hidden,
});

test('what caused a difference is listed, and what layout made of it is not', () => {
  const before = looks(['red', 'red', '10px']);
  assert.deepEqual(compareLooks(before, before), { listed: [], nodes: 0 });
  const { listed, nodes } = compareLooks(before, looks(['blue', 'blue', '20px'], '0 0 10 20'));
  assert.equal(nodes, 1);
  assert.deepEqual(
    listed.map(({ node, property }) => `${node} ${property}`),
    ['p#x.a color', 'p#x.a border-top-color'],
  );
  assert.deepEqual(compareLooks(before, looks(['red', 'red', '20px'])).listed[0]?.property, 'height');
  assert.deepEqual(
    compareLooks(before, looks(['red', 'red', '10px'], '0 1 10 10')).listed[0]?.property,
    'box',
  );
});

test('hidden elements and the number of nodes count too', () => {
  const before = looks([], '', ['I; color: red; top: 0']);
  const [found] = compareLooks(before, looks([], '', ['I; color: red; top: 1px'])).listed;
  assert.deepEqual(found, {
    node: 'i (hidden)',
    property: 'computed style',
    before: 'top: 0',
    after: 'top: 1px',
  });
  assert.equal(compareLooks(before, { ...before, nodes: [] }).listed[0]?.property, 'rendered nodes');
});

function picture(width: number, height: number, dark: readonly (readonly [number, number])[]): Buffer {
  const png = new PNG({ width, height });
  png.data.fill(255);
  for (const [x, y] of dark) png.data.fill(0, (y * width + x) * 4, (y * width + x) * 4 + 3);
  return PNG.sync.write(png);
}

test('pictures differ by the pixel, and say where first', () => {
  const before = picture(8, 6, [[1, 1]]);
  assert.equal(comparePictures(before, picture(8, 6, [[1, 1]])), undefined);
  const found = comparePictures(
    before,
    picture(8, 6, [
      [1, 1],
      [4, 3],
      [5, 5],
    ]),
  );
  assert.deepEqual([found?.pixels, found?.row], [2, 3]);
  assert.equal(PNG.sync.read(found!.picture).width, 8);
  assert.ok((comparePictures(before, picture(8, 9, [[1, 1]]))?.pixels ?? 0) > 0);
});

test('a state is served as it is, and nothing beside it', async () => {
  const site = makeSite({
    'fares/a b.html': '<p>x',
    '.env': 'k',
    '.git/config': 'k',
    'theme/a.css': 'p { top: 0 }',
  });
  const served = await serveSite(openFolder(site));
  try {
    const get = (address: string): Promise<Response> => fetch(`http://127.0.0.1:${served.port}/${address}`);
    const page = await get('fares/a%20b.html?x=1');
    assert.equal(await page.text(), '<p>x');
    assert.equal(page.headers.get('content-type'), 'text/html');
    assert.equal((await get('theme/a.css')).headers.get('content-type'), 'text/css');
    for (const address of [
      'none.html',
      '%2e%2e/secret',
      'fares/',
      '%E0%A4%A',
      '.env',
      '.git/config',
      '%2eenv',
    ])
      assert.equal((await get(address)).status, 404, address);
  } finally {
    served.close();
  }
});

test('a page that is looked at reaches nothing else on this machine', async (context) => {
  const asked: string[] = [];
  const other = createServer((request, response) => {
    asked.push(request.url ?? '');
    response.end();
  });
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
  const { port } = other.address() as AddressInfo;
  const hosts = [`127.0.0.1:${port}`, `localhost:${port}`, `[::ffff:127.0.0.1]:${port}`];
  const html = hosts.map(
    (host) => `<img src="http://${host}/a.png"><iframe src="http://${host}/b"></iframe>`,
  );
  const files = openFolder(makeSite({ 'index.html': htmlPage(html.join('')) }));
  try {
    await withBrowser(context, async () => {
      await judge(files, files, ['index.html'], {
        views: [{ width: 600, media: 'screen' }],
        tabs: 1,
        onVerdict: ({ views }) => assert.equal(views[0]!.differing, 0),
      });
    });
    assert.deepEqual(asked, []);
  } finally {
    other.close();
  }
});

test('a browser is found by its variable, then on the search path', () => {
  assert.equal(findChromium({ CHROMIUM: '/somewhere/chromium' }), '/somewhere/chromium');
  assert.equal(findChromium({ PATH: '/nowhere' })?.startsWith('/nowhere') ?? false, false);
});
