// Rules once for all sections, over values that each section sets, as edits.

import type { SiteModel } from '../../cascade/index.js';
import {
  type NamedSection,
  type OwnRule,
  type RuleMove,
  rowsByRule,
  type SharedRule,
} from '../../search/index.js';
import type { Edit } from './edit.js';
import { push } from './plan.js';
import { planRuleMoves } from './rule-moves.js';
import { writeRules } from './shared-sheet.js';
import type { Edits } from './state.js';

export function planSections(
  model: SiteModel,
  sections: readonly NamedSection[],
  rules: readonly OwnRule[],
): Edits {
  const edits = new Map<string, Edit[]>();
  for (const sheet of new Set(sections.map((one) => one.sheet))) {
    const own = sections.filter((one) => one.sheet === sheet);
    const shared = { path: sheet, partNames: {} };
    const moves = own.flatMap((one) => movesOf(one, rules));
    for (const [path, some] of planRuleMoves(model, moves, shared)) push(edits, path, some);
    push(edits, sheet, writeRules(model.sources.sheets.get(sheet) ?? '', shared, valueRules(own)));
  }
  return edits;
}

/** `.fares { --ink: …; --wash: … }` for each section. */
function valueRules(sections: readonly NamedSection[]): SharedRule[] {
  const selectors = new Set(sections.flatMap(({ colours }) => [...colours.keys()]));
  const rule = (selector: string, colourOf: (one: NamedSection) => string | undefined): SharedRule[] => {
    const declarations = sections.flatMap((one) => {
      const value = colourOf(one);
      if (value === undefined) return [];
      const declaration = { property: one.name, value, important: false, range: { start: 0, end: 0 } };
      return [{ declaration, holder: one.sheet }];
    });
    return declarations.length === 0 ? [] : [{ selectors: [selector], part: 'tokens', declarations }];
  };
  return [
    ...rule(':root', ({ otherwise }) => otherwise),
    ...[...selectors].flatMap((name) => rule(`.${name}`, ({ colours }) => colours.get(name))),
  ];
}

function movesOf({ rows, name, sheet }: NamedSection, rules: readonly OwnRule[]): RuleMove[] {
  return [...rowsByRule(rows).values()].flatMap((own) => {
    const [first] = own;
    const anchor =
      own.find((row) => row.own !== undefined)?.own ??
      rules.find(
        (rule) =>
          rule.sheet === sheet &&
          rule.bases.join() === first!.base &&
          rule.suffix === first!.suffix &&
          rule.conditions.join() === first!.conditions.join(),
      );
    const before = own
      .flatMap(({ said }) => said.map((one) => one.own))
      .filter((rule) => rule.sheet === sheet)
      .sort((a, b) => a.order - b.order)[0];
    const place: RuleMove['place'] =
      anchor === undefined && before === undefined
        ? { sheet, kind: 'end', anchor: undefined, order: 1e6 + (first!.said[0]?.own.order ?? 0) }
        : anchor === undefined
          ? { sheet, kind: 'before', anchor: before, order: (before?.order ?? 0) - 0.5 }
          : { sheet, kind: 'into', anchor, order: anchor.order };
    return own.map(
      ({ base, suffix, conditions, declaration, form, said }): RuleMove => ({
        selectors: [base + suffix],
        conditions,
        replaced: [
          {
            movable: {
              key: `${declaration.property}:var(${name})`,
              declarations: [{ ...declaration, value: form.replace('\0', `var(${name})`) }],
              holder: said[0]!.own.holder,
            },
            said,
          },
        ],
        place,
        gain: said.length - 1,
      }),
    );
  });
}
