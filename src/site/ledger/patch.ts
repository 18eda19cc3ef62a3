// A planned change as a unified diff that `git apply` takes.

import { formatPatch, structuredPatch } from 'diff';
import { applyEdits } from '../../core/edit/text/edit.js';
import type { FileChange } from './change.js';

/** In: the changes; whether a file exists already. Out: the patch, paths relative to the site. */
export function unifiedPatch(changes: readonly FileChange[], exists: (file: string) => boolean): string {
  return changes
    .map(({ path, text, encoding, edits }) => {
      const mark = encoding.mark ? '\uFEFF' : '';
      const created = !exists(path);
      const before = mark + text;
      const after = mark + applyEdits(text, edits);
      const body = formatPatch(
        structuredPatch(
          created ? '/dev/null' : `a/${path}`,
          `b/${path}`,
          before,
          after,
          undefined,
          undefined,
          { context: 3 },
        ),
      );
      const hunks = body.slice(body.indexOf('--- '));
      return `diff --git a/${path} b/${path}\n${created ? 'new file mode 100644\n' : ''}${hunks.replace(/\t(?=\n)/g, '')}`;
    })
    .join('');
}
