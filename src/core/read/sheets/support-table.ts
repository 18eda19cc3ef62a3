// Written by scripts/support.mjs: what some browser of the target does not keep, though Chromium does.

/** Properties that it knows by another name alone. */
export const BY_ANOTHER_NAME = `
box-align box-decoration-break box-direction box-flex box-flex-group box-lines box-ordinal-group box-orient box-pack
fit-tolerance font-smooth initial-letter line-clamp mask-border mask-border-outset mask-border-repeat
mask-border-slice mask-border-source mask-border-width mask-clip mask-image mask-origin mask-position mask-repeat
mask-size print-color-adjust text-size-adjust user-modify user-select`;

/** Values that it drops, by property. */
export const DROPPED_VALUES = `
align-content: safe unsafe; align-items: anchor-center flow-end flow-start safe unsafe;
align-self: anchor-center end flow-end flow-start safe start unsafe;
alignment-baseline: text-after-edge text-before-edge text-bottom text-top; animation-duration: auto;
appearance: base-select; background: border-area text x-end x-start y-end y-start;
background-blend-mode: plus-lighter; background-clip: border-area; background-image: element image-set;
background-position: x-end x-start y-end y-start; background-position-x: x-end x-start;
background-position-y: y-end y-start; baseline-shift: baseline bottom center top; block-size: anchor-size stretch;
bottom: anchor anchor-size; break-after: always avoid avoid-column avoid-page column recto verso;
break-before: always avoid avoid-column avoid-page column recto verso; caption-side: bottom-outside top-outside;
clear: inline-end inline-start; clip-path: border-box content-box fill-box margin-box padding-box stroke-box view-box;
column-rule-color: repeat; columns: column-height; container-type: anchored scroll-state; content: image-set;
counter-reset: reversed;
display: grid-lanes inline-grid-lanes math ruby ruby-base ruby-base-container ruby-text ruby-text-container;
dominant-baseline: text-bottom text-top; dynamic-range-limit: constrained; flex: stretch; flex-basis: stretch;
flex-flow: balance; flex-wrap: balance; float: inline-end inline-start;
font-family: math ui-monospace ui-rounded ui-sans-serif ui-serif; font-size: math; font-synthesis: position;
font-synthesis-style: oblique-only; font-variant: emoji historical-forms sub super text unicode;
forced-color-adjust: preserve-parent-color; grid-template-columns: subgrid; grid-template-rows: subgrid;
height: anchor-size stretch; image-rendering: crisp-edges smooth; inline-size: anchor-size fit-content stretch;
inset: anchor anchor-size; inset-block: anchor anchor-size; inset-block-end: anchor anchor-size;
inset-block-start: anchor anchor-size; inset-inline: anchor anchor-size; inset-inline-end: anchor anchor-size;
inset-inline-start: anchor anchor-size; justify-content: left right safe unsafe;
justify-items: anchor-center flow-end flow-start; justify-self: anchor-center flow-end flow-start;
left: anchor anchor-size; letter-spacing: percentages; list-style: symbols;
list-style-type: afar amharic amharic-abegede asterisks binary ethiopic ethiopic-abegede ethiopic-abegede-am-et ethiopic-abegede-gez ethiopic-abegede-ti-er ethiopic-abegede-ti-et ethiopic-halehame ethiopic-halehame-aa-er ethiopic-halehame-aa-et ethiopic-halehame-am ethiopic-halehame-am-et ethiopic-halehame-gez ethiopic-halehame-om-et ethiopic-halehame-sid-et ethiopic-halehame-so-et ethiopic-halehame-ti-er ethiopic-halehame-ti-et ethiopic-halehame-tig footnotes hangul hangul-consonant lower-hexadecimal lower-norwegian octal oromo sidama somali symbols tigre tigrinya-er tigrinya-er-abegede tigrinya-et tigrinya-et-abegede upper-greek upper-hexadecimal upper-norwegian urdu;
margin: anchor-size; margin-block: anchor-size; margin-block-end: anchor-size; margin-block-start: anchor-size;
margin-bottom: anchor-size; margin-inline: anchor-size; margin-inline-end: anchor-size;
margin-inline-start: anchor-size; margin-left: anchor-size; margin-right: anchor-size; margin-top: anchor-size;
margin-trim: inline inline-end inline-start;
mask: add alpha border-box content-box exclude fill-box intersect luminance match-source no-clip padding-box stroke-box subtract view-box x-end x-start y-end y-start;
mask-clip: border border-box content content-box fill-box no-clip padding padding-box stroke-box text view-box;
mask-origin: border border-box content content-box fill-box padding padding-box stroke-box view-box;
mask-position: x-end x-start y-end y-start; max-block-size: anchor-size fit-content stretch;
max-height: anchor-size stretch; max-inline-size: anchor-size fit-content stretch; max-width: anchor-size stretch;
min-block-size: anchor-size fit-content stretch; min-height: anchor-size stretch;
min-inline-size: anchor-size fit-content stretch; min-width: anchor-size stretch; mix-blend-mode: plus-darker;
object-position: x-end x-start y-end y-start;
offset: auto border-box bottom center content-box fill-box left margin-box normal padding-box right stroke-box top view-box x-end x-start y-end y-start;
offset-anchor: x-end x-start y-end y-start;
offset-path: border-box content-box fill-box margin-box padding-box ray stroke-box url view-box;
offset-position: x-end x-start y-end y-start; outline-offset: inset; overflow-block: overlay;
overflow-inline: overlay; overscroll-behavior: chain; overscroll-behavior-block: chain;
overscroll-behavior-inline: chain; overscroll-behavior-x: chain; overscroll-behavior-y: chain;
page-break-after: avoid; page-break-before: avoid; perspective-origin: x-end x-start y-end y-start;
place-items: anchor-center flow-end flow-start; place-self: anchor-center flow-end flow-start;
pointer-events: bounding-box; position-anchor: none normal; position-try: flip-x flip-y;
position-try-fallbacks: flip-x flip-y; position-visibility: anchor-valid anchor-visible anchors-valid;
resize: block inline; right: anchor anchor-size; ruby-overhang: spaces; ruby-position: alternate inter-character;
scroll-snap-type: pair; shape-image-threshold: percentages; shape-outside: path rect xywh; text-align: match-parent;
text-align-last: match-parent; text-autospace: auto ideograph-alpha ideograph-numeric insert;
text-box: ideographic ideographic-ink; text-box-edge: ideographic ideographic-ink;
text-decoration: auto dashed dotted double from-font grammar-error solid spelling-error transparent wavy;
text-decoration-line: grammar-error spelling-error; text-decoration-skip-ink: all; text-emphasis-position: auto;
text-indent: each-line hanging; text-overflow: string; text-transform: full-size-kana full-width math-auto;
text-wrap: auto pretty stable; text-wrap-style: pretty; timeline-scope: all; top: anchor anchor-size;
touch-action: pan-down pan-left pan-right pan-up; transform-box: border-box content-box stroke-box;
transition: transition-behavior;
vertical-align: alphabetic center central first hanging ideographic last mathematical;
view-transition-name: match-element;
white-space: collapse discard-after discard-before discard-inner none preserve preserve-breaks preserve-spaces wrap;
white-space-collapse: preserve-spaces; width: anchor-size stretch; word-break: auto-phrase; word-spacing: percentages;
writing-mode: sideways-lr sideways-rl; zoom: reset;`;

/** Functions that it does not know. */
export const UNKNOWN_FUNCTIONS = `
abs acos anchor anchor-size asin atan atan2 calc-size corner-shape-value cos dashed-function dynamic-range-limit-mix
exp hypot if log mod param pow progress random random-item ray rem round sibling-count sibling-index sign sin sqrt
superellipse tan text-edge timeline-range-name type alpha color color-mix contrast-color lab lch light-dark oklab
oklch cross-fade element filter image-set paint rect shape xywh linear-function`;
