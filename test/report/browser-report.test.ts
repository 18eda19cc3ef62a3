import assert from 'node:assert/strict';
import { test } from 'node:test';
import { type BrowserReport, browserReport, type ReportedView } from '../../src/report/browser-report.js';

const same: ReportedView = {
  name: '1200 px',
  nodes: 40,
  differing: 0,
  differingPixels: 0,
  listed: [],
  before: 'pictures/1-after.png',
  after: 'pictures/1-after.png',
  pixels: undefined,
  sight: 0,
};
const different: ReportedView = {
  ...same,
  name: '500 px',
  differing: 3,
  differingPixels: 1234,
  listed: [{ node: 'p.a', property: 'color', before: 'red', after: 'blue' }],
  before: 'pictures/1-before.png',
  pixels: 'pictures/1-pixels.png',
  sight: 42,
};
const report: BrowserReport = {
  site: 'skerrin-line',
  against: 'HEAD',
  made: '2026-01-31 10:20',
  browser: 'Chromium, scripts off',
  pages: [
    { path: 'fares/day.html', views: [same, different] },
    { path: 'index.html', views: [same] },
  ],
};

test('a report tells first what differs, with its pictures, and then what does not', () => {
  const html = browserReport(report);
  assert.match(html, /1 of 2 pages look different\./);
  assert.ok(html.indexOf('fares/day.html') < html.indexOf('The same'));
  assert.ok(html.indexOf('>index.html') > html.indexOf('The same'));
  assert.match(html, /500 px: 3 nodes differ/);
  assert.match(html, /1\s234 pixels differ/);
  assert.match(html, /The same at 1200 px\./);
  assert.match(html, /object-position: 0 42%/);
  assert.match(html, /<td>color<\/td><td>red<\/td><td>blue<\/td>/);
});

test('without a difference it says so, and shows every page once', () => {
  const html = browserReport({ ...report, pages: [{ path: 'index.html', views: [same] }] });
  assert.match(html, /Nothing looks different\./);
  assert.equal(html.match(/<img /g)?.length, 1);
});

test('text of a site is text in the report, and nothing in it can run', () => {
  const evil = '"><script>alert(1)</script><img src=x onerror=alert(1)>';
  const html = browserReport({
    ...report,
    site: evil,
    against: evil,
    pages: [
      {
        path: evil,
        views: [{ ...different, listed: [{ node: evil, property: evil, before: evil, after: evil }] }],
      },
    ],
  });
  assert.doesNotMatch(html, /<script|<img src=x/);
  assert.match(html, /default-src 'none'/);
});
