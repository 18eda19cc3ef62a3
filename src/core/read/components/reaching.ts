// How a scoped block mentions elements of other components: `.card :deep(.fare)`, `:global(.late)`, and as older versions have it.

export const DEEP = /\s*(?:::v-deep|:deep|>>>|\/deep\/)\s*/;
export const GLOBAL = /:global(?![\w-])/;
const REACHES = new RegExp(`${DEEP.source}|${GLOBAL.source}`);

/** Whether a block, or a selector, mentions elements of other components. */
export function reachesOut(css: string): boolean {
  return REACHES.test(css);
}
