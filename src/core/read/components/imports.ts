// Which files a component or a module imports, by name.

const IMPORT =
  /(?:^|[;\s])import\s*(?:[\w*{}\s,$]+?\s+from\s*)?(["'])([^"'\n]+)\1|@import\s+(?:url\(\s*)?(["'])([^"'\n]+)\3|\brequire\(\s*(["'])([^"'\n]+)\5\s*\)/g;

/** In: code, or a component that has some. Out: what it names, in order. */
export function importsIn(text: string): string[] {
  return [...text.matchAll(IMPORT)].flatMap(
    ([, , plain, , inSheet, , required]) => plain ?? inSheet ?? required ?? [],
  );
}
