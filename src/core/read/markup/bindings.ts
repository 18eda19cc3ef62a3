// Attributes by which a framework of scripts makes something else of an element in the browser than its file shows.

import type { Attribute } from './page.js';

type Named = readonly Pick<Attribute, 'name'>[];

const BINDING =
  /^(?:(?:v-bind|x-bind)?:(?:class|style)|ng-(?:class|style)|\[(?:ng)?(?:class|style)(?:\.[^\]]*)?\]|(?:class|style):.+)$/;
/** It is there several times, at times, or with something else in it. */
const DIRECTIVE = /^(?:data-)?ng-(?:repeat|if|switch|include|transclude|view|bind-html)/;

/** Whether it may have classes and styles that its file does not show. */
export function isBound(attributes: Named): boolean {
  return attributes.some(({ name }) => BINDING.test(name));
}

/** Whether what stands in it, and beside it, may be something else. */
export function isMadeByScripts(attributes: Named): boolean {
  return attributes.some(({ name }) => DIRECTIVE.test(name));
}
