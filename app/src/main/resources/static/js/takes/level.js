// The level of a microphone as a bar and a word. The limits come from the page: the server knows the house's working level.

const LOWEST_DBFS = -48;
const HOLD_MS = 1000;

export class Level {
  #held = 0;
  #heldAt = 0;

  constructor(bar, word, limits) {
    this.bar = bar;
    this.word = word;
    this.limits = limits;
  }

  /** Shows a block of samples, and returns its peak. */
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
    const part = peak > 0 ? 1 - Math.max(LOWEST_DBFS, Math.min(0, 20 * Math.log10(peak))) / LOWEST_DBFS : 0;
    this.bar.setAttribute('width', Math.round(1000 * part));
    const [word, colour] = this.#judge(this.#held > 0 ? 20 * Math.log10(this.#held) : -Infinity);
    this.bar.setAttribute('fill', `var(--color-${colour})`);
    if (this.word.textContent !== word) {
      this.word.textContent = word;
    }
    return peak;
  }

  #judge(dbfs) {
    const { lowCheck, lowGood, highGood, highCheck } = this.limits;
    if (dbfs > highCheck) {
      return ['too hot: move back', 'persimmon'];
    }
    if (dbfs > highGood) {
      return ['a little hot', 'mustard'];
    }
    if (dbfs >= lowGood) {
      return ['good', 'lagoon'];
    }
    return dbfs >= lowCheck ? ['a little quiet', 'mustard'] : ['too quiet: move closer', 'persimmon'];
  }
}
