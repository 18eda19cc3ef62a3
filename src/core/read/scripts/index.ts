// Stage 4, scripts. In: the text of a script. Out: the properties it may clear or read back, and its words.

export {
  type ClassMention,
  classMentions,
  expressionMentions,
} from './class-names.js';
export type { AddedSheet } from './doings.js';
export { scriptForm } from './form.js';
export { fileOfAddedSheet, importedFiles } from './imports.js';
export { piecesOf, propertiesNamed } from './name-uses.js';
export {
  isBuiltOf,
  isMadeOfWords,
  type NotUnderstood,
  notUnderstood,
  readingsOnPage,
  type ScriptOnPage,
} from './page-scripts.js';
export { readScript, type ScriptReading, scriptReading } from './read.js';
export type { Meant, Target } from './targets.js';
export { attributeWord, CLASS_WRITTEN, STYLE_ASKED, type StyleTouch } from './touches.js';
export { GONE, MOVED, type NameWrite, RULES_GONE } from './writes.js';
