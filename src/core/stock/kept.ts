// Why a declaration stays where it is: every reason there is, and its words.

import { type Place, showPlace } from '../base/source.js';
import { CLASS_WRITTEN } from '../read/scripts/index.js';

export type KeptReason =
  | { readonly kind: 'written once' }
  | { readonly kind: 'written seldom'; readonly times: number; readonly atLeast: number }
  | { readonly kind: 'left over' }
  | { readonly kind: 'template text' }
  /** Beside what is written out: it stays in the code, and is nothing that could move. */
  | { readonly kind: 'said by code' }
  | { readonly kind: 'in a template element' }
  | { readonly kind: 'script'; readonly place: Place; readonly property: string }
  | { readonly kind: 'unreadable script'; readonly place: Place }
  | { readonly kind: 'address'; readonly why: string }
  | { readonly kind: 'unfinished value' }
  | { readonly kind: 'not understood'; readonly property: string }
  | { readonly kind: 'unfitting value'; readonly property: string; readonly value: string }
  | { readonly kind: 'character references' }
  | { readonly kind: 'no tag of its own' }
  | { readonly kind: 'page undecided'; readonly why: string }
  | { readonly kind: 'stronger rule'; readonly selector: string; readonly place: Place }
  | { readonly kind: 'proof'; readonly detail: string }
  /** Of a value in the sheets. */
  | { readonly kind: 'no name'; readonly value: string; readonly detail: string }
  | { readonly kind: 'no exact CSS'; readonly attribute: string }
  | { readonly kind: 'mail' }
  | { readonly kind: 'reserves space' }
  /** Of a page that a build made. */
  | { readonly kind: 'no source' }
  | { readonly kind: 'written by code' }
  | { readonly kind: 'renderings differ' }
  | { readonly kind: 'built otherwise' }
  | { readonly kind: 'named by a script'; readonly name: string }
  | { readonly kind: 'too weak or too strong' }
  | { readonly kind: 'costs more' }
  /** Of a rule. */
  | { readonly kind: 'pasted'; readonly times: number }
  | { readonly kind: 'not in the draft' }
  | { readonly kind: 'refused' }
  | { readonly kind: 'taken'; readonly by: string }
  | { readonly kind: 'gone' };

/** One line for a person, without a full stop. */
export function keptText(reason: KeptReason): string {
  switch (reason.kind) {
    case 'written once':
      return 'written once: a one-off is no reason for a class';
    case 'written seldom':
      return `written ${reason.times} times, and a class is made from ${reason.atLeast} on`;
    case 'left over':
      return 'what it repeats went into larger sets; alone it is no reason for a class';
    case 'template text':
      return 'holds template text, which is never touched';
    case 'said by code':
      return 'is said by code, beside its style attribute';
    case 'in a template element':
      return 'stands in a <template>, which a script copies';
    case 'script':
      if (reason.property === CLASS_WRITTEN)
        return `a script writes its class attribute anew (${showPlace(reason.place)})`;
      return `a script reads or clears ${reason.property === '*' ? 'its style' : reason.property} (${showPlace(reason.place)})`;
    case 'unreadable script':
      return `a script could not be read, and may clear it (${showPlace(reason.place)})`;
    case 'mail':
      return 'mail programs read little but the styles of a tag; "mail": "move" in acervus.json moves them';
    case 'address':
      return reason.why;
    case 'unfinished value':
      return 'a bracket, quote or comment in it is never closed; the attribute ends it, a sheet would not';
    case 'not understood':
      return `no browser knows the property ${reason.property}: nothing to share`;
    case 'unfitting value':
      return `no browser takes «${reason.value}» for ${reason.property}: mend it, or take it out`;
    case 'character references':
      return 'the attribute is written with character references; only the whole of it could move';
    case 'no tag of its own':
      return 'its element has no tag of its own in the source';
    case 'page undecided':
      return `the page cannot be decided: ${reason.why}`;
    case 'stronger rule':
      return `${reason.selector} is stronger than a class (${showPlace(reason.place)})`;
    case 'proof':
      return `the proof does not vouch for it: ${reason.detail}`;
    case 'no name':
      return `${reason.value} gets no name: the proof does not vouch for it: ${reason.detail}`;
    case 'no exact CSS':
      return `no CSS is known that says exactly what ${reason.attribute} says`;
    case 'reserves space':
      return 'keeps the space of a picture free until it is there; "pictureSizes": "move" in acervus.json moves it';
    case 'no source':
      return 'no source holds its tag as it is: it is content, or the build makes it';
    case 'written by code':
      return 'its source writes it by an expression, which is never touched';
    case 'renderings differ':
      return 'one tag of a source makes it on several pages, and these would need different changes';
    case 'built otherwise':
      return 'what the build made of its changed source did not look the same';
    case 'named by a script':
      return `a script names <${reason.name}> elements`;
    case 'too weak or too strong':
      return 'no selector is strong enough to win where it won and weak enough to lose where it lost';
    case 'pasted':
      if (reason.times === 1)
        return 'is about one page: no selector that stands there keeps it from the others';
      return 'pasted into style blocks of pages that one rule for all of them would not leave as they are';
    case 'costs more':
      return 'a rule and a class for it would be more to keep up than it is';
    case 'not in the draft':
      return 'no style of the draft says it';
    case 'refused':
      return 'refused in the draft';
    case 'taken':
      return `another style of the draft takes it: ${reason.by}`;
    case 'gone':
      return 'the source changed since the draft, and it is no longer there';
  }
}
