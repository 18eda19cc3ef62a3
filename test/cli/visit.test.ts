// A running system brought into a folder, asked, overridden, pasted and proven, against the stand-in for a platform.

import assert from 'node:assert/strict';
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import type { ServerResponse } from 'node:http';
import path from 'node:path';
import { test } from 'node:test';
import { gzipSync } from 'node:zlib';
import type { VisitDocument } from '../../src/commands/visit/document.js';
import type { WorkList } from '../../src/site/visiting/work-list.js';
import { edit, html, type Platform, withPlatform, withServer } from '../support/platform.js';
import { acervus, makeSite, PROJECT, read, snapshot } from '../support/site.js';

const OWN = ['--own', '#kw-own-css', '--own-page', 'style.kw-page-css'];

async function visit(...words: readonly string[]): Promise<VisitDocument> {
  const { stdout, stderr } = await acervus('visit', ...words, '--json');
  assert.notEqual(stdout, '', stderr);
  return JSON.parse(stdout) as VisitDocument;
}

/** The platform brought into a folder. */
async function brought({ address }: Platform, ...more: readonly string[]): Promise<string> {
  const folder = makeSite({});
  await visit(address, folder, ...OWN, ...more);
  return folder;
}

async function json<T>(...words: readonly string[]): Promise<T> {
  const { stdout, stderr } = await acervus(...words, '--json');
  assert.notEqual(stdout, '', stderr);
  return JSON.parse(stdout) as T;
}

async function prove(...words: readonly string[]): Promise<{ code: number | null; said: string }> {
  const { code, stdout, stderr } = await acervus('prove', ...words);
  return { code, said: stdout + stderr };
}

const PAGES = 30;

test('links are followed in circles once, moved and doubled pages are one, a busy server is asked again', async () => {
  await withPlatform(async (platform) => {
    const folder = makeSite({});
    const document = await visit(platform.address, folder, ...OWN);
    assert.equal(document.pages, PAGES);
    assert.deepEqual([document.sheets, document.scripts, document.failed], [2, 1, []]);
    const pages = platform.requests.filter((one) => !/\/kit\/|robots|notices\/5/.test(one));
    assert.equal(new Set(pages).size, pages.length, 'asked twice');
    assert.equal(platform.requests.filter((one) => one === 'GET /notices/5').length, 2);
    assert.equal(read(folder, 'kit/late.css').includes('padding: 6px 8px'), true);
    assert.deepEqual(
      document.boxes.map(({ file, pages }) => [file, pages]),
      [
        ['own/kw-own-css.css', PAGES - 1],
        ['own/kw-page-css/fares/index.css', 1],
      ],
    );
    assert.ok(document.madeUp.count > 50);
  });
});

test('what has not changed is not sent again, and what has is told', async () => {
  await withPlatform(async (platform) => {
    const folder = await brought(platform);
    const before = snapshot(folder);
    const again = await visit(folder);
    assert.equal(again.unchanged, PAGES);
    assert.deepEqual(again.changes?.pages, { new: [], gone: [], changed: [] });
    const same = snapshot(folder);
    for (const [file, bytes] of before)
      if (!/visit\.json|\.acervus/.test(file)) assert.deepEqual(same.get(file), bytes, file);
    await edit(platform, 'version', '4.0');
    const later = await visit(folder);
    assert.equal(later.changes?.pages.changed.length, PAGES - 1);
    assert.deepEqual(later.changes?.sheets.new, ['kit/kelpwork--v-4.0.css']);
    assert.ok(later.changes?.namesGone.includes('.kw-badge'));
    assert.equal(existsSync(path.join(folder, 'kit/kelpwork--v-3.1.css')), false);
    assert.equal(existsSync(path.join(folder, '.acervus/last-visit/kit/kelpwork--v-3.1.css')), true);
  });
});

test('a sitemap of sitemaps, a list and limits: each brings what it names and no more', async () => {
  await withPlatform(async ({ address, requests }) => {
    const map = await visit(`${address}sitemap.xml`, makeSite({}));
    assert.equal(map.pages, PAGES - 1);
    const lists = makeSite({
      'list.txt': `# two\n${address}fares/\n\n${address}notices/1\n`,
      'map.xml.gz': gzipSync(`<urlset><url><loc>${address}tides/</loc></url></urlset>`),
    });
    assert.equal((await visit(path.join(lists, 'list.txt'), makeSite({}))).pages, 2);
    assert.equal((await visit(path.join(lists, 'map.xml.gz'), makeSite({}))).pages, 1);
    const few = await visit(address, makeSite({}), '--pages', '5');
    assert.equal(few.pages, 5);
    assert.ok(few.left > 0);
    const near = await visit(address, makeSite({}), '--depth', '1', '--skip', 'notices/**');
    assert.ok(near.pages > 5 && near.pages < PAGES);
    const only = await visit(`${address}harbours/holm`, makeSite({}), '--match', 'harbours/*');
    assert.equal(only.pages, 8);
    requests.length = 0;
    const used = await visit(address, makeSite({}), '--requests', '7');
    assert.equal(used.stopped, '7 requests');
    assert.ok(requests.length <= 7);
  });
});

test('behind a login: cookies and headers are sent to their host, never shown and never kept', async () => {
  await withPlatform(async ({ address }) => {
    const files = makeSite({
      'cookies.txt': '# Netscape HTTP Cookie File\n127.0.0.1\tFALSE\t/\tFALSE\t0\twatch\topen\n',
      'headers.txt': 'X-Watch: hidden-lantern\n',
      'broken.txt': 'X-Watch hidden-lantern\n',
    });
    const folder = makeSite({});
    const words = [`${address}crew/`, folder, '--depth', '0'];
    const credentials = [
      '--cookies',
      path.join(files, 'cookies.txt'),
      '--headers',
      path.join(files, 'headers.txt'),
    ];
    const { stdout, stderr } = await acervus('visit', ...words, ...credentials);
    assert.match(read(folder, 'crew/index.html'), /Everybody who works here/);
    const kept = [...snapshot(folder).values()].join('\n');
    for (const secret of ['hidden-lantern', 'watch=open'])
      assert.equal((stdout + stderr + kept).includes(secret), false, secret);
    const broken = await acervus('visit', ...words, '--headers', path.join(files, 'broken.txt'));
    assert.equal(broken.code, 2);
    assert.match(broken.stderr, /broken\.txt:1: is no header/);
    assert.doesNotMatch(broken.stderr, /lantern/);
  });
});

test('an archive is read without a question to anybody', async () => {
  const entry = (url: string, mimeType: string, text: string) => ({
    request: { method: 'GET', url },
    response: { status: 200, headers: [], redirectURL: '', content: { mimeType, text } },
  });
  const entries = [
    entry(
      'http://skerrin.invalid/fares/',
      'text/html',
      '<!DOCTYPE html><link rel=stylesheet href="/k.css?v=2"><p class=a>Fåre',
    ),
    entry('http://skerrin.invalid/k.css?v=2', 'text/css', '.a { color: red }'),
  ];
  const site = makeSite({ 'saved.har': JSON.stringify({ log: { entries } }) });
  const folder = makeSite({});
  const document = await visit(path.join(site, 'saved.har'), folder);
  assert.deepEqual([document.pages, document.sheets, document.requests], [1, 1, 0]);
  const { stdout } = await acervus('explain', 'http://skerrin.invalid/fares/', '.a', folder);
  assert.match(stdout, /color: red/);
});

test('a visit that is cut short goes on where it stopped', async () => {
  const many = 62;
  const body = (at: number): string =>
    `<!DOCTYPE html><title>${at}</title>${[1, 2].map((step) => `<a href="/p${1 + ((at * 2 + step - 1) % (many - 1))}">x</a>`).join('')}`;
  const answers = Object.fromEntries(
    Array.from({ length: many }, (_, at) => [at === 0 ? '/' : `/p${at}`, at] as const).map(
      ([address, at]) => [
        address,
        (response: ServerResponse) => void setTimeout(() => html(body(at))(response), at < 30 ? 0 : 150),
      ],
    ),
  );
  await withServer(answers, async (address, requests) => {
    const folder = path.join(makeSite({}), 'line');
    const child = spawn(process.execPath, [path.join(PROJECT, 'dist/cli/main.js'), 'visit', address, folder]);
    while (requests.length < 40) await new Promise((resolve) => setTimeout(resolve, 10));
    child.kill('SIGKILL');
    await new Promise((resolve) => child.on('exit', resolve));
    const asked = requests.length;
    const document = await visit(folder);
    assert.equal(document.resumed, true);
    assert.equal(document.pages, many);
    assert.ok(requests.length - asked < 40, `asked ${requests.length - asked} again`);
  });
});

test('a second visit that is cut short keeps the first one aside, and one that brings nothing changes nothing', async () => {
  const many = 20;
  let text = 'first';
  let wait = 0;
  const page = (at: number): string =>
    `<!DOCTYPE html><title>${at}</title><p>${text}${Array.from({ length: many }, (_, to) => `<a href="/p${to}">x</a>`).join('')}`;
  const answers = Object.fromEntries(
    Array.from({ length: many }, (_, at) => at).map((at) => [
      `/p${at}`,
      (response: ServerResponse) => void setTimeout(() => html(page(at))(response), at === 0 ? 0 : wait),
    ]),
  );
  const folder = path.join(makeSite({}), 'line');
  await withServer(answers, async (address, requests) => {
    await visit(`${address}p0`, folder);
    [text, wait] = ['second', 200];
    const asked = requests.length;
    const child = spawn(process.execPath, [path.join(PROJECT, 'dist/cli/main.js'), 'visit', folder]);
    while (requests.length < asked + 8) await new Promise((resolve) => setTimeout(resolve, 10));
    child.kill('SIGKILL');
    await new Promise((resolve) => child.on('exit', resolve));
    wait = 0;
    const document = await visit(folder);
    assert.equal(document.resumed, true);
    assert.deepEqual(document.changes?.pages.changed.length, many);
    for (let at = 0; at < many; at++) {
      assert.match(read(folder, `p${at}.html`), /second/);
      assert.match(read(folder, `.acervus/last-visit/p${at}.html`), /first/);
    }
  });
  // The server is gone.
  const before = snapshot(folder);
  const { code, stderr } = await acervus('visit', folder);
  assert.equal(code, 2);
  assert.match(stderr, /nobody answers there/);
  const after = snapshot(folder);
  for (const [file, bytes] of before)
    if (!file.startsWith('.acervus')) assert.equal(String(after.get(file)), String(bytes), file);
});

test('an override lands in the box, in its true place, and what is pasted is proven on the site as it runs', async () => {
  await withPlatform(async (platform) => {
    const folder = await brought(platform);
    const pages = [...snapshot(folder)].filter(([file]) => file.endsWith('.html'));
    const made = await acervus('override', '.kw-crumbs a', 'color: #1f3a56', folder, '--paste');
    assert.equal(made.code, 0, made.stderr);
    assert.match(made.stdout, /^\/\* Skerrin Line[\s\S]*\.kw-crumbs a \{\n\tcolor: #1f3a56;\n\}\n$/);
    assert.match(made.stderr, /paste it into #kw-own-css/);
    // The box of a page stands before a late sheet of the platform: what is written there must be stronger.
    const own = await acervus(
      'override',
      '.kw-table td',
      'padding: 2px',
      folder,
      '--within',
      'fares/index.html',
      '--paste',
    );
    assert.match(own.stdout, /body \.kw-table td \{ padding: 2px; \}/);
    assert.deepEqual(
      [...snapshot(folder)].filter(([file]) => file.endsWith('.html')),
      pages,
      'pages are as brought',
    );
    const early = await prove('--live', folder);
    assert.equal(early.code, 1);
    assert.match(early.said, /is different there: paste it/);
    assert.equal((await visit(folder)).boxes[0]?.state, 'waits');
    await edit(platform, 'site-css', made.stdout);
    await edit(platform, 'page-css/fares/', own.stdout);
    const late = await prove('--live', folder);
    assert.equal(late.code, 0, late.said);
    assert.equal(existsSync(path.join(folder, '.acervus/live')), false, 'what was fetched is taken away');
    assert.equal((await visit(folder)).boxes[0]?.state, 'pasted');
    // Somebody else writes into the box, too.
    await edit(platform, 'site-css', 'p { color: red }\n');
    const other = await prove('--live', folder);
    assert.equal(other.code, 1);
    await acervus('restyle', '.kw-crumbs', 'font-size: 12px', folder);
    assert.equal((await visit(folder)).boxes[0]?.state, 'both');
    await acervus('undo', folder);
  });
});

test('pages are never written, and what would need them is refused with the reason', async () => {
  await withPlatform(async (platform) => {
    const folder = await brought(platform);
    const before = snapshot(folder);
    const renamed = await acervus('rename', 'kw-crumbs', 'sk-crumbs', folder);
    assert.equal(renamed.code === 0, false);
    const nowhere = await acervus(
      'override',
      '.kw-table td',
      'padding: 2px',
      folder,
      '--within',
      'harbours/holm.html',
    );
    assert.equal(nowhere.code, 2);
    assert.match(nowhere.stderr, /none of them has a box of its own/);
    assert.deepEqual(snapshot(folder), before);
    const unnamed = makeSite({});
    const document = await visit(platform.address, unnamed);
    assert.deepEqual(document.likely[0]?.box, { style: '#kw-own-css' });
    assert.match(
      (await acervus('override', 'p', 'color: red', unnamed)).stderr,
      /it is not known which box is yours/,
    );
    assert.match(
      (await acervus('visit', unnamed, '--own', '#kw-none')).stderr,
      /#kw-none: stands on no page/,
    );
  });
});

test('a draft fills the box and leaves a work list, which the next visits tick', async () => {
  await withPlatform(async (platform) => {
    const folder = await brought(platform);
    await acervus('draft', folder);
    const adopted = await json<{ files: string[]; workList: { items: number; early: number } }>(
      'adopt',
      folder,
    );
    assert.deepEqual(adopted.files, ['own/kw-own-css.css']);
    const list = JSON.parse(read(folder, 'work-list.json')) as WorkList;
    assert.equal(list.items.length, adopted.workList.items);
    assert.ok(list.items.length > 15);
    for (const form of ['md', 'csv', 'html'])
      assert.match(read(folder, `work-list.${form}`), /Children under six travel free/);
    assert.match(read(folder, 'work-list.html'), new RegExp(`${platform.address}fares/#b\\d+`));
    await edit(platform, 'site-css', read(folder, 'own/kw-own-css.css'));
    const pasted = await prove('--live', folder);
    assert.equal(pasted.code, 0, pasted.said);
    const half = list.items.filter((_, at) => at % 2 === 0);
    for (const { element, styleLeft, classIn } of half) {
      const id = /#([^.]+)/.exec(element)?.[1];
      await edit(platform, `block/${id}`, JSON.stringify({ style: styleLeft, class: classIn.join(' ') }));
    }
    const done = await visit(folder);
    assert.deepEqual(done.workList, {
      file: 'work-list.html',
      open: list.items.length - half.length,
      done: half.length,
    });
    const against = await prove(folder, '--against', 'last-visit');
    assert.equal(against.code, 0, against.said);
  });
});

test('an update of the platform: on a visited copy, and from one visit to the next, with the mended text to paste', async () => {
  await withPlatform(async (platform) => {
    const folder = await brought(platform);
    await acervus('override', '.kw-badge', 'font-weight: 700', folder);
    await acervus('override', '.kw-table td', 'padding: 3px', folder);
    const asIs = read(folder, 'own/kw-own-css.css');
    await edit(platform, 'site-css', asIs);
    await visit(folder);
    await edit(platform, 'version', '4.0');
    const copy = makeSite({});
    await visit(platform.address, copy, '--own', '#kw-own-css');
    type Found = { rules: { selector: string; fate: string }[] };
    const fates = ({ rules }: Found): string[] =>
      rules
        .filter(({ fate }) => fate !== 'holds')
        .map(({ selector, fate }) => `${selector} ${fate}`)
        .sort();
    const expected = ['.kw-badge name gone', '.kw-table th beaten'];
    assert.deepEqual(fates(await json<Found>('outlast', folder, '--with', copy)), expected);
    await visit(folder);
    assert.deepEqual(fates(await json<Found>('outlast', folder, '--visits')), expected);
    const mended = await acervus('outlast', folder, '--visits', '--mend', '--paste');
    assert.match(mended.stdout, /\.kw-tag/);
    await edit(platform, 'site-css', mended.stdout);
    const live = await prove('--live', folder);
    assert.equal(live.code, 0, live.said);
    assert.deepEqual(fates(await json<Found>('outlast', folder, '--visits')), []);
  });
});

test('explain takes what an inspector copies: a selector, an XPath, a tag, and the address of a page', async () => {
  await withPlatform(async (platform) => {
    const folder = await brought(platform);
    const at = async (asked: string): Promise<string | undefined> => {
      const { stdout, stderr } = await acervus(
        'explain',
        `${platform.address}fares/#x`,
        asked,
        folder,
        '--json',
      );
      return stdout === '' ? stderr : (JSON.parse(stdout) as { shown: string }).shown;
    };
    assert.match(String(await at('body > div > div.kw-crumbs')), /^div\.kw-crumbs/);
    assert.match(String(await at('//*[@id="kw-top"]/ul/li[2]')), /^li\.kw-here/);
    assert.match(String(await at('/html/body/div/div[1]')), /^div#kw-top/);
    assert.match(String(await at('<div class="kw-notice">…</div>')), /^div#b\d+\.kw-notice/);
    assert.match(String(await at('/html/body/main')), /picks out nothing|nothing/);
    assert.match((await acervus('explain', '/nowhere', 'a', folder)).stderr, /was not brought by the visit/);
  });
});

test('a folder of something else is left alone, and a broken manifest is one line', async () => {
  const other = makeSite({ 'index.html': '<p>mine' });
  const taken = await acervus('visit', 'http://127.0.0.1:1/', other);
  assert.equal(taken.code, 2);
  assert.match(taken.stderr, /holds index\.html, which no visit brought/);
  assert.equal(readFileSync(path.join(other, 'index.html'), 'utf8'), '<p>mine');
  await withPlatform(async (platform) => {
    const folder = await brought(platform, '--pages', '2');
    const manifest = read(folder, 'visit.json');
    for (const broken of ['{', '{}', manifest.replace('"index.html"', '"../x.html"')]) {
      writeFileSync(path.join(folder, 'visit.json'), broken);
      const { code, stderr } = await acervus('survey', folder);
      assert.equal(code, 2, broken);
      assert.match(stderr, /^acervus: visit\.json: is not as it was written/);
    }
  });
});
