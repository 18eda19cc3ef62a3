// `acervus survey`: takes stock of a site.

import { surveySite } from '../../../site/threads/surveying.js';
import { Progress } from '../../shared/progress.js';

export interface SurveyOptions {
  readonly json?: boolean;
  readonly all?: boolean;
  readonly jobs?: string;
  readonly timings?: boolean;
}

/** Out: 1 when something is broken, else 0. */
export async function survey(folder: string, options: SurveyOptions): Promise<number> {
  const progress = new Progress();
  progress.say('reading the site');
  const site = await surveySite(folder, {
    jobs: options.jobs,
    onPage: (done, of) => progress.step('reading', done, of),
  });
  // Threads are to start before this one loads how results are shown.
  const { surveyJson, surveyLines } = await import('./lines.js');
  const { print, printJson, printTimings } = await import('../../shared/paper.js');
  progress.end();
  const stock = site.survey;
  if (options.json === true) printJson(surveyJson(site, stock));
  else print(surveyLines(folder, site, stock, options.all === true));
  if (options.timings === true) printTimings(site.timings);
  return stock.broken.length > 0 ? 1 : 0;
}
