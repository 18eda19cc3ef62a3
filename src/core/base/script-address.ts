// Scripts that stand in an address.

/**
 * The script that an address is: `javascript:…` and `data:text/javascript,…`, as a browser reads them (URL standard, "basic
 * URL parser": blanks at the ends and every tab and line break go). Out: `undefined` for every other address.
 */
export function scriptInAddress(address: string): string | undefined {
  const plain = address.replace(/^[\0- ]+/, '').replace(/[\t\n\r]/g, '');
  const [scheme, kind] = /^(javascript|data):/i.exec(plain) ?? [];
  if (scheme === undefined) return undefined;
  const rest = plain.slice(scheme.length);
  if (kind!.toLowerCase() === 'javascript') return decoded(rest);
  const comma = rest.indexOf(',');
  const type = rest.slice(0, comma).toLowerCase();
  if (comma < 0 || !/(java|ecma)script/.test(type)) return undefined;
  const body = decoded(rest.slice(comma + 1));
  return type.endsWith(';base64') ? Buffer.from(body, 'base64').toString('utf8') : body;
}

/** Percent signs that escape nothing stand for themselves. */
function decoded(text: string): string {
  return text.replace(/(?:%[0-9a-f]{2})+/gi, (escapes) => {
    try {
      return decodeURIComponent(escapes);
    } catch {
      return escapes;
    }
  });
}
