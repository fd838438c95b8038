// The level gauge on the rail: a tide pole with the good band marked.

const LOWEST_DBFS = -48;
const percent = dbfs => 100 * (1 - Math.max(LOWEST_DBFS, Math.min(0, dbfs)) / LOWEST_DBFS);

export class Gauge {
  #fill = document.getElementById('gauge-fill');
  #word = document.getElementById('gauge-word');
  #limits;

  /** @param limits the working level, as the page gives it: lowCheck, lowGood, highGood, highCheck in dBFS */
  constructor({ lowCheck, lowGood, highGood, highCheck }) {
    this.#limits = { lowCheck: +lowCheck, lowGood: +lowGood, highGood: +highGood, highCheck: +highCheck };
    const band = document.getElementById('gauge-band');
    band.style.bottom = `${percent(+lowGood)}%`;
    band.style.height = `${percent(+highGood) - percent(+lowGood)}%`;
  }

  show(dbfs) {
    this.#fill.style.height = `${percent(dbfs)}%`;
    const { lowCheck, lowGood, highGood, highCheck } = this.#limits;
    const good = dbfs >= lowGood && dbfs <= highGood;
    const edge = dbfs >= lowCheck && dbfs <= highCheck;
    this.#fill.dataset.level = good ? 'good' : edge ? 'edge' : 'out';
    this.#word.textContent = dbfs < LOWEST_DBFS ? 'silent' : good ? 'good' : dbfs > highGood ? 'hot' : 'quiet';
  }
}
