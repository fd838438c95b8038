// The level of a microphone as a bar and a word.
import { dbfsOf, heightOf, judge } from '../shared/level-scale.js';

const HOLD_MS = 1000;
/** @type {{ [verdict: string]: string }} */
const COLOURS = { good: 'lagoon', check: 'mustard', fix: 'persimmon' };
/** @type {{ [side: string]: { [verdict: string]: string } }} */
const WORDS = {
  hot: { check: 'a little hot', fix: 'too hot: move back' },
  quiet: { check: 'a little quiet', fix: 'too quiet: move closer' },
};

export class Level {
  #held = 0;
  #heldAt = 0;

  /** @param {Element} bar @param {HTMLElement} word @param {import('../shared/level-scale.js').Limits} limits */
  constructor(bar, word, limits) {
    this.bar = bar;
    this.word = word;
    this.limits = limits;
  }

  /** Shows a block of samples, and returns its peak. The word follows the highest peak of the last second. @param {Float32Array} samples */
  show(samples) {
    let peak = 0;
    for (const sample of samples) {
      peak = Math.max(peak, Math.abs(sample));
    }
    const now = performance.now();
    if (peak >= this.#held || now - this.#heldAt > HOLD_MS) {
      this.#held = peak;
      this.#heldAt = now;
    }
    const { side, verdict } = judge(dbfsOf(this.#held), this.limits);
    const word = WORDS[side]?.[verdict] ?? 'good';
    this.bar.setAttribute('width', String(Math.round(1000 * heightOf(dbfsOf(peak)))));
    this.bar.setAttribute('fill', `var(--color-${COLOURS[verdict]})`);
    if (this.word.textContent !== word) {
      this.word.textContent = word;
    }
    return peak;
  }
}
