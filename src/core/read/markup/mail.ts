import { pageEvidence } from '../kinds/index.js';

// Mail: a page for mail programs, most of which read the styles of a tag and little else.

/** What only mail is written with: the properties, conditional comments and namespaces of mail programs. */
const SURE =
  /mso-[a-z-]+\s*:|<!--\[if (?:!|\(?(?:gte|lte|gt|lt) )?mso|x-apple-disable-message-reformatting|urn:schemas-microsoft-com:(?:vml|office)/i;

const ADDRESSED = /unsubscribe|view (?:it |this (?:mail|email|message) )?in (?:your|a) browser/i;
const TABLE = /<table\b[^>]*(?:cellpadding|cellspacing|bgcolor|role="presentation")[^>]*>/gi;

/** Folders of what is mailed, and folders of what may be an application for mail, too. */
const MAILED = /(?:^|\/)(?:[\w-]*_)?(?:mailers?|newsletters?|(?:e-?)?mail[_-]?templates?)\//i;
const OF_MAIL = /(?:^|\/)e?-?mails?\//i;
const ENGINE = /<%|<\?|\{\w+\}|\{[{%]/;
const NAMED = /(?:^|[/_-])(?:mailer|e-?mail|newsletter)s?\.[\w.]*$/i;

/**
 * Whether a page is mail: by a sure sign, or as tables in tables that tell how to unsubscribe, without sheet or script; a template
 * also by where it lies.
 */
export function isMail(text: string, path: string): boolean {
  if (SURE.test(text)) return true;
  if (/<script\b|<link\b[^>]*stylesheet/i.test(text)) return false;
  return (ADDRESSED.test(text) && (text.match(TABLE)?.length ?? 0) >= 2) || liesWithMail(text, path);
}

function liesWithMail(text: string, path: string): boolean {
  if (MAILED.test(path)) return true;
  if (!ENGINE.test(text)) return false;
  const isWhole = pageEvidence(text) === 'frame';
  return isWhole ? NAMED.test(path) : OF_MAIL.test(path) && !/\sclass(?:Name)?=/.test(text);
}
