// `acervus survey`: takes stock of a site.

import type { Command } from 'commander';
import { largeFrom } from '../shared/environment.js';
import { readJobs } from '../shared/numbers.js';
import { type PartFlags, readShare, writePart } from '../shared/parts.js';
import type { ShowFlags } from '../shared/present.js';
import type { Act } from '../shared/terminal.js';

interface Flags extends ShowFlags, PartFlags {
  readonly jobs?: string;
  readonly timings?: boolean;
  readonly report?: boolean;
  readonly cache: boolean;
}

/** Exit code 1 when something is broken. */
export function defineSurvey(program: Command, act: Act): void {
  program
    .command('survey')
    .description('take stock: what is repeated, what is broken, what could be written once')
    .argument('[site]', 'folder of the site', '.')
    .option('--all', 'show every line of every list')
    .option('--json', 'print one JSON document')
    .option('--jobs <n>', 'read pages in this many threads (default: as the size of the site calls for)')
    .option('--no-cache', 'read every page, and remember nothing')
    .option('--part <k/n>', 'survey one part of the pages only, and print it for --join')
    .option('--join <file...>', 'the whole survey out of all parts')
    .option('--report', 'write the whole as one HTML page, too')
    .option('--timings', 'say on stderr where the time went')
    .addHelpText(
      'after',
      '\nExit code 1 when something is broken.\n\nExample:\n  acervus survey my-site\n  acervus survey my-site --part 3/8 > part-3.json\n  acervus survey my-site --join part-*.json',
    )
    .action(
      act(async (terminal, site: string, flags: Flags) => {
        const { survey, surveyOfParts } = await import('../../commands/survey/survey.js');
        const share = readShare(flags);
        const remember = { cache: flags.cache, rememberFrom: largeFrom(terminal) };
        const { withProgress } = await import('../shared/progress.js');
        const jobs = readJobs(flags.jobs);
        if (share !== undefined) {
          const { surveyPart } = await import('../../site/threads/surveying.js');
          const part = await withProgress(terminal, 'reading the site', ({ steps }) =>
            surveyPart(site, share, { jobs, ...remember, onPage: steps('reading') }),
          );
          writePart(terminal, part);
          return 0;
        }
        let timings: ReadonlyMap<string, number> = new Map();
        const onTimings = (parts: typeof timings): void => {
          timings = parts;
        };
        const document = await withProgress(terminal, 'reading the site', ({ say, steps }) =>
          flags.join === undefined
            ? survey(site, {
                jobs,
                ...remember,
                onStep: (step) => {
                  // What a configuration makes us run is said, whoever watches.
                  if (step.startsWith('building: '))
                    terminal.warn(`acervus: ${step}, as acervus.json asks\n`);
                  say(step);
                },
                onPage: steps('reading'),
                onTimings,
              })
            : surveyOfParts(site, flags.join, { onTimings }),
        );
        // Threads are to start before this one loads how results are shown.
        const { present, printTimings } = await import('../shared/present.js');
        await present(terminal, document, flags, async () => {
          const { surveyLines } = await import('./lines.js');
          return surveyLines(site, document, flags.all === true);
        });
        if (flags.report === true) {
          const { reportOfSurvey, showReport } = await import('../shared/report.js');
          await showReport(terminal, site, reportOfSurvey(document));
        }
        if (flags.timings === true) await printTimings(terminal, timings);
        return document.broken.length > 0 ? 1 : 0;
      }),
    );
}
