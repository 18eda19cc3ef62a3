// Bytes to text and back, exactly: a file that would not come back byte for byte is not edited.

export interface Decoded {
  /** Without a byte order mark. */
  readonly text: string;
  readonly encoding: Encoding;
}

export interface Encoding {
  readonly name: 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';
  readonly mark: boolean;
}

/**
 * Decodes a file as a browser would without a server: byte order mark, then a declared charset, then UTF-8, and
 * windows-1252 for what is no UTF-8.
 * Out: `undefined` when no supported encoding gives the same bytes back: the file is binary.
 */
export function decodeFile(bytes: Buffer): Decoded | undefined {
  for (const encoding of candidates(bytes)) {
    const text = decodeAs(bytes, encoding);
    if (text !== undefined && !text.includes('\0')) return { text, encoding };
  }
  return undefined;
}

/** Decodes in a known encoding; `undefined` when the text would not give the same bytes back. */
export function decodeAs(bytes: Buffer, encoding: Encoding): string | undefined {
  const text = decode(bytes, encoding);
  return text !== undefined && encodeFile(text, encoding).equals(bytes) ? text : undefined;
}

export function encodeFile(text: string, { name, mark }: Encoding): Buffer {
  const marked = mark ? `\uFEFF${text}` : text;
  switch (name) {
    case 'utf-8':
      return Buffer.from(marked, 'utf8');
    case 'utf-16le':
      return Buffer.from(marked, 'utf16le');
    case 'utf-16be':
      return Buffer.from(marked, 'utf16le').swap16();
    case 'windows-1252':
      return Buffer.from(Array.from(text, (char) => windows1252().get(char) ?? 63));
  }
}

function candidates(bytes: Buffer): Encoding[] {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return [{ name: 'utf-8', mark: true }];
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return [{ name: 'utf-16le', mark: true }];
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return [{ name: 'utf-16be', mark: true }];
  const head = bytes.subarray(0, 1024).toString('latin1');
  const declared = /charset\s*=?\s*["']?\s*([\w-]+)/i.exec(head)?.[1]?.toLowerCase();
  const western: Encoding = { name: 'windows-1252', mark: false };
  const utf8: Encoding = { name: 'utf-8', mark: false };
  const isWestern =
    declared !== undefined && /^(windows-1252|iso-8859-1|latin1|us-ascii|ascii|cp1252)$/.test(declared);
  return isWestern ? [western] : [utf8, western];
}

function decode(bytes: Buffer, { name, mark }: Encoding): string | undefined {
  if (name === 'utf-16be') {
    if (bytes.length % 2 !== 0) return undefined;
    return decode(Buffer.from(bytes).swap16(), { name: 'utf-16le', mark });
  }
  const text = new TextDecoder(name, { ignoreBOM: true }).decode(bytes);
  return mark ? text.slice(1) : text;
}

let western: Map<string, number> | undefined;

function windows1252(): ReadonlyMap<string, number> {
  if (western === undefined) {
    const decoder = new TextDecoder('windows-1252');
    western = new Map(Array.from({ length: 256 }, (_, byte) => [decoder.decode(Uint8Array.of(byte)), byte]));
  }
  return western;
}
