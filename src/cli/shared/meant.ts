// `--picture` of a question: the elements that are meant, outlined on their page.

import type { Terminal } from './terminal.js';

/** Elements by their page, each by its number on it. */
export class MeantElements {
  readonly #byPage = new Map<string, number[]>();

  readonly add = (page: string, element: number): void => {
    this.#byPage.set(page, [...(this.#byPage.get(page) ?? []), element]);
  };

  on(page: string): readonly number[] {
    return this.#byPage.get(page) ?? [];
  }
}

/** In: the site's folder; the page to show, or those that would do, the best first: none, and nothing is taken. */
export async function showMeant(
  { warn }: Terminal,
  folder: string,
  elements: MeantElements,
  wanted: { readonly page?: string | undefined; readonly best: readonly string[]; readonly title: string },
): Promise<void> {
  const { page, best, title } = wanted;
  if (page === undefined && best.length === 0) return;
  const { pictureOfMeant } = await import('../../report/meant.js');
  const on = (file: string): readonly number[] => elements.on(file);
  warn(`picture  ${await pictureOfMeant(folder, { page, best, title, on })}\n`);
}
