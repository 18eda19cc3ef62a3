// What the cases of `intended.test.ts` are made of: what is asked, of which site, and what a person would have made of it.

export interface IntendedCase {
  readonly name: string;
  /** Commands without the site, which comes last. */
  readonly runs: readonly (readonly string[])[];
  readonly files: Readonly<Record<string, string>>;
  /** Files as they would be by hand, or that it must be refused. */
  readonly becomes: Readonly<Record<string, string>> | 'refused';
  readonly says?: RegExp;
}

export const BODY = '<p class="a">x</p><p class="b">y</p><p class="c">z</p>';
export const page = (body = BODY, head = ''): string =>
  `<!DOCTYPE html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>x</title>\n<link rel="stylesheet" href="kit/kit.css">\n<link rel="stylesheet" href="css/site.css">${head}\n</head>\n<body>\n${body}\n</body>\n</html>\n`;

/** A site with one page, its own sheet and a platform's. */
export function site(css: string, more: Readonly<Record<string, string>> = {}): Record<string, string> {
  return {
    'acervus.json': '{ "platform": ["kit/**"], "shared": "css/site.css" }',
    'kit/kit.css': '',
    'css/site.css': css,
    'a.html': page(),
    ...more,
  };
}

export const kit = (
  platform: string,
  css = '',
  more: Readonly<Record<string, string>> = {},
): Record<string, string> => site(css, { 'kit/kit.css': platform, ...more });

export const byHand = (css: string): Record<string, string> => ({ 'css/site.css': css });
