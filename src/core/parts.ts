// The parts of the shared sheet, in order: what comes later wins over what is as strong.

export const PARTS = ['tokens', 'elements', 'layout', 'components', 'positions', 'overrides'] as const;
export type Part = (typeof PARTS)[number];
