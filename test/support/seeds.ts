// Seeds of random sites: the same in every run unless asked otherwise, and always the same under CI.
//   ACERVUS_SEED=17 npm test browser/engine      one seed again
//   ACERVUS_SEED=any ACERVUS_SITES=500 npm test  new ones, so many

/** Whether tests that try a part of what there is try all of it: ACERVUS_TESTS=all. */
export const ALL = process.env.ACERVUS_TESTS === 'all';

interface Setting {
  readonly first: number;
  readonly many: number;
}

function settingOf(
  usual: Setting,
  { CI, ACERVUS_SEED: seed, ACERVUS_SITES: sites }: NodeJS.ProcessEnv,
): Setting {
  if (CI === 'true') return usual;
  const many = sites === undefined ? usual.many : Number(sites);
  if (seed === undefined) return { first: usual.first, many };
  if (seed === 'any') return { first: 1 + Math.floor(Math.random() * 1e6), many };
  return { first: Number(seed), many: sites === undefined ? 1 : many };
}

export class Seeds implements Iterable<number> {
  readonly #file: string;
  readonly #setting: Setting;
  readonly #usual: number;

  /** In: the test's file as `npm test` takes it; how many seeds there usually are. */
  constructor(file: string, many: number, first = 1) {
    this.#file = file;
    this.#usual = many;
    this.#setting = settingOf({ first, many }, process.env);
  }

  *[Symbol.iterator](): Generator<number> {
    const { first, many } = this.#setting;
    for (let seed = first; seed < first + many; seed++) {
      let passed = false;
      try {
        yield seed;
        passed = true;
      } finally {
        if (!passed) process.stderr.write(`failed: ${this.name(seed)}\n`);
      }
    }
  }

  get many(): number {
    return this.#setting.many;
  }

  /** Whether there are enough of them for what holds of many together: one that is run again need not move anything. */
  get areMany(): boolean {
    return this.many >= this.#usual;
  }

  /** A seed, and the command that runs it again. */
  name(seed: number): string {
    return `seed ${seed} (again: ACERVUS_SEED=${seed} npm test ${this.#file})`;
  }
}
