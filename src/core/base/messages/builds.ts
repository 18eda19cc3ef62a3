// Messages of sites that a build makes: see `index.ts`.

export const BUILDS_MESSAGES = {
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
} as const;
