// A stand-in for a running platform: pages of blocks out of a JSON file, a box for the CSS of the site and one for that of a
// page, a class field on each block, and an editor that is asked over HTTP, as a person's browser would.
//   node demo/platform-server/server.mjs [port]

import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import http from 'node:http';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { pageOf } from './markup.mjs';

const HERE = new URL('.', import.meta.url);
const SLOW = 400;
const PASSWORD = 'lantern';

/**
 * Starts the platform on this machine.
 * Out: its address; `site`, what is in its database; `close`, which ends it.
 */
export async function startPlatform({ port = 0, version = '3.1' } = {}) {
  const site = JSON.parse(readFileSync(new URL('pages.json', HERE), 'utf8'));
  const state = { site, version, failed: new Set(), requests: [] };
  const server = http.createServer((request, response) => {
    answer(state, request, response).catch((error) => {
      response.writeHead(500, { 'content-type': 'text/plain' }).end(String(error.message));
    });
  });
  await new Promise((resolve) => server.listen(port, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${server.address().port}/`,
    site,
    requests: state.requests,
    close: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(resolve);
      }),
  };
}

async function answer(state, request, response) {
  const url = new URL(request.url, 'http://platform');
  const path = decodeURIComponent(url.pathname);
  state.requests.push(`${request.method} ${request.url}`);
  if (path.startsWith('/editor/')) return edit(state, path, request, response);
  if (path === '/login') return logIn(request, response);
  if (path.startsWith('/kit/')) return kit(state, path, request, response);
  if (path === '/robots.txt') return send(request, response, 'text/plain', 'User-agent: *\nDisallow: /drafts/\n');
  if (/^\/sitemap(-\w+)?\.xml(\.gz)?$/.test(path)) return sitemap(state, path, request, response);
  const page = state.site.pages[path];
  if (page === undefined) {
    // One page under two addresses, and one that has moved.
    if (path === '/index.html') return send(request, response, 'text/html; charset=utf-8', pageOf(state, '/'));
    if (path === '/prices') return response.writeHead(301, { location: '/fares/' }).end();
    return send(request, response, 'text/html; charset=utf-8', '<!DOCTYPE html><title>Not here</title>', 404);
  }
  if (page.login && !/(^|;\s*)watch=open\b/.test(request.headers.cookie ?? ''))
    return response.writeHead(302, { location: `/login?then=${encodeURIComponent(path)}` }).end();
  if (page.fails && !state.failed.has(path)) {
    state.failed.add(path);
    return response.writeHead(503, { 'content-type': 'text/plain' }).end('busy');
  }
  if (page.slow) await new Promise((resolve) => setTimeout(resolve, SLOW));
  return send(request, response, 'text/html; charset=utf-8', pageOf(state, path));
}

/** With a tag of the text, so that whoever asks again is told when nothing has changed. */
function send(request, response, type, body, status = 200) {
  const etag = `"${createHash('sha256').update(body).digest('base64url').slice(0, 16)}"`;
  if (status === 200 && request.headers['if-none-match'] === etag)
    return response.writeHead(304, { etag }).end();
  const bytes = Buffer.from(body);
  response.writeHead(status, { 'content-type': type, etag, 'content-length': bytes.length });
  return response.end(request.method === 'HEAD' ? undefined : bytes);
}

function kit({ version }, path, request, response) {
  const name = path.slice('/kit/'.length);
  if (name === 'kelpwork.css') {
    const sheet = readFileSync(new URL(`../site/platform/${version}/kelpwork.css`, HERE), 'utf8');
    return send(request, response, 'text/css; charset=utf-8', sheet);
  }
  if (name === 'late.css' || name === 'tides.js') {
    const text = readFileSync(new URL(name, HERE), 'utf8');
    return send(request, response, name.endsWith('.js') ? 'text/javascript' : 'text/css', text);
  }
  return response.writeHead(404).end();
}

function sitemap({ site }, path, request, response) {
  const origin = `http://${request.headers.host}`;
  const around = (name, entries) =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<${name} xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${entries.join('\n')}\n</${name}>\n`;
  if (path === '/sitemap.xml') {
    const parts = ['harbours', 'rest'].map((part) => `<sitemap><loc>${origin}/sitemap-${part}.xml.gz</loc></sitemap>`);
    return send(request, response, 'application/xml', around('sitemapindex', parts));
  }
  const isHarbour = path.includes('harbours');
  const pages = Object.keys(site.pages).filter(
    (one) => one.startsWith('/harbours/') === isHarbour && !site.pages[one].login,
  );
  const text = around('urlset', pages.map((one) => `<url><loc>${origin}${one}</loc></url>`));
  return response.writeHead(200, { 'content-type': 'application/gzip' }).end(gzipSync(text));
}

async function logIn(request, response) {
  if (request.method !== 'POST')
    return send(request, response, 'text/html; charset=utf-8', '<!DOCTYPE html><title>Log in</title><form method="post"><input name="word" type="password"></form>');
  const word = new URLSearchParams(await bodyOf(request)).get('word');
  if (word !== PASSWORD) return response.writeHead(403).end();
  return response.writeHead(302, { location: '/crew/', 'set-cookie': 'watch=open; Path=/; HttpOnly' }).end();
}

/**
 * PUT /editor/site-css, /editor/page-css/<path>: a text. PUT /editor/block/<id>: { class, style }. PUT /editor/version: a
 * version of the kit.
 */
async function edit(state, path, request, response) {
  if (request.method !== 'PUT') return response.writeHead(405).end();
  const body = await bodyOf(request);
  const { pages } = state.site;
  if (path === '/editor/site-css') state.site.css = body;
  else if (path === '/editor/version') state.version = body.trim();
  else if (path.startsWith('/editor/page-css/')) {
    const page = pages[path.slice('/editor/page-css'.length)];
    if (page === undefined) return response.writeHead(404).end();
    page.css = body;
  } else if (path.startsWith('/editor/block/')) {
    const id = path.slice('/editor/block/'.length);
    const block = Object.values(pages)
      .flatMap(({ blocks }) => blocks)
      .find((one) => one.id === id);
    if (block === undefined) return response.writeHead(404).end();
    Object.assign(block, JSON.parse(body));
  } else return response.writeHead(404).end();
  return response.writeHead(204).end();
}

async function bodyOf(request) {
  let text = '';
  for await (const part of request) text += part;
  return text;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const { address } = await startPlatform({ port: Number(process.argv[2] ?? 8700) });
  process.stdout.write(`Kelpwork runs at ${address}\n`);
}
