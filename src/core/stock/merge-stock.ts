// Joins what was found in pages by different threads, or at different times.

import { comparePlaces } from '../base/source.js';
import type { Links, PagedSighting, Sighting, StockData } from './statistics.js';

/** A book of one page, which is the first, as that of the page with another number. Out: `data`, changed. */
export function numbered(data: StockData, number: number): StockData {
  for (const sighting of [...data.styles.values(), ...data.blocks.values()]) sighting.pages = [number];
  return data;
}

/** Adds what another book holds of other pages. Out: `into`, changed. */
export function mergeStock(into: StockData, from: StockData): StockData {
  into.pages += from.pages;
  into.components += from.components;
  into.elements += from.elements;
  into.hinted += from.hinted;
  into.fromSelf += from.fromSelf;
  for (const [key, style] of from.styles) {
    const known = into.styles.get(key);
    if (known === undefined) into.styles.set(key, style);
    else {
      if (comparePlaces(style.places[0]!, known.places[0]!) < 0) known.start = style.start;
      addPaged(known, style);
    }
  }
  for (const [key, block] of from.blocks) {
    const known = into.blocks.get(key);
    if (known === undefined) into.blocks.set(key, block);
    else addPaged(known, block);
  }
  for (const [key, times] of from.hints) into.hints.set(key, (into.hints.get(key) ?? 0) + times);
  for (const [key, links] of from.links) {
    const known = into.links.get(key);
    if (known === undefined) into.links.set(key, links);
    else {
      const first = comparePlacesOf(links, known) < 0 ? links : known;
      into.links.set(key, { ...first, pages: known.pages + links.pages });
    }
  }
  for (const [name, byLinks] of from.classes) {
    const known = into.classes.get(name);
    if (known === undefined) into.classes.set(name, byLinks);
    else {
      for (const [key, sighting] of byLinks) {
        const same = known.get(key);
        if (same === undefined) known.set(key, sighting);
        else addSighting(same, sighting);
      }
    }
  }
  for (const part of ['classes', 'ids', 'types'] as const)
    for (const name of from.carried[part]) into.carried[part].add(name);
  for (const [key, sighting] of from.chosen) {
    const known = into.chosen.get(key);
    if (known === undefined) into.chosen.set(key, sighting);
    else addSighting(known, sighting);
  }
  into.doubled.push(...from.doubled);
  into.repeatedIds.push(...from.repeatedIds);
  for (const word of from.words) into.words.add(word);
  return into;
}

function addPaged(into: PagedSighting, from: PagedSighting): void {
  for (const page of from.pages) into.pages.push(page);
  addSighting(into, from);
}

function addSighting(into: Sighting, from: Sighting): void {
  into.times += from.times;
  into.places = [...into.places, ...from.places].sort(comparePlaces).slice(0, 2);
}

function comparePlacesOf(a: Links, b: Links): number {
  return a.holder < b.holder ? -1 : a.holder > b.holder ? 1 : 0;
}
