// Every message that only a person can act on: where, what is wrong, what to do. Shown as one line, `where: what; do`;
// `{name}` stands for what differs. `docs/messages.md` is made from this table.

import { HOUSE_MESSAGES } from './messages-house.js';
import { RUNNING_MESSAGES } from './messages-running.js';

/** Empty where the line says it without. */
type Message = readonly [where: string, what: string, todo: string];

export const MESSAGES = {
  // The site and its files
  'folder-missing': ['{folder}', 'there is no such folder', 'name the folder that holds the site'],
  'folder-is-file': ['{folder}', 'is a file', 'name the folder that holds the site'],
  'no-pages': [
    '{site}',
    'holds no page',
    'name a folder with .html files or templates, or set "pages" in acervus.json',
  ],
  'pages-empty': ['{site}', 'all its pages are empty', 'there is nothing to read'],
  'pages-empty-both': ['{site}', 'all its pages are empty', 'there is nothing to compare'],
  'link-leads-out': ['{file}', 'is a link that leads out of the site', 'copy the file in'],
  'left-out': ['left out', '{files}', 'mend them, or add them to "exclude" in acervus.json'],
  unlinked: [
    '{files}',
    'had other names (hard links): the change is under this name only',
    'link them anew where they should stay one',
  ],
  'not-html': ['{file}', 'is no HTML: it holds no tag', 'add it to "exclude" in acervus.json or mend it'],
  'not-a-state': [
    '{reference}',
    'is neither a folder nor a commit that git knows here',
    'give one of them to --against',
  ],
  'blob-missing': [
    '{file}',
    'is not there at {reference}: this copy of the repository lacks it',
    'fetch it with git first',
  ],
  'not-a-page': ['{file}', 'is no page of {site}', 'name {hint}'],
  'picture-component': [
    '{file}',
    'is a part that pages take in, and no page to take a picture of',
    'name a whole page',
  ],
  'page-empty': ['{file}', 'is empty', 'there is nothing to explain'],
  'component-unused': [
    '{file}',
    'is a component, and no page of the site shows which sheets it is styled by',
    '',
  ],
  // Configuration
  'config-json': ['acervus.json', 'is not valid JSON ({problem})', 'correct or delete it'],
  'config-invalid': ['acervus.json', '{problem}', ''],
  'copy-missing': ['acervus.json', 'copies: there is no {file} to stand for {address}', ''],
  // Builds
  'build-failed': ['{command}', 'the build failed: {said}', 'nothing was written'],
  'build-no-pages': ['{command}', 'made no page in {into}', 'correct "rendering" in acervus.json'],
  'build-no-place': [
    '{sheet}',
    'nothing shows where its source would have to stand',
    'name a sheet of your own as "shared" in acervus.json',
  ],
  'build-differs': [
    '{command}',
    'builds {pages} of the pages otherwise each time, so that nothing can be proven',
    '',
  ],
  'build-of-commit': [
    '--against {reference}',
    'a commit cannot be built here',
    'name a folder with the site as it was',
  ],
  unlinkable: [
    'acervus.json',
    'no template shows how it links a sheet, so that none would find new rules',
    'name a sheet, and link it as the system does: {suggestion}; or say how one is linked with "link"',
  ],
  'built-not-changed': [
    'acervus.json',
    'a build makes the pages, and this command changes pages as they are',
    'change the source, or let "acervus draft" do it',
  ],
  'not-in-source': [
    '{place}',
    'the change cannot be written where the sheet is made: {why}',
    'change that source by hand',
  ],
  'compiled-differs': [
    '{source}',
    'with a part of our own, other CSS than {built} would come of it',
    'name a plain sheet as "shared" in acervus.json',
  ],
  'shell-form': ['shell', '"{given}" is nothing to print', 'name bash, zsh, fish or man'],
  ...HOUSE_MESSAGES,
  ...RUNNING_MESSAGES,
  // Changes and their records
  'writing-failed': ['', 'writing failed ({problem})', 'everything is as it was'],
  'change-unfinished': [
    '',
    'the last change was cut short while writing',
    'run "acervus undo" first, it puts every file back',
  ],
  'undo-unfinished': ['', 'the last undo was cut short', 'run "acervus undo" again, it goes on with it'],
  'undo-failed': ['', 'nothing was taken back ({problem})', 'mend that and run "acervus undo" again'],
  'site-busy': [
    '',
    'another process is changing this site',
    'wait until it is done, and run the command again',
  ],
  'not-a-file': ['{file}', 'is no plain file', 'put a file in its place'],
  'read-only': ['{file}', 'is read-only', 'make it writable, or refuse its styles in the draft'],
  'file-changed': ['{file}', 'changed while the change was planned', 'run the command again'],
  'leads-out': ['{file}', 'leads out of the site', 'nothing was written'],
  'changed-since': [
    '{files}',
    'changed since {command} wrote it',
    'nothing was touched. Put it back as it was then, or use git',
  ],
  'sheet-open': [
    '{sheet}',
    'ends in the middle of a rule, a comment or a string, so that nothing can stand behind it',
    'close that first',
  ],
  'record-broken': [
    '{file}',
    'its record does not lead back to what it was',
    'nothing more was touched, use git',
  ],
  'not-a-record': ['{file}', 'is not a record of Acervus', 'restore it, or take the change back with git'],
  // Parts of a piece of work
  part: ['--part', '{given} is no part', 'write it as 3/8: the third of eight'],
  'part-or-join': ['--part', 'a part cannot be joined and made at once', 'leave out --part or --join'],
  'part-browser': [
    '--part',
    'pictures are not made in parts',
    'look at some of the pages with --pages or --every',
  ],
  'part-unreadable': [
    '{file}',
    'is no part that "acervus {command} --part" has written, or it was cut short',
    'make it again',
  ],
  'part-twice': [
    '{file}',
    'part {part} of {of} is there already, or this is one of another number of parts',
    'join each part once',
  ],
  'part-outdated': [
    '{file}',
    'was made of files that have changed since, or by another version of the program',
    'make it again',
  ],
  'part-missing': ['--join', 'missing of {of}: part {parts}', 'make it, or name its file too'],
  // The draft
  'too-large': [
    'the site',
    'its pages hold {size} MB, for which a draft takes about {need} MB of memory, and this process may take {limit} MB',
    'draft its folders one by one, or give it more: NODE_OPTIONS=--max-old-space-size={asked}',
  ],
  'no-draft': ['{file}', 'there is no draft', 'run "acervus draft" first'],
  'draft-yaml': [
    'acervus-draft.yaml:{line}',
    'is not valid YAML: {problem}',
    'correct it, or delete it and draft again',
  ],
  'draft-outdated': ['acervus-draft.yaml', 'was made by an earlier version', 'delete it and draft again'],
  'draft-invalid': ['acervus-draft.yaml:{line}', '{problem}', ''],
  'draft-name': [
    'acervus-draft.yaml:{line}',
    'styles[{index}].name: "{name}" is no class name',
    'use letters, digits, - and _, a letter first',
  ],
  'draft-name-twice': [
    'acervus-draft.yaml:{line}',
    'styles[{index}].name: "{name}" names the style on line {other} too',
    'rename one, or merge it with "into: {name}"',
  ],
  'draft-into': [
    'acervus-draft.yaml:{line}',
    'styles[{index}].into: "{into}" is no new class of the draft that is taken',
    '"{name}" cannot go into it',
  ],
  'draft-name-in-use': [
    'acervus-draft.yaml',
    'style {id}: .{name} is in use on the site already',
    'choose another name',
  ],
  'draft-declarations': [
    'acervus-draft.yaml',
    'style {id}: declarations: expected CSS declarations, and it {problem}',
    '',
  ],
  'draft-foreign': [
    'acervus-draft.yaml',
    'style {id}: «{declaration}» is not what its elements say',
    'declarations may be left out whole, not changed',
  ],
  'draft-lacks': [
    'acervus-draft.yaml',
    'style {id}: "{name}" cannot go into "{into}": it lacks {declaration}',
    '',
  ],
  'draft-shared-platform': [
    'acervus-draft.yaml',
    'shared: {sheet} is a platform sheet',
    'name a sheet of your own, or list it under "theme" in acervus.json',
  ],
  'review-terminal': [
    '',
    '--review asks questions: run it in a terminal, or edit acervus-draft.yaml by hand',
    '',
  ],
  // The system
  system: [
    '{file}',
    'the system refuses ({problem})',
    'see whether it may be read and written, and is what it should be',
  ],
  // Options
  'at-least': ['', '--at-least {given}: expected a whole number from 1 on', ''],
  scope: ['', '--scope {given}: expected site, section or page', ''],
  taste: ['', '--taste {given}: expected {known}', ''],
  jobs: ['', '--jobs {given}: expected a whole number from 1 to 64', ''],
  width: ['', '--width {given}: is no width in pixels', 'write a whole number, such as 600'],
  'browser-only': ['', '--{option}: belongs to --browser', 'add it, or leave this out'],
  widths: ['', '--widths {given}: expected whole numbers from 100 to 8000, such as 1200,500', ''],
  every: ['', '--every {given}: expected a whole number from 1 on', ''],
  'pages-fit-none': ['', '--pages: no page of both states fits', 'give a path or pattern such as "fares/**"'],
  'trace-place': [
    'ACERVUS_TRACE',
    '"{given}" names no declaration',
    'write a place and a property, such as "page.html:12:5 color"',
  ],
  // The browser
  'no-chromium': [
    '',
    '--browser: no Chromium found',
    'install one (on Debian: apt-get install chromium) or name it in the variable CHROMIUM',
  ],
  'chromium-fails': ['', '--browser: {path} does not start: {problem}', ''],
  // Selectors and declarations that are typed
  'not-a-selector': ['{text}', 'is no selector', 'write it as it stands in the sheet'],
  'explain-selector': [
    '{text}',
    'is no selector ({reason})',
    'write one such as ".kind p", or a line such as 42:7',
  ],
  'override-selector': ['{text}', 'is no selector', "write \"acervus override '.kind p' 'color: teal'\""],
  'no-declaration': ['', 'no declaration is given', 'write one such as "color: #1f3a56"'],
  'not-a-declaration': [
    '"{text}"',
    'is no declaration and no folder',
    'write one such as "color: #1f3a56", or "color:" to take it out',
  ],
  'not-a-property': ['{property}', 'is no property of CSS', '{hint}'],
  'value-unfinished': ['{property}', '"{value}" is not one whole value', 'close its brackets and quotes'],
  'value-unfitting': [
    '{property}',
    'does not take "{value}", so that browsers would drop it',
    'correct the value',
  ],
  // explain, reach
  'no-element-there': [
    '{place}',
    'no element begins there or before',
    'name a line of the page, or a selector',
  ],
  'explain-nothing': [
    '{text}',
    'picks out nothing on {page}',
    '"acervus reach \'{text}\'" tells where it does',
  ],
  'reach-nothing': [
    '"{text}"',
    'is nothing to look for',
    'name a selector, a value, a declaration or a place such as {sheet}:12',
  ],
  // restyle
  'rule-in-media': ['{selector}', 'the theme has it only inside {media}', 'name that with --medium'],
  'rule-elsewhere': ['{selector}', 'the theme has no such rule inside {medium}', 'it stands at {place}'],
  'rule-of-module': [
    '{selector}',
    'is a rule of a module ({sheet}) that is compiled, or of several: nothing here tells what is meant',
    'change it there by hand',
  ],
  'rule-of-platform': [
    '{selector}',
    'is a rule of the platform ({sheet}), which is not yours to edit',
    '"acervus override" beats it',
  ],
  'no-rule': [
    '{selector}',
    'no rule of the theme stands under it',
    'did you mean {near}? "acervus reach" tells what styles these elements',
  ],
  'no-rule-at-all': [
    '{selector}',
    'no rule of the theme stands under it "acervus reach" tells what styles these elements',
    '',
  ],
  // rename
  'same-name': ['{name}', 'is the same name', 'name another'],
  'written-nowhere': [
    '.{name}',
    'is written nowhere on the site',
    '"acervus reach {quoted}" looks for what is like it',
  ],
  'not-a-class': [
    '{text}',
    'is no class',
    'write a dot and a name of letters, digits, - and _, such as .kind',
  ],
  // override
  'override-value': ['{property}', 'an override needs a value', '"acervus override --drop" takes one away'],
  'shared-is-platform': [
    '{sheet}',
    'is a platform sheet',
    'set "shared" in acervus.json to a sheet of your own',
  ],
  'override-nothing': [
    '{selector}',
    'picks out nothing {where}',
    '"acervus reach {quoted}" tells where it stands',
  ],
  unbeatable: ['', '{declaration} of {by} {why}', 'change it where it stands'],
  'drop-what': ['', '--drop: name the selector of the override, as "acervus override --list" shows it', ''],
  'no-override': [
    '{selector}',
    'no override stands under it in {sheet}',
    '"acervus override --list" shows them',
  ],
  'no-override-but': [
    '{selector}',
    'no override stands under it in {sheet}, but one under "{near}"',
    'name that, with --within or --medium where they belong to it',
  ],
  // outlast
  'platform-what': [
    '',
    '--platform: name the sheet that is updated and its new version, as in --platform {old}={fresh}',
    '',
  ],
  'platform-unused': ['--platform {pair}', 'no page uses a sheet {sheet}', "the site's sheets are {known}"],
  'platform-missing': [
    '--platform {pair}',
    'there is no file {file}, in the site or here',
    'name the new version of the sheet',
  ],
  'platform-not-text': ['--platform {pair}', '{file} is binary or in an unknown encoding', ''],
  'markup-no-pages': [
    '--markup {folder}',
    'holds no page of the site',
    'name a folder with pages under the same paths',
  ],
  // family
  'family-what': ['{word}', 'name one table file, such as harbours.family.yaml', '--find writes one for you'],
  'family-missing': ['{file}', 'there is no such file, in the site or here', ''],
  'family-yaml': ['{file}', 'is neither YAML nor JSON: {problem}', ''],
  'family-invalid': ['{file}', '{problem}', ''],
  'family-into-platform': ['{file}', 'into: {sheet} is a platform sheet', 'name one of your own'],
  'family-into-unused': [
    '{file}',
    'into: no page uses a sheet {sheet}',
    'name one that pages link, or leave it out',
  ],
  // demo
  'demo-exists': ['{folder}', 'exists and is not empty', 'name a new folder'],
  'demo-missing': ['', 'the demo site is missing from this installation', 'install Acervus again'],
} as const satisfies Readonly<Record<string, Message>>;

export type MessageCode = keyof typeof MESSAGES;

/** The names in braces of a text. */
type NamesIn<Text extends string> = Text extends `${string}{${infer Name}}${infer Rest}`
  ? Name | NamesIn<Rest>
  : never;

/** What a message takes, by name. */
export type MessageValues<Code extends MessageCode> = Readonly<
  Record<NamesIn<(typeof MESSAGES)[Code][number]>, string | number>
>;

/** The line that a person reads, without a full stop. */
export function messageText<Code extends MessageCode>(code: Code, values: MessageValues<Code>): string {
  const [where, what, todo] = MESSAGES[code];
  const known: Readonly<Record<string, string | number>> = values;
  const line = `${where === '' ? '' : `${where}: `}${what}${todo === '' ? '' : `; ${todo}`}`;
  return line.replace(/\{([a-z]+)\}/g, (whole, name: string) => String(known[name] ?? whole));
}
