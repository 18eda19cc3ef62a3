// Sheets of Less, as its own compiler makes them: of files of the site alone, without plugins and without code.

import { createRequire } from 'node:module';
import path from 'node:path';
import type lessPackage from 'less';
import { type CompileOptions, type Files, isInside } from './compile-options.js';

const load = createRequire(import.meta.url);

/** The CSS, with its map as JSON; or what is wrong with the sheet. */
type LessResult = { readonly css: string; readonly map: string } | { readonly problem: string };

export function lessResult(
  files: Files,
  file: string,
  text: string,
  { style, without }: CompileOptions,
): LessResult {
  const less = load('less') as typeof lessPackage;
  class SiteFileManager extends less.FileManager {
    override supports(): boolean {
      return true;
    }

    override supportsSync(): boolean {
      return true;
    }

    /** Less takes a sheet in by its name, with its ending or without. */
    override loadFileSync(name: string, folder: string): Less.FileLoadResult | { error: unknown } {
      const plain = name.replace(/^~?@\/|^~/, '');
      for (const root of [folder, '', 'node_modules', 'src'])
        for (const ending of ['', '.less']) {
          const filename = path.posix.join(root, plain + ending);
          if (!isInside(filename) || !/\.(less|css)$/i.test(filename)) continue;
          const contents = filename === without ? '' : files.read(filename)?.toString('utf8');
          if (contents !== undefined) return { filename, contents };
        }
      return { error: { type: 'File', message: `'${name}' wasn't found` } };
    }
  }
  let made: LessResult = { problem: 'nothing came of it' };
  const plugin: Less.Plugin = {
    install: (_, manager) => manager.addFileManager(new SiteFileManager()),
  };
  const options: Less.Options & { readonly disablePluginRule: boolean } = {
    filename: file,
    syncImport: true,
    javascriptEnabled: false,
    disablePluginRule: true,
    compress: style === 'compressed',
    plugins: [plugin],
    sourceMap: {},
  };
  // Files that are at hand are compiled before the call is over.
  less.render(text, options, (error, output) => {
    if (output !== undefined) made = { css: output.css.replace(MAP, ''), map: output.map || NOTHING };
    else if (error !== undefined) made = { problem: problemIn(error, file) };
  });
  return made;
}

/** Of an empty sheet there is no map. */
const NOTHING = '{"version":3,"sources":[],"mappings":""}';
const MAP = /\/\*# sourceMappingURL=[^*]*\*\/\s*$/;

/** Some of what the compiler says is wrong has no words. */
function problemIn({ message, line, filename }: Partial<Less.RenderError>, file: string): string {
  const what = message?.split(/[\r\n]/)[0] ?? 'a part of it is not there';
  const where = filename === undefined || filename === file ? '' : `, ${filename}`;
  return `${where}${line === undefined ? '' : `, line ${line}`}: ${what}`;
}
