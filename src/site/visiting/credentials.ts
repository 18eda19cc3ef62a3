// Cookies and headers from a person's files: sent, never printed, never kept in the folder.

import { existsSync, readFileSync } from 'node:fs';
import { Cookie, CookieJar } from 'tough-cookie';
import { UsageError } from '../../core/usage-error.js';

export interface CredentialFiles {
  /** A cookie file in Netscape's form. */
  readonly cookies?: string | undefined;
  /** Lines of `name: value`. */
  readonly headers?: string | undefined;
}

export class CredentialJar {
  readonly #jar = new CookieJar(undefined, { rejectPublicSuffixes: false });
  readonly #headers: Readonly<Record<string, string>>;
  readonly #origin: string;

  /** In: the origin that headers are for: no other host is told them. Throws `UsageError`. */
  constructor({ cookies, headers }: CredentialFiles, origin: string) {
    this.#origin = origin;
    this.#headers = headers === undefined ? {} : readHeaders(headers);
    if (cookies !== undefined)
      for (const { cookie, address } of readCookies(cookies))
        this.#jar.setCookieSync(cookie, address, { ignoreError: true });
  }

  async headersFor(address: string): Promise<Record<string, string>> {
    const cookie = await this.#jar.getCookieString(address);
    const own = new URL(address).origin === this.#origin ? this.#headers : {};
    return { ...own, ...(cookie === '' ? {} : { cookie: [own.cookie, cookie].filter(Boolean).join('; ') }) };
  }

  /** What a server sets within a visit is sent back in it. */
  async learn(address: string, cookies: readonly string[]): Promise<void> {
    for (const one of cookies) await this.#jar.setCookie(one, address, { ignoreError: true });
  }

  /** For a browser: each cookie with the host that it is for. */
  cookies(): { name: string; value: string; domain: string; path: string; secure: boolean }[] {
    return (this.#jar.serializeSync()?.cookies ?? []).map(({ key, value, domain, path, secure }) => ({
      name: String(key),
      value: String(value),
      domain: String(domain),
      path: String(path ?? '/'),
      secure: secure === true,
    }));
  }

  get headers(): Readonly<Record<string, string>> {
    return this.#headers;
  }
}

function readLines(file: string): string[] {
  if (!existsSync(file)) throw new UsageError('visit-file', { file });
  return readFileSync(file, 'utf8').split(/\r?\n/);
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
function readCookies(file: string): { cookie: Cookie; address: string }[] {
  return readLines(file).flatMap((line, at) => {
    const text = line.replace(/^#HttpOnly_/i, '');
    if (text.trim() === '' || text.startsWith('#')) return [];
    const [domain, , path, secure, expiry, name, ...value] = text.split('\t');
    if (name === undefined || domain === undefined || path === undefined || !/^\d*$/.test(expiry ?? ''))
      throw new UsageError('visit-cookie', { file, line: at + 1 });
    const host = domain.replace(/^\./, '');
    const isSecure = secure?.toUpperCase() === 'TRUE';
    const cookie = new Cookie({
      key: name,
      value: value.join('\t'),
      domain: /^[\d.]+$|:/.test(host) || !host.includes('.') ? null : host,
      path: path === '' ? '/' : path,
      secure: isSecure,
      expires: Number(expiry) > 0 ? new Date(Number(expiry) * 1000) : 'Infinity',
    });
    return [{ cookie, address: `${isSecure ? 'https' : 'http'}://${host}${path}` }];
  });
}
