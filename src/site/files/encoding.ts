// Bytes to text and back, exactly: a file that would not come back byte for byte is not edited.

import { isAscii, isUtf8 } from 'node:buffer';
import { startsWithAny } from '../../core/base/phrases.js';

export interface Decoded {
  /** Without a byte order mark. */
  readonly text: string;
  readonly encoding: Encoding;
  /** UTF-8 and something else: what is left when a piece is taken out may be read as another encoding. */
  readonly isMixed: boolean;
}

export interface Encoding {
  /** The Encoding Standard's name, lower case: `utf-8`, `windows-1252`, `shift_jis`. */
  readonly name: string;
  readonly mark: boolean;
}

/**
 * Decodes a file as a browser would without a server: byte order mark, then a declared charset, then UTF-8, and
 * windows-1252 for what is no UTF-8 (HTML standard, "determining the character encoding").
 * Out: `undefined` when no encoding gives the same bytes back: the file is binary.
 */
export function decodeFile(bytes: Buffer): Decoded | undefined {
  for (const encoding of candidates(bytes)) {
    const text = decodeAs(bytes, encoding);
    if (text !== undefined && !text.includes('\0'))
      return { text, encoding, isMixed: isMixed(bytes, encoding) };
  }
  return undefined;
}

/** Whether a file that nothing says the encoding of holds letters of UTF-8, and bytes that are none. */
function isMixed(bytes: Buffer, { name }: Encoding): boolean {
  if (name !== 'windows-1252') return false;
  const [first] = candidates(bytes);
  return (
    first?.name === 'utf-8' &&
    /[\xc3-\xdf][\x80-\xbf]|[\xe0-\xef][\x80-\xbf]{2}/.test(bytes.toString('latin1'))
  );
}

/** Decodes in a known encoding; `undefined` when the text would not give the same bytes back. */
export function decodeAs(bytes: Buffer, encoding: Encoding): string | undefined {
  if (encoding.name === 'utf-8') {
    // What is valid comes back as it was: nothing has to be encoded to see it.
    if (!isUtf8(bytes)) return undefined;
    const text = bytes.toString('utf8');
    return encoding.mark ? text.slice(1) : text;
  }
  if (isAscii(bytes) && !startsWithAny(encoding.name, ASCII_IS_MORE)) return bytes.toString('latin1');
  const text = decode(bytes, encoding);
  return text !== undefined && encodeFile(text, encoding).equals(bytes) ? text : undefined;
}

/** The bytes of a text. What the encoding has no bytes for becomes a question mark: see `decodeAs` for the check. */
export function encodeFile(text: string, { name, mark }: Encoding): Buffer {
  const marked = mark ? `\uFEFF${text}` : text;
  switch (name) {
    case 'utf-8':
      return Buffer.from(marked, 'utf8');
    case 'utf-16le':
      return Buffer.from(marked, 'utf16le');
    case 'utf-16be':
      return Buffer.from(marked, 'utf16le').swap16();
    default: {
      const table = bytesOf(name);
      const bytes = Buffer.allocUnsafe(2 * marked.length);
      let length = 0;
      for (const char of marked) for (const byte of table.get(char) ?? UNKNOWN) bytes[length++] = byte;
      return bytes.subarray(0, length);
    }
  }
}

/** Encodings whose bytes below 128 are not what ASCII says (Encoding Standard; all others hold it as it is). */
const ASCII_IS_MORE = ['utf-16', 'iso-2022-jp', 'replacement'];

/** A question mark. */
const UNKNOWN = [63];

function candidates(bytes: Buffer): Encoding[] {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return [{ name: 'utf-8', mark: true }];
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return [{ name: 'utf-16le', mark: true }];
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return [{ name: 'utf-16be', mark: true }];
  const head = bytes.subarray(0, 1024).toString('latin1');
  const label = /charset\s*=?\s*["']?\s*([\w:.-]+)/i.exec(head)?.[1];
  const declared = label === undefined ? undefined : standardName(label);
  const utf8: Encoding = { name: 'utf-8', mark: false };
  const western: Encoding = { name: 'windows-1252', mark: false };
  // A page that can be read so far as to say "utf-16" is not written in it: browsers take UTF-8.
  if (declared === undefined || declared.startsWith('utf-')) return [utf8, western];
  // The last resort keeps every byte, whatever it stands for: markup is ASCII in all of these.
  return [{ name: declared, mark: false }, utf8, western];
}

/** The standard's name for a label such as `latin1`; `undefined` for one that no browser knows. */
export function standardName(label: string): string | undefined {
  try {
    return new TextDecoder(label).encoding;
  } catch {
    return undefined;
  }
}

function decode(bytes: Buffer, { name, mark }: Encoding): string | undefined {
  if (name === 'utf-16be') {
    if (bytes.length % 2 !== 0) return undefined;
    return decode(Buffer.from(bytes).swap16(), { name: 'utf-16le', mark });
  }
  const text = new TextDecoder(name, { ignoreBOM: true }).decode(bytes);
  return mark ? text.slice(1) : text;
}

const tables = new Map<string, ReadonlyMap<string, readonly number[]>>();

/** The bytes of every character that one or two bytes make: what all encodings without a state consist of, nearly. */
function bytesOf(name: string): ReadonlyMap<string, readonly number[]> {
  let table = tables.get(name);
  if (table === undefined) {
    table = makeTable(name);
    tables.set(name, table);
  }
  return table;
}

function makeTable(name: string): ReadonlyMap<string, readonly number[]> {
  const table = new Map<string, readonly number[]>();
  const decoder = new TextDecoder(name);
  const leads: number[] = [];
  for (let byte = 0; byte < 256; byte++) {
    const char = decoder.decode(Uint8Array.of(byte));
    if (char === '\uFFFD') leads.push(byte);
    else if (!table.has(char)) table.set(char, [byte]);
  }
  for (const lead of leads) {
    for (let trail = 0x40; trail < 0xff; trail++) {
      const text = decoder.decode(Uint8Array.of(lead, trail));
      if (text !== '' && !text.includes('\uFFFD') && [...text].length === 1 && !table.has(text))
        table.set(text, [lead, trail]);
    }
  }
  return table;
}
