// Serves one state of a site to the browser on this machine alone, so that addresses mean what they mean on a server, for a
// folder as for a commit.

import { createServer, type Server } from 'node:http';
import path from 'node:path';
import { UsageError } from '../core/base/usage-error.js';
import { decodeFile } from '../site/files/encoding.js';
import type { SiteFiles } from '../site/files/files.js';
import { readConfig } from '../site/files/pages.js';
import { readVisited } from '../site/visiting/visited.js';
import { type Visited, withBoxes, withSheets } from '../site/visiting/with-boxes.js';

export interface ServedSite {
  /** On this machine. */
  readonly port: number;
  close(): void;
}

const TYPES: Readonly<Record<string, string>> = {
  '.css': 'text/css',
  '.html': 'text/html',
  '.htm': 'text/html',
  '.shtml': 'text/html',
  '.js': 'text/javascript',
  '.json': 'application/json',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
  '.gif': 'image/gif',
  '.jpg': 'image/jpeg',
  '.jpeg': 'image/jpeg',
  '.webp': 'image/webp',
  '.avif': 'image/avif',
  '.ico': 'image/x-icon',
  '.woff': 'font/woff',
  '.woff2': 'font/woff2',
  '.ttf': 'font/ttf',
  '.otf': 'font/otf',
};

export async function serveSite(files: SiteFiles): Promise<ServedSite> {
  const visited = readVisited(files, await readConfig(files));
  const server = createServer((request, response) => {
    const asked = request.url ?? '/';
    const bytes = visited === undefined ? readRequested(files, asked) : readBrought(files, asked, visited);
    if (bytes === undefined) {
      response.writeHead(404).end();
      return;
    }
    const [address] = (request.url ?? '').split(/[?#]/);
    const type = TYPES[path.extname(address ?? '').toLowerCase()] ?? 'application/octet-stream';
    // No character set: the browser is to find it as the page declares it.
    response.writeHead(200, { 'content-type': type, 'cache-control': 'max-age=3600' }).end(bytes);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { port: portOf(server), close: () => server.close() };
}

function readRequested(files: SiteFiles, address: string): Buffer | undefined {
  try {
    const { pathname } = new URL(address, 'http://site.invalid/');
    const file = decodeURIComponent(pathname).replace(/^\/+/, '');
    // What is hidden, as a repository and its secrets are, is not one of the pages.
    return file.split('/').some((part) => part.startsWith('.')) ? undefined : files.read(file);
  } catch (error) {
    // A malformed address, or a link out of the site, is not there for the browser.
    if (error instanceof URIError || error instanceof TypeError || error instanceof UsageError)
      return undefined;
    throw error;
  }
}

/** Of a running system: a page with its boxes as they are here, and what is asked for by its address there. */
function readBrought(files: SiteFiles, asked: string, visited: Visited): Buffer | undefined {
  const file = URL.canParse(asked, visited.origin)
    ? visited.files.get(new URL(asked, visited.origin).href)
    : undefined;
  const bytes = readRequested(files, asked) ?? (file === undefined ? undefined : files.read(file));
  const page = decodeURIComponent(asked.replace(/^\/+|[?#].*$/gs, ''));
  if (bytes === undefined || !visited.addressOf.has(page)) return bytes;
  const text = decodeFile(bytes)?.text;
  if (text === undefined) return bytes;
  const isThere = (box: string): boolean => files.read(box) !== undefined;
  return Buffer.from(`\uFEFF${withSheets(withBoxes(text, page, visited, isThere), page, visited)}`, 'utf8');
}

function portOf(server: Server): number {
  const address = server.address();
  return typeof address === 'object' && address !== null ? address.port : 0;
}
