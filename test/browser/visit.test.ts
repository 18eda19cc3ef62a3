// Pages as an installed Chromium shows them after their scripts, brought as HTML.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { withBrowser } from '../support/chromium.js';
import { edit, html, withPlatform, withServer } from '../support/platform.js';
import { acervus, makeSite, read } from '../support/site.js';

const PAGE = `<!DOCTYPE html><html><head><title>Tides</title><style id="typed">p { margin: 0 }</style><style id="put-in"></style></head>
<body><div id="here"></div><script>
document.querySelector('#put-in').sheet.insertRule('.made { color: rgb(1, 2, 3) }');
const sheet = new CSSStyleSheet();
sheet.replaceSync('.made { outline-color: red }');
document.adoptedStyleSheets.push(sheet);
document.querySelector('#here').innerHTML = '<p class="made">Low water</p>';
const root = document.querySelector('#here').attachShadow({ mode: 'open' });
root.innerHTML = '<style>b { color: teal }</style><b>inside</b><slot></slot>';
if (innerWidth < 600) document.body.append(Object.assign(document.createElement('nav'), { id: 'narrow' }));
</script></body></html>`;

test('what scripts made is in the page: elements, rules put in and adopted, shadow roots, each width that differs', async (context) => {
  await withBrowser(context, async () => {
    await withServer({ '/': html(PAGE) }, async (address) => {
      const folder = makeSite({});
      const { code, stderr } = await acervus('visit', address, folder, '--widths', '1000,500,800');
      assert.equal(code, 0, stderr);
      const page = read(folder, 'index.html');
      assert.match(page, /<p class="made">Low water<\/p>/);
      assert.match(page, /<style id="put-in">\n\.made \{ color: rgb\(1, 2, 3\); \}\n<\/style>/);
      assert.match(page, /<style id="typed">p \{ margin: 0 \}<\/style>/);
      assert.match(page, /\.made \{ outline-color: red; \}/);
      assert.match(page, /<template shadowrootmode="open"><style>b \{ color: teal \}<\/style><b>inside<\/b>/);
      assert.match(read(folder, 'index-at-500.html'), /<nav id="narrow">/);
      assert.throws(() => read(folder, 'index-at-800.html'));
    });
  });
});

test('a page that a script of the platform builds can be overridden where the script put it', async (context) => {
  await withBrowser(context, async () => {
    await withPlatform(async ({ address }) => {
      const folder = makeSite({});
      const words = [`${address}tides/`, folder, '--browser', '--depth', '0', '--own', '#kw-own-css'];
      assert.equal((await acervus('visit', ...words)).code, 0);
      const made = await acervus('override', '.kw-tides li', 'color: #1f3a56', folder, '--json');
      const { meant, written } = JSON.parse(made.stdout) as { meant: number; written: boolean };
      assert.deepEqual([meant, written], [3, true]);
    });
  });
});

test('a browser of a visit asks nothing but the site and what its pages need', async (context) => {
  await withBrowser(context, async () => {
    await withServer(
      { '/frame': html('<p>framed'), '/kit.css': html('p{}', { 'content-type': 'text/css' }) },
      async (other, asked) => {
        const page = `<!DOCTYPE html><link rel="stylesheet" href="${other}kit.css"><iframe src="${other}frame"></iframe><iframe src="file:///etc/passwd"></iframe><script>navigator.sendBeacon('${other}beacon')</script><p>x`;
        await withServer({ '/': html(page) }, async (address) => {
          const folder = makeSite({});
          await acervus('visit', address, folder, '--browser');
          const paths = asked.map(({ url }) => url);
          assert.ok(paths.includes('/kit.css'));
          assert.ok(!paths.includes('/frame') && !paths.includes('/beacon'), paths.join());
        });
      },
    );
  });
});

test('what was pasted looks in pictures as was planned, and what was not does not', async (context) => {
  await withBrowser(context, async () => {
    await withPlatform(async (platform) => {
      const folder = makeSite({});
      await acervus('visit', platform.address, folder, '--own', '#kw-own-css', '--pages', '2');
      await acervus('override', '.kw-brand', 'color: #b3261e', folder);
      const look = async (): Promise<{ code: number | null; pages: number }> => {
        const words = ['--live', folder, '--browser', '--widths', '900', '--json'];
        const { code, stdout, stderr } = await acervus('prove', ...words);
        assert.notEqual(stdout, '', stderr);
        const { browser } = JSON.parse(stdout) as { browser: { differences: { page: string }[] } };
        return { code, pages: new Set(browser.differences.map(({ page }) => page)).size };
      };
      assert.deepEqual(await look(), { code: 1, pages: 2 });
      await edit(platform, 'site-css', read(folder, 'own/kw-own-css.css'));
      assert.deepEqual(await look(), { code: 0, pages: 0 });
    });
  });
});
