// Words of an attribute, as the HTML standard tells them apart.

/** Splits on HTML's white space only: a no-break space is part of a class name. */
export function splitTokens(text: string): string[] {
  return text.split(/[\t\n\f\r ]+/).filter((word) => word !== '');
}
