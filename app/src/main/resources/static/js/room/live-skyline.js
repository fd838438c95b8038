// The skyline of a take that is being recorded: it grows, and shrinks together when it is full.
import { dbfsOf, heightOf } from '../shared/level-scale.js';

const COLUMNS = 500;

export class LiveSkyline {
  #secondsAColumn = 0.1;
  /** @type {number[]} */
  #columns = [];
  #filled = 0;
  #peak = 0;

  /** @param {Element} path */
  constructor(path) {
    this.path = path;
  }

  clear() {
    this.#secondsAColumn = 0.1;
    this.#columns = [];
    this.#filled = 0;
    this.#peak = 0;
    this.#draw();
  }

  /** @param {number} seconds @param {number} peak */
  add(seconds, peak) {
    this.#filled += seconds;
    this.#peak = Math.max(this.#peak, peak);
    if (this.#filled >= this.#secondsAColumn) {
      this.#columns.push(this.#peak);
      this.#filled = 0;
      this.#peak = 0;
      if (this.#columns.length > COLUMNS) {
        this.#secondsAColumn *= 2;
        this.#columns = this.#columns.flatMap((value, i, all) => (i % 2 ? [] : [Math.max(value, all[i + 1] ?? 0)]));
      }
      this.#draw();
    }
  }

  #draw() {
    const width = 1000 / COLUMNS;
    const tops = this.#columns.map((peak, i) =>
      `L${i * width} ${100 - 100 * heightOf(dbfsOf(peak))}H${(i + 1) * width}`);
    this.path.setAttribute('d', tops.length ? `M0 100${tops.join('')}L${tops.length * width} 100Z` : '');
  }
}
