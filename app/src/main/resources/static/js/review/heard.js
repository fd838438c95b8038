// What was heard of a hand-in in this browser, so that clearing what was not heard asks once.
import { RATE } from '../shared/time.js';

/** Shorter gaps are the seams of playing and stopping. */
const NOT_WORTH_ASKING = RATE / 2;

/** @typedef {{ start: number, end: number }} Span in frames */

/** The union of spans, in order. @param {Span[]} spans @returns {Span[]} */
export function union(spans) {
  /** @type {Span[]} */
  const joined = [];
  for (const span of [...spans].sort((one, other) => one.start - other.start)) {
    const last = joined.at(-1);
    if (last && span.start <= last.end) {
      last.end = Math.max(last.end, span.end);
    } else if (span.end > span.start) {
      joined.push({ ...span });
    }
  }
  return joined;
}

/** What is left of a sound. @param {Span[]} heard @param {number} frames its length */
export function unheard(heard, frames) {
  /** @type {Span[]} */
  const left = [];
  let at = 0;
  for (const span of [...union(heard), { start: frames, end: frames }]) {
    if (span.start - at > NOT_WORTH_ASKING) {
      left.push({ start: at, end: Math.min(span.start, frames) });
    }
    at = Math.max(at, span.end);
  }
  return left;
}

/** Remembers what an element plays, over reloads of its page. */
export class Heard {
  #audio;
  #key;

  /** @param {HTMLAudioElement} audio @param {string} handIn */
  constructor(audio, handIn) {
    this.#audio = audio;
    this.#key = `heard-${handIn}`;
    addEventListener('pagehide', () => sessionStorage.setItem(this.#key, JSON.stringify(this.spans)));
  }

  /** @returns {Span[]} */
  get spans() {
    const { played } = this.#audio;
    const now = Array.from({ length: played.length }, (_, at) => ({ start: Math.round(played.start(at) * RATE), end: Math.round(played.end(at) * RATE) }));
    return union([...now, ...JSON.parse(sessionStorage.getItem(this.#key) ?? '[]')]);
  }
}
