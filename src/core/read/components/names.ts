// Names of elements: what is none of them is a component, of which nobody knows what it makes.
import { wordsOf } from '../../base/phrases.js';

/** HTML standard, the index of elements; and those that browsers still know. */
const HTML = new Set(
  wordsOf(`a abbr acronym address area article aside audio b base bdi bdo big blockquote body br button canvas caption center cite code col
  colgroup data datalist dd del details dfn dialog div dl dt em embed fieldset figcaption figure font footer form h1 h2 h3 h4 h5 h6
  head header hgroup hr html i iframe img input ins kbd label legend li link main map mark marquee menu meta meter nav nobr noscript
  object ol optgroup option output p param picture pre progress q rp rt ruby s samp script search section select slot small source
  span strike strong style sub summary sup table tbody td template textarea tfoot th thead time title tr track tt u ul var video wbr`),
);

/** SVG 2, the index of elements. */
const SVG = new Set(
  wordsOf(`animate animateMotion animateTransform circle clipPath defs desc ellipse feBlend feColorMatrix feComponentTransfer feComposite
  feConvolveMatrix feDiffuseLighting feDisplacementMap feDistantLight feDropShadow feFlood feFuncA feFuncB feFuncG feFuncR
  feGaussianBlur feImage feMerge feMergeNode feMorphology feOffset fePointLight feSpecularLighting feSpotLight feTile feTurbulence
  filter foreignObject g image line linearGradient marker mask metadata mpath path pattern polygon polyline radialGradient rect set
  stop svg switch symbol text textPath tspan use view`),
);

export function isElementName(name: string): boolean {
  return (
    HTML.has(name) ||
    SVG.has(name) ||
    ['math', 'mi', 'mo', 'mn', 'mrow', 'msup', 'msub', 'mfrac', 'msqrt'].includes(name)
  );
}

/** In: the name of an element, and that of the one around it. */
export function namespaceOf(
  name: string,
  around: 'html' | 'svg' | 'mathml',
  parent: string,
): 'html' | 'svg' | 'mathml' {
  if (name === 'svg') return 'svg';
  if (name === 'math') return 'mathml';
  return around === 'svg' && parent === 'foreignObject' ? 'html' : around;
}
