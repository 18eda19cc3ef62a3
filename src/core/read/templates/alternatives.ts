// Everything that a stretch of text with branches in it can come to: each branch taken and not, each word that an expression
// can print.

import { outcomesOf } from './outcomes.js';
import type { EnginePiece } from './pieces.js';

/** So many are told apart: what has more is not decided. */
const MOST = 64;

/**
 * In: a stretch of a file, its offset there, and the pieces of engine text in it; what stands for a print that nobody knows.
 * Out: each text that it can be; `undefined` for too many, or where its branches begin or end elsewhere.
 */
export function alternativesOf(
  text: string,
  offset: number,
  pieces: readonly EnginePiece[],
  unknown: (piece: EnginePiece) => string,
): readonly string[] | undefined {
  const reading = new Reading(text, offset, pieces, unknown);
  const all = reading.sequence();
  return reading.isDone ? all && [...new Set(all)] : undefined;
}

class Reading {
  #next = 0;
  #at: number;

  constructor(
    readonly text: string,
    readonly offset: number,
    readonly pieces: readonly EnginePiece[],
    readonly unknown: (piece: EnginePiece) => string,
  ) {
    this.#at = offset;
  }

  /** Whether all of the text is read: an end without a beginning is left. */
  get isDone(): boolean {
    return this.#next === this.pieces.length;
  }

  /** Up to the end, or to what ends the branch that it stands in. */
  sequence(): readonly string[] | undefined {
    let all: readonly string[] = [''];
    for (;;) {
      const piece = this.pieces[this.#next];
      const end = piece?.start ?? this.offset + this.text.length;
      const plain = this.text.slice(this.#at - this.offset, end - this.offset);
      all = all.map((one) => one + plain);
      this.#at = end;
      if (piece === undefined || piece.role === 'else' || piece.role === 'close') return all;
      this.#take(piece);
      const these = piece.role === 'open' ? this.#branch() : this.#printed(piece);
      if (these === undefined || all.length * these.length > MOST) return undefined;
      all = all.flatMap((one) => these.map((own) => one + own));
    }
  }

  #printed(piece: EnginePiece): readonly string[] {
    return piece.prints ? (outcomesOf(piece.code) ?? [this.unknown(piece)]) : [''];
  }

  /** Behind what opens it. Without a last part for all else, none of them may be taken. */
  #branch(): readonly string[] | undefined {
    const all: string[] = [];
    let isTotal = false;
    for (;;) {
      const own = this.sequence();
      const piece = this.pieces[this.#next];
      if (own === undefined || piece === undefined) return undefined;
      all.push(...own);
      this.#take(piece);
      if (piece.role === 'close') return isTotal ? all : [...all, ''];
      isTotal ||= /^\W*else\W*$/.test(piece.code);
    }
  }

  #take(piece: EnginePiece): void {
    this.#next++;
    this.#at = piece.end;
  }
}
