// The home that something new should have had: the class that declares it, the name that it has, the rule that declares it already.

import { groupBy } from '../../base/group-by.js';
import { comparePlaces, type Place, showPlace } from '../../base/source.js';
import { compileSelectorList, onlyClass } from '../../cascade/index.js';
import { nearName } from '../../stock/index.js';
import { classesOf, type Debt, type DebtSheet, declarationForm, placeOn } from './debts.js';

export interface HomeInput {
  /** Sheets that may be a home: the developer's first, then the platform's. */
  readonly sheets: readonly DebtSheet[];
  /** Blocks of pages; one is a home on its own page only. */
  readonly blocks: readonly DebtSheet[];
  /** Colours that have a name, by normal form. */
  readonly names: ReadonlyMap<string, string>;
  readonly classes: readonly string[];
  /** Everything that is there. */
  readonly debts: readonly Debt[];
}

export interface Home {
  /** What to do, in a few words. */
  readonly todo: string;
  /** Where the home stands. */
  readonly place?: Place | undefined;
  /** The command that does it; `undefined` where a hand is quicker. */
  readonly command?: string | undefined;
}

interface ClassRule {
  readonly name: string;
  readonly forms: ReadonlySet<string>;
  readonly place: Place;
}

export class Homes {
  readonly #input: HomeInput;
  readonly #shared: readonly ClassRule[];
  readonly #local = new Map<
    string,
    { readonly rules: readonly ClassRule[]; readonly classes: ReadonlySet<string> }
  >();

  constructor(input: HomeInput) {
    this.#input = input;
    this.#shared = input.sheets.flatMap((one) => classRules(one));
    for (const [path, blocks] of groupBy(input.blocks, (one) => one.path))
      this.#local.set(path, {
        rules: blocks.flatMap((one) => classRules(one)),
        classes: classesOf(blocks.map(({ sheet }) => sheet)),
      });
  }

  homeOf(debt: Debt): Home {
    switch (debt.kind) {
      case 'inline style':
        return this.#forInline(debt);
      case 'style block':
        return { todo: 'move it into the shared sheet', command: 'acervus draft' };
      case 'old attribute':
        return { todo: 'use a rule instead', command: 'acervus draft' };
      case 'repeated declaration':
        return this.#forRepeated(debt);
      case 'class without a rule':
        return this.#forClass(debt);
      case 'unnamed colour':
        return this.#forColour(debt);
      case 'importance':
        return {
          todo: 'a rule that is just specific enough needs no !important',
          command: 'acervus override <selector> <declaration>',
        };
      case 'id in a selector':
        return {
          todo: 'use a class: it can be overridden',
          command: 'acervus explain <page> <element>',
        };
    }
  }

  #forInline(debt: Debt): Home {
    const wanted = new Set(debt.declarations.map(declarationForm));
    if (wanted.size === 0) return { todo: 'a class for each of its outcomes' };
    const own = new Set(debt.element?.classes ?? []);
    const says = ({ forms }: ClassRule): number => [...forms].filter((form) => wanted.has(form)).length;
    // One that declares something else besides would change more than was meant.
    const rules = [...this.#shared, ...(this.#local.get(debt.place.path)?.rules ?? [])];
    const fitting = rules.filter((one) => says(one) === one.forms.size && says(one) > 0);
    const best = fitting.reduce<ClassRule | undefined>(
      (a, b) => (a === undefined || says(b) > says(a) ? b : a),
      undefined,
    );
    const whole = fitting.find((one) => says(one) === wanted.size);
    const home = whole ?? best;
    if (home !== undefined && own.has(home.name))
      return {
        todo: `.${home.name}, which it has, declares ${whole === undefined ? 'a part of it' : 'this'}: leave it out`,
        place: home.place,
      };
    if (whole !== undefined)
      return { todo: `give it the class ${whole.name}, which declares just this`, place: whole.place };
    const alike = this.#input.debts.filter(
      (one) => one.kind === 'inline style' && one.item === debt.item && one !== debt,
    );
    if (alike.length > 0)
      return {
        todo: `a class for it and ${alike.length} alike, such as at ${showPlace(alike[0]!.place)}`,
        place: alike[0]!.place,
        command: 'acervus draft',
      };
    if (home !== undefined)
      return {
        todo: `give it the class ${home.name}, which has ${says(home)} of its ${wanted.size} declarations`,
        place: home.place,
      };
    return {
      todo: 'a rule in the shared sheet, for a class with a name',
      command: 'acervus draft --at-least 1',
    };
  }

  #forRepeated({ item, place }: Debt): Home {
    const first = this.#input.sheets
      .flatMap((sheet) =>
        sheet.sheet.rules.flatMap((rule) =>
          rule.declarations
            .filter((one) => item.endsWith(declarationForm(one)))
            .map((one) => ({
              selector: rule.selector,
              place: placeOn(sheet, one.range.start),
            })),
        ),
      )
      .sort((a, b) => comparePlaces(a.place, b.place))
      .find((one) => comparePlaces(one.place, place) !== 0);
    return {
      todo: first === undefined ? 'declare it once' : `declare it once, with ${first.selector}`,
      place: first?.place,
      command: 'acervus draft',
    };
  }

  #forClass({ item, place }: Debt): Home {
    const near = nearName(item, [...this.#input.classes, ...(this.#local.get(place.path)?.classes ?? [])]);
    return near === undefined
      ? { todo: 'write its rule, or leave it out' }
      : { todo: `did you mean .${near}?` };
  }

  #forColour({ item }: Debt): Home {
    const { names } = this.#input;
    const known = names.get(item);
    if (known !== undefined) return { todo: `var(${known}) is this colour` };
    return names.size === 0
      ? { todo: 'give it a name with the other values', command: 'acervus draft' }
      : { todo: 'use one of the named colours, or name this one' };
  }
}

/** Rules that are for a class alone, at every moment and wherever it stands. */
function classRules(sheet: DebtSheet): ClassRule[] {
  return sheet.sheet.rules.flatMap((rule) => {
    if (rule.conditions.length > 0 || rule.scope !== undefined || rule.declarations.length === 0) return [];
    const place = placeOn(sheet, rule.selectorRange.start);
    // Importance only makes it hold the more certainly.
    const forms = new Set(rule.declarations.map((one) => declarationForm({ ...one, important: false })));
    const list = compileSelectorList(rule.selector);
    return (list.kind === 'list' ? list.selectors : []).flatMap((one) => {
      const name = onlyClass(one);
      return name === undefined ? [] : [{ name, forms, place }];
    });
  });
}
