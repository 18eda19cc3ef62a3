// The sheet that shared styles are written into, and its parts, in order: what comes later wins over what is as strong.

export const PARTS = ['tokens', 'elements', 'layout', 'components', 'positions', 'overrides'] as const;
export type Part = (typeof PARTS)[number];

/** What the headings of the parts are called. */
export type PartNames = Readonly<Partial<Record<Part, string | undefined>>>;

export interface SharedSheet {
  /** In the site; whether or not it exists. */
  readonly path: string;
  readonly partNames: PartNames;
}
