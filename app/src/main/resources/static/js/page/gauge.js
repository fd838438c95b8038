// The level gauge on the rail: a tide pole with the good band marked.
import { byId } from '../shared/elements.js';
import { heightOf, judge, limitsOf, onScale } from '../shared/level-scale.js';

/** @param {number} dbfs */
const percent = dbfs => 100 * heightOf(dbfs);

export class Gauge {
  #fill = byId('gauge-fill');
  #word = byId('gauge-word');
  #limits;

  /** @param {DOMStringMap} data of an element that carries the limits of the working level */
  constructor(data) {
    this.#limits = limitsOf(data);
    const band = byId('gauge-band');
    band.style.bottom = `${percent(this.#limits.lowGood)}%`;
    band.style.height = `${percent(this.#limits.highGood) - percent(this.#limits.lowGood)}%`;
  }

  /** @param {number} dbfs */
  show(dbfs) {
    const { side, verdict } = judge(dbfs, this.#limits);
    this.#fill.style.height = `${percent(dbfs)}%`;
    this.#fill.dataset.verdict = verdict;
    this.#word.textContent = onScale(dbfs) ? side : 'silent';
  }
}
