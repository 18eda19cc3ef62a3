// Cookies and headers from a person's files: sent, never printed, never kept in the folder.

import { existsSync, readFileSync } from 'node:fs';
import type { CookieJar } from 'tough-cookie';
import { linesOf, withoutStart } from '../../core/base/phrases.js';
import { UsageError } from '../../core/base/usage-error.js';

export interface CredentialFiles {
  /** A cookie file in Netscape's form. */
  readonly cookies?: string | undefined;
  /** Lines of `name: value`. */
  readonly headers?: string | undefined;
}

export class CredentialJar {
  readonly headers: Readonly<Record<string, string>>;
  readonly #given: readonly GivenCookie[];
  readonly #origin: string;
  /** Made when there is a cookie: most sites ask for none. */
  #jar: CookieJar | undefined;

  /** In: the origin that headers are for: no other host is told them. Throws `UsageError`. */
  constructor({ cookies, headers }: CredentialFiles, origin: string) {
    this.#origin = origin;
    this.headers = headers === undefined ? {} : readHeaders(headers);
    this.#given = cookies === undefined ? [] : readCookies(cookies);
  }

  async headersFor(address: string): Promise<Record<string, string>> {
    const jar = this.#given.length > 0 ? await this.#open() : this.#jar;
    const cookie = (await jar?.getCookieString(address)) ?? '';
    const own = new URL(address).origin === this.#origin ? this.headers : {};
    return { ...own, ...(cookie === '' ? {} : { cookie: [own.cookie, cookie].filter(Boolean).join('; ') }) };
  }

  /** What a server sets within a visit is sent back in it. */
  async learn(address: string, cookies: readonly string[]): Promise<void> {
    const jar = cookies.length === 0 ? undefined : await this.#open();
    for (const one of cookies) await jar?.setCookie(one, address, { ignoreError: true });
  }

  /** For a browser: each cookie with the host that it is for. */
  async cookies(): Promise<BrowserCookie[]> {
    const kept = this.#given.length > 0 ? (await this.#open()).serializeSync()?.cookies : [];
    return (kept ?? []).map(({ key, value, domain, path, secure }) => ({
      name: String(key),
      value: String(value),
      domain: String(domain),
      path: String(path ?? '/'),
      secure: secure === true,
    }));
  }

  async #open(): Promise<CookieJar> {
    if (this.#jar !== undefined) return this.#jar;
    const { Cookie, CookieJar } = await import('tough-cookie');
    if (this.#jar !== undefined) return this.#jar;
    this.#jar = new CookieJar(undefined, { rejectPublicSuffixes: false });
    for (const { address, ...given } of this.#given)
      this.#jar.setCookieSync(new Cookie(given), address, { ignoreError: true });
    return this.#jar;
  }
}

interface GivenCookie {
  readonly key: string;
  readonly value: string;
  /** `null` for the host alone. */
  readonly domain: string | null;
  readonly path: string;
  readonly secure: boolean;
  readonly expires: Date | 'Infinity';
  /** What it was set by. */
  readonly address: string;
}

interface BrowserCookie {
  readonly name: string;
  readonly value: string;
  readonly domain: string;
  readonly path: string;
  readonly secure: boolean;
}

function readLines(file: string): string[] {
  if (!existsSync(file)) throw new UsageError('visit-file', { file });
  return linesOf(readFileSync(file, 'utf8'));
}

/** A line that is none is told by its number: what stands in it is nobody's to see. */
function readHeaders(file: string): Record<string, string> {
  const headers: Record<string, string> = {};
  for (const [at, line] of readLines(file).entries()) {
    if (line.trim() === '' || line.startsWith('#')) continue;
    const [, name, value] = /^([!#$%&'*+.^_`|~\w-]+)\s*:\s*(.*)$/.exec(line) ?? [];
    if (name === undefined || value === undefined)
      throw new UsageError('visit-header', { file, line: at + 1 });
    headers[name.toLowerCase()] = value.trim();
  }
  return headers;
}

/** Seven fields a line: domain, for its subdomains too, path, secure, expiry, name, value. */
function readCookies(file: string): GivenCookie[] {
  return readLines(file).flatMap((line, at) => {
    const text = line.replace(/^#HttpOnly_/i, '');
    if (text.trim() === '' || text.startsWith('#')) return [];
    const [domain, , path, secure, expiry, name, ...value] = text.split('\t');
    if (name === undefined || domain === undefined || path === undefined || !/^\d*$/.test(expiry ?? ''))
      throw new UsageError('visit-cookie', { file, line: at + 1 });
    const host = withoutStart(domain, '.');
    const isSecure = secure?.toUpperCase() === 'TRUE';
    return [
      {
        key: name,
        value: value.join('\t'),
        domain: /^[\d.]+$|:/.test(host) || !host.includes('.') ? null : host,
        path: path === '' ? '/' : path,
        secure: isSecure,
        expires: Number(expiry) > 0 ? new Date(Number(expiry) * 1000) : 'Infinity',
        address: `${isSecure ? 'https' : 'http'}://${host}${path}`,
      },
    ];
  });
}
