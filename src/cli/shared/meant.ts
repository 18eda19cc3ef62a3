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

/** In: the site's folder; the page to show, where there is one. */
export async function showMeant(
  { warn }: Terminal,
  folder: string,
  elements: MeantElements,
  { page, title }: { readonly page: string | undefined; readonly title: string },
): Promise<void> {
  if (page === undefined) return;
  const { pictureOfMeant } = await import('../../report/meant.js');
  warn(`picture  ${await pictureOfMeant(folder, page, elements.on(page), title)}\n`);
}
