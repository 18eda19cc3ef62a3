// Messages of what is typed behind a command: see `index.ts`.

export const OPTIONS_MESSAGES = {
  // Options
  'at-least': ['--at-least {given}', 'expected a whole number from 1 on', ''],
  scope: ['--scope {given}', 'expected site, section or page', ''],
  taste: ['--taste {given}', 'expected {known}', ''],
  jobs: ['--jobs {given}', 'expected a whole number from 1 to 64', ''],
  width: ['--width {given}', 'is no width in pixels', 'write a whole number, such as 600'],
  'browser-only': ['--{option}', 'belongs to --browser', 'add it, or leave this out'],
  widths: ['--widths {given}', 'expected whole numbers from 100 to 8000, such as 1200,500', ''],
  every: ['--every {given}', 'expected a whole number from 1 on', ''],
  'pages-fit-none': ['--pages', 'no page of both states fits', 'give a path or pattern such as "fares/**"'],
  'trace-place': [
    'ACERVUS_TRACE',
    '"{given}" names no declaration',
    'write a place and a property, such as "page.html:12:5 color"',
  ],
  // The browser
  'no-chromium': [
    '--browser',
    'no Chromium found',
    'install one (on Debian: apt-get install chromium) or name it in the variable CHROMIUM',
  ],
  'chromium-fails': ['--browser', '{path} does not start: {problem}', ''],
  // Pictures
  'picture-page': ['--page', 'means nothing by itself', 'add --picture'],
  'built-no-picture': [
    '--picture',
    'shows pages as they lie here, and a build makes these',
    'ask in the folder that is built',
  ],
  // Selectors and declarations that are typed
  'not-a-selector': ['{text}', 'is no selector', 'write it as it stands in the sheet'],
  'explain-selector': [
    '{text}',
    'is no selector ({reason})',
    'write one such as ".kind p", or a line such as 42:7',
  ],
  'override-selector': ['{text}', 'is no selector', "write \"acervus override '.kind p' 'color: teal'\""],
  'no-declaration': ['the declarations', 'no declaration is given', 'write one such as "color: #1f3a56"'],
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
} as const;
