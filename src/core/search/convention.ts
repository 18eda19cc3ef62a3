// How a house names its classes: read off the names it has, or as it is told.

/** The parts that names are made of. */
export interface Convention {
  readonly prefix: string;
  readonly suffix: string;
  readonly separator: '-' | '_' | '--' | '__';
  /** First words of the names of values. */
  readonly stems: Readonly<Record<'colour' | 'font' | 'shadow' | 'space' | 'size' | 'corner', string>>;
}

export const USUAL: Convention = {
  prefix: '',
  suffix: '',
  separator: '-',
  stems: { colour: '', font: 'font', shadow: 'shadow', space: 'space', size: 'text', corner: 'round' },
};

/** `g-7fq2`: no person wrote this. */
const MADE_UP = /(?:^|[-_])(?:\d+[a-z]+\w*|[a-z]+\d+[a-z]+\w*)$/i;

/** In: classes of the house's own sheets. Out: a prefix that most of them share, and what stands between words. */
export function readConvention(all: ReadonlySet<string>): Pick<Convention, 'prefix' | 'separator'> {
  const classes = new Set([...all].filter((name) => !MADE_UP.test(name)));
  const prefixes = new Map<string, number>();
  let underscores = 0;
  let dashes = 0;
  for (const name of classes) {
    const prefix = /^[a-zA-Z]{1,3}[-_]/.exec(name)?.[0];
    if (prefix !== undefined) prefixes.set(prefix, (prefixes.get(prefix) ?? 0) + 1);
    if (/\w_\w/.test(name)) underscores++;
    if (/\w-\w/.test(name)) dashes++;
  }
  const [most] = [...prefixes].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  // A few letters that most names begin with are the house; a whole word is what they are about.
  const shared = most !== undefined && most[1] >= 3 && most[1] * 2 > classes.size;
  return { prefix: shared ? most[0] : '', separator: underscores > dashes ? '_' : '-' };
}

/** A name of words with dashes between them, as the house writes it. */
export function conventional(name: string, { prefix, suffix, separator }: Convention): string {
  const words = name.replaceAll('-', separator);
  return `${prefix}${words}${suffix}`;
}
