// Mail: a page for mail programs, most of which read the styles of a tag and little else.

/** What only mail is written with: the properties, conditional comments and namespaces of mail programs. */
const SURE =
  /mso-[a-z-]+\s*:|<!--\[if (?:!|\(?(?:gte|lte|gt|lt) )?mso|x-apple-disable-message-reformatting|urn:schemas-microsoft-com:(?:vml|office)/i;

const ADDRESSED = /unsubscribe|view (?:it |this (?:mail|email|message) )?in (?:your|a) browser/i;
const TABLE = /<table\b[^>]*(?:cellpadding|cellspacing|bgcolor|role="presentation")[^>]*>/gi;

/** Whether a page is mail: by a sure sign, or as tables in tables that tell how to unsubscribe, without sheet or script. */
export function isMail(text: string): boolean {
  if (SURE.test(text)) return true;
  if (!ADDRESSED.test(text) || /<script\b|<link\b[^>]*stylesheet/i.test(text)) return false;
  return (text.match(TABLE)?.length ?? 0) >= 2;
}
