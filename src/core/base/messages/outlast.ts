// Messages of `outlast`: see `index.ts`.

export const OUTLAST_MESSAGES = {
  'platform-what': [
    '--platform',
    'no update is named',
    'give the sheet that is updated and its new version, as in --platform {old}={fresh}',
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
} as const;
