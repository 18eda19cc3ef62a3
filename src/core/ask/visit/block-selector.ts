// How a style block of a page is named: `style`, `#id`, `.class` and `[attribute]` or `[attribute=value]`, together.

export const BLOCK_SELECTOR = /^(?:style)?(?:[#.][\w-]+|\[[\w-]+(?:=(?:"[^"]*"|'[^']*'|[\w-]+))?\])+$/;
