// JSP: its code in `<% %>` is read as ERB's is, its tags as those of a library.

import type { TemplateEngine } from './engine.js';
import { erb } from './erb.js';

const { comments, always, names, wraps } = erb;

export const jsp: TemplateEngine = {
  name: 'jsp',
  endings: ['jsp'],
  ...{ comments, always, names, wraps },
  looksFromTop: false,
  isServedInPlace: true,
};
