// Numbers as a person reads them.

/** Thousands apart: `12 480`. */
export function grouped(number: number): string {
  // Not by the locale's data, which takes longer to load than a small site to read.
  return String(number).replace(/\B(?=(\d{3})+$)/g, ' ');
}
