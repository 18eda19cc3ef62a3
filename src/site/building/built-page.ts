// Which files of a build are pages.

/** What a browser opens, whatever the site's own patterns say of its sources. */
export function isBuiltPage(file: string): boolean {
  return /\.(html?|shtml|xhtml)$/i.test(file);
}
