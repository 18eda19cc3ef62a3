// A job that other threads do alone comes to what this one would find.

import assert from 'node:assert/strict';
import path from 'node:path';
import { test } from 'node:test';
import { UsageError } from '../../src/core/base/usage-error.js';
import { emptyPart, mergeProofs, proofOf } from '../../src/core/proof/index.js';
import { openFolder } from '../../src/site/files/files.js';
import { readConfig } from '../../src/site/files/pages.js';
import type { Job, ProveResult } from '../../src/site/threads/job-model.js';
import { inOtherThreads } from '../../src/site/threads/pool.js';
import { proveSite } from '../../src/site/threads/proving.js';
import { htmlPage, makeSite } from '../support/site.js';

const LINK = '<link rel="stylesheet" href="line.css">';

/** Forty pages, and the same with a sheet that says something else. */
async function states(css: string) {
  const files = Object.fromEntries(
    Array.from({ length: 40 }, (_, at) => [
      `pier-${at}.html`,
      htmlPage(`<p class="fare">${at}</p><b>x</b>`, LINK),
    ]),
  );
  const [before, after] = [
    makeSite({ ...files, 'line.css': '.fare { top: 0 }\n' }),
    makeSite({ ...files, 'line.css': css }),
  ];
  const side = async (folder: string) => ({
    state: { kind: 'folder', folder } as const,
    config: await readConfig(openFolder(folder)),
  });
  const job: Job = {
    ...{ kind: 'prove', paths: Object.keys(files) },
    ...{ before: await side(before), after: await side(after) },
  };
  return { before, after, job };
}

test('other threads share the pages out, tell how far they are, and find what one thread finds', async () => {
  for (const css of ['.fare { top: 0 }\n', '.fare { top: 1px }\n']) {
    const { before, after, job } = await states(css);
    const told: number[] = [];
    const results = await inOtherThreads(job, 2, (done) => told.push(done));
    assert.equal(results.length, 2);
    const parts = results.map((one) => (one as ProveResult).part);
    const joined = proofOf(parts.reduce(mergeProofs, emptyPart()));
    const { proof } = await proveSite(after, before, { jobs: 1 });
    assert.deepEqual([joined.pages, joined.elements], [40, proof.elements]);
    assert.equal(joined.differences.length, proof.differences.length);
    assert.equal(joined.differences.length > 0, css.includes('1px'));
    assert.ok(told.every((done, at) => done >= (told[at - 1] ?? 0) && done <= 40));
  }
});

test('what a thread refuses is refused here', async () => {
  const { job } = await states('p { top: 0 }');
  const gone = path.join(makeSite({}), 'gone');
  const wrong = {
    ...job,
    after: { ...(job as never as { after: object }).after, state: { kind: 'folder', folder: gone } },
  };
  await assert.rejects(inOtherThreads(wrong as Job, 1), UsageError);
});
