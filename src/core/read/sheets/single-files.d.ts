// The same packages as one file each: a command that runs for a second should not open two hundred modules first.

declare module 'culori/require' {
  import * as culori from 'culori';
  export default culori;
}

declare module 'css-tree/dist/csstree.esm' {
  export * from 'css-tree';
}

declare module 'css-tree/tokenizer' {
  export { tokenize, tokenTypes } from 'css-tree';
}

declare module 'css-tree/utils' {
  export { ident, string, url } from 'css-tree';
}
