// Watches a recording while somebody speaks: nothing heard for five seconds, samples at full scale.

const NOTHING = 10 ** (-50 / 20);
const NOTHING_SECONDS = 5;
const FULL_SCALE = 0.999;
const RUN = 3;
const SAID_SECONDS = 4;

export class Watch {
  #quiet = 0;
  #hot = 0;

  /** @param {(words: string | null) => void} say */
  constructor(say) {
    this.say = say;
  }

  /** Looks at the next block of samples; says what is wrong, and takes it back when it is over. @param {Float32Array} samples @param {number} seconds */
  look(samples, seconds) {
    let peak = 0;
    let run = 0;
    let longest = 0;
    for (const sample of samples) {
      const level = Math.abs(sample);
      peak = Math.max(peak, level);
      run = level >= FULL_SCALE ? run + 1 : 0;
      longest = Math.max(longest, run);
    }
    this.#quiet = peak < NOTHING ? this.#quiet + seconds : 0;
    this.#hot = longest >= RUN ? SAID_SECONDS : Math.max(0, this.#hot - seconds);
    this.say(this.#quiet > NOTHING_SECONDS ? 'Nothing has been heard for five seconds. Is the microphone on?'
      : this.#hot > 0 ? 'Too hot: that crackled. Move back a little. What was said is kept.' : null);
  }
}
