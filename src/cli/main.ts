#!/usr/bin/env node
// The `acervus` program. Each command loads when it runs, so that help and mistakes answer at once.

import { setFlagsFromString } from 'node:v8';
import { Command, CommanderError } from 'commander';

// Pages are many small objects that live as long as their page: a nursery that holds one halves the time spent
// collecting. Every thread has its own, so that it is kept below what many threads could not afford.
// What asks about the whole site, or plans a change of it, holds all of it in one thread.
const plans = !['survey', 'prove', 'undo'].includes(process.argv[2] ?? '');
setFlagsFromString(`--max-semi-space-size=${plans ? 128 : 32}`);
setFlagsFromString(`--min-semi-space-size=${plans ? 64 : 16}`);
setFlagsFromString('--semi-space-growth-factor=8');

const program = new Command('acervus')
  .description(
    'Consolidates the styling of a site into shared classes, and proves that no page looks different.',
  )
  .version('0.1.0')
  .exitOverride()
  .showHelpAfterError('(acervus --help shows how)')
  .addHelpText(
    'after',
    '\nStart with:\n  acervus survey my-site\n  acervus demo            the whole way, on a site made for it',
  );

program
  .command('survey')
  .description('take stock: what is repeated, what is broken, what could be written once')
  .argument('[site]', 'folder of the site', '.')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .option('--jobs <n>', 'read pages in this many threads (default: as the size of the site calls for)')
  .option('--timings', 'say on stderr where the time went')
  .addHelpText('after', '\nExit code 1 when something is broken.\n\nExample:\n  acervus survey my-site')
  .action(async (site: string, options) =>
    run(async () => (await import('./commands/survey/command.js')).survey(site, options)),
  );

program
  .command('draft')
  .description('propose a home for every repeated style; write acervus-draft.yaml')
  .argument('[site]', 'folder of the site', '.')
  .option('--at-least <n>', 'share a style from this many elements on', '2')
  .option('--taste <name>', '"whole looks", "balanced" or "small pieces"')
  .option('--scope <name>', 'how far rules reach: "site", "section" or "page"')
  .option('--review', 'go through the draft style by style, in a terminal')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    '\nExample:\n  acervus draft my-site --at-least 3\n  acervus draft my-site --taste "small pieces"\n  acervus draft --review my-site',
  )
  .action(async (site: string, options) =>
    run(async () => (await import('./commands/draft/command.js')).draft(site, options)),
  );

program
  .command('adopt')
  .description('carry the draft out, once it is proven to change nothing')
  .argument('[site]', 'folder of the site', '.')
  .option('--patch', 'print the change for "git apply" and write nothing')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    '\nExample:\n  acervus adopt my-site\n  acervus adopt my-site --patch | git -C my-site apply',
  )
  .action(async (site: string, options) =>
    run(async () => (await import('./commands/adopt/command.js')).adopt(site, options)),
  );

program
  .command('prove')
  .description('show that two states of the site look the same, or where they do not')
  .argument('[site]', 'folder of the site', '.')
  .requiredOption('--against <folder|commit>', 'the other state')
  .option('--browser', 'look at both states in an installed Chromium too, and write a report with pictures')
  .option('--pages <pattern...>', 'with --browser: only these pages')
  .option('--every <n>', 'with --browser: every n-th page only')
  .option(
    '--widths <list>',
    'with --browser: widths in pixels (default: 1200,500); print is always looked at',
  )
  .option('--all', 'show every difference')
  .option('--json', 'print one JSON document')
  .option('--jobs <n>', 'compare pages in this many threads (default: as the size of the site calls for)')
  .option('--timings', 'say on stderr where the time went')
  .addHelpText(
    'after',
    '\nExit code 1 when they differ.\n\nExample:\n  acervus prove my-site --against HEAD~1\n  acervus prove my-site --against HEAD~1 --browser --every 10',
  )
  .action(async (site: string, options) =>
    run(async () => (await import('./commands/prove/command.js')).prove(site, options)),
  );

program
  .command('explain')
  .description('everything that styles one element of a page, and why')
  .argument('<page>', 'path of the page inside the site')
  .argument('<element>', 'a selector, or the line[:column] of its tag')
  .argument('[site]', 'folder of the site', '.')
  .option('--property <name...>', 'only these properties')
  .option('--state <name...>', 'in these states, such as hover')
  .option('--width <pixels>', 'in a window of this width')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    "\nExample:\n  acervus explain fares/index.html '.kw-table caption' my-site\n  acervus explain fares/index.html 42:7 my-site --state hover --width 600",
  )
  .action(async (page: string, element: string, site: string, options) =>
    run(async () => (await import('./commands/explain/command.js')).explain(page, element, site, options)),
  );

program
  .command('reach')
  .description('where a selector, class, value, custom property or rule has effect')
  .allowUnknownOption()
  .argument('<what>', 'selector, .class, #id, --name, value, "property: value" or sheet.css:line')
  .argument('[site]', 'folder of the site', '.')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    "\nExit code 1 when it has effect nowhere.\n\nExample:\n  acervus reach .kw-num my-site\n  acervus reach '#1f3a56' my-site\n  acervus reach theme/line.css:120 my-site\n  acervus reach --tide my-site",
  )
  .action(async (what: string, site: string, options) =>
    run(async () => (await import('./commands/reach/command.js')).reach(what, site, options)),
  );

program
  .command('restyle')
  .description('change a shared style once, where it stands; say what moved and what did not')
  .argument('<selector>', 'as it stands in the sheet')
  .argument(
    '<declaration...>',
    '"property: value", or "property:" to take it out; last the folder of the site',
  )
  .option('--medium <query>', 'the rule inside this media query')
  .option('--token', 'where the value is a custom property, change that instead')
  .option('--only-if-all', 'refuse a change that does not reach every element')
  .option('--patch', 'print the change for "git apply" and write nothing')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    "\nExit code 1 when it is refused.\n\nExample:\n  acervus restyle '.kw-table caption' 'color: #2e6b5e' 'font-weight:' my-site",
  )
  .action(async (selector: string, words: string[], options) =>
    run(async () => (await import('./commands/restyle/command.js')).runRestyle(selector, words, options)),
  );

program
  .command('rename')
  .description('give a class another name everywhere')
  .argument('<class>', 'the class, with or without its dot')
  .argument('<name>', 'its new name')
  .argument('[site]', 'folder of the site', '.')
  .option('--merge', 'the new name is there already, and says the same: make the two one')
  .option('--scripts', 'rename in strings that only might mean the class, too')
  .option('--patch', 'print the change for "git apply" and write nothing')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    '\nExit code 1 when it is refused.\n\nExample:\n  acervus rename .btn-book .book my-site',
  )
  .action(async (from: string, to: string, site: string, options) =>
    run(async () => (await import('./commands/rename/command.js')).runRename(from, to, site, options)),
  );

program
  .command('override')
  .description('beat a platform rule, exactly where meant')
  .argument('[selector and declarations...]', 'a selector and "property: value"; last the folder of the site')
  .option('--within <where>', 'a page, a folder, body.class, a selector, or "site" (default)')
  .option('--medium <query>', 'only in this media query')
  .option('--everywhere', 'beat what other states and media say, too')
  .option('--list', 'show each override with what it beats, and whether it is still needed')
  .option('--drop', 'take the override with this selector away')
  .option('--patch', 'print the change for "git apply" and write nothing')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    "\nExit code 1 when it is refused, or --list finds one that does nothing.\n\nExample:\n  acervus override '.kw-crumbs a' 'color: #1f3a56' my-site --within body.sk-fares\n  acervus override --list my-site\n  acervus override --drop '.kw-crumbs a' my-site",
  )
  .action(async (words: string[], options) =>
    run(async () => (await import('./commands/override/command.js')).runOverride(words, options)),
  );

program
  .command('outlast')
  .description('which overrides survive a platform update, and what looks different in spite of them')
  .argument('[site]', 'folder of the site', '.')
  .option(
    '--platform <old=new>',
    'a sheet or a folder of sheets, and its new version; may be said again',
    (pair: string, known: string[]) => [...known, pair],
    [],
  )
  .option('--markup <folder>', 'the pages as the new platform writes them, under the same paths')
  .option('--mend', 'write the fixes: new names beside the old, stronger selectors')
  .option('--patch', 'with --mend: print the change for "git apply" and write nothing')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    '\nExit code 1 when something does not outlast it, or looks different.\n\nExample:\n  acervus outlast my-site --platform platform/3.1=platform/4.0',
  )
  .action(async (site: string, options) =>
    run(async () => (await import('./commands/outlast/command.js')).runOutlast(site, options)),
  );

program
  .command('family')
  .description('rules for many sections, positions or states from one small table')
  .argument('[file and site...]', 'the table file, and the folder of the site')
  .option('--find', 'find families copied out by hand, and put tables in their place')
  .option('--patch', 'print the change for "git apply" and write nothing')
  .option('--all', 'show every line of every list')
  .option('--json', 'print one JSON document')
  .addHelpText(
    'after',
    '\nExit code 1 when it is refused, or a rule was changed by hand.\n\nExample:\n  acervus family theme/harbours.family.yaml my-site\n  acervus family --find my-site',
  )
  .action(async (words: string[], options) =>
    run(async () => (await import('./commands/family/command.js')).runFamily(words, options)),
  );

program
  .command('undo')
  .description('take the last change back, byte for byte')
  .argument('[site]', 'folder of the site', '.')
  .option('--json', 'print one JSON document')
  .addHelpText('after', '\nExample:\n  acervus undo my-site')
  .action(async (site: string, options) => run(async () => (await import('./commands/undo/command.js')).undo(site, options)));

program
  .command('demo')
  .description('copy the demo site somewhere and walk through the whole of it')
  .argument('[folder]', 'a new folder', 'skerrin-line')
  .addHelpText('after', '\nExample:\n  acervus demo /tmp/skerrin-line')
  .action(async (folder: string) => run(async () => (await import('./commands/demo/command.js')).demo(folder)));

async function run(command: () => Promise<number>): Promise<void> {
  try {
    process.exitCode = await command();
  } catch (error) {
    if (!(error instanceof Error) || error.name !== 'UsageError') throw error;
    process.stderr.write(`acervus: ${error.message.replace(/\s+/g, ' ')}\n`);
    process.exitCode = 2;
  }
}

// A reader that stops reading, as `head` does, is no failure.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(process.exitCode ?? 0);
  throw error;
});

try {
  await program.parseAsync();
} catch (error) {
  if (!(error instanceof CommanderError)) throw error;
  process.exitCode = error.exitCode === 0 ? 0 : 2;
}
