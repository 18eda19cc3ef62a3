// The stand-in for a running platform, and servers that are up to no good.

import http from 'node:http';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { PROJECT } from './site.js';

export interface Platform {
  readonly address: string;
  /** `GET /fares/` each. */
  readonly requests: string[];
  close(): Promise<void>;
}

const SERVER = pathToFileURL(path.join(PROJECT, 'demo', 'platform-server', 'server.mjs')).href;

export async function withPlatform(use: (platform: Platform) => Promise<void>): Promise<void> {
  const { startPlatform } = (await import(SERVER)) as { startPlatform: () => Promise<Platform> };
  const platform = await startPlatform();
  try {
    await use(platform);
  } finally {
    await platform.close();
  }
}

/** What a person does in the editor of the platform. */
export async function edit({ address }: Platform, where: string, body: string): Promise<void> {
  const { status } = await fetch(new URL(`editor/${where}`, address), { method: 'PUT', body });
  if (status !== 204) throw new Error(`${where} answered ${status}`);
}

export type Answers = Readonly<
  Record<string, (response: http.ServerResponse, request: http.IncomingMessage) => void>
>;

/** A server that answers by path, 404 for any other. */
export async function withServer(
  answers: Answers,
  use: (address: string, requests: readonly http.IncomingMessage[]) => Promise<void>,
): Promise<void> {
  const requests: http.IncomingMessage[] = [];
  const server = http.createServer((request, response) => {
    requests.push(request);
    const answer = answers[request.url ?? ''];
    if (answer === undefined) response.writeHead(404).end();
    else answer(response, request);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  try {
    await use(`http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}/`, requests);
  } finally {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  }
}

export function html(body: string, headers: http.OutgoingHttpHeaders = {}) {
  return (response: http.ServerResponse): void => {
    response.writeHead(200, { 'content-type': 'text/html', ...headers }).end(body);
  };
}
