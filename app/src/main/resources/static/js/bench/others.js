// Who else has the page open, and at which row. Nobody counts as here whose page lies untouched.
import { byId } from '../shared/elements.js';
import { postJson } from '../shared/http.js';
import { clock } from '../shared/time.js';
import { shortName } from '../page/names.js';

/** @typedef {{ personId: number, name: string, frame: number }} Somebody */

const EVERY_MS = 10_000;
const UNTOUCHED_MS = 5 * 60_000;

/** Who is here, in words. @param {Somebody[]} others */
export function othersInWords(others) {
  return others.map(({ name, frame }) => `${shortName(name)} is here too, at ${clock(frame)}.`).join(' ');
}

export class Others {
  #bench;
  #address;
  /** @type {Somebody[]} */
  #others = [];
  #touchedAt = performance.now();

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#address = `/episodes/${episodeId}`;
    this.#bench = bench;
    bench.rows.onRow(row => this.#mark(row));
    for (const event of ['pointerdown', 'keydown', 'scroll']) {
      document.addEventListener(event, () => { this.#touchedAt = performance.now(); }, { passive: true });
    }
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible') {
        this.tell();
      } else {
        postJson(`${this.#address}/gone`, {}).catch(() => {});
      }
    });
    window.setInterval(() => this.tell(), EVERY_MS);
  }

  /** Says where one is, and draws who else is where. */
  async tell() {
    if (document.visibilityState !== 'visible' || performance.now() - this.#touchedAt > UNTOUCHED_MS) {
      return;
    }
    this.#others = await postJson(`${this.#address}/here`, { frame: this.#bench.page.now() }).catch(() => []);
    byId('others').textContent = othersInWords(this.#others);
    this.#bench.rows.all.forEach(row => this.#mark(row));
  }

  /** @param {import('../page/rows.js').Row} row */
  #mark(row) {
    const { layout } = this.#bench.page;
    const here = layout && layout.rowCount > 0 ? this.#others.filter(({ frame }) => layout.rowOf(Math.min(frame, layout.timeline.frames)) === row.number) : [];
    let mark = row.element.querySelector('.here');
    if (here.length === 0) {
      mark?.remove();
      return;
    }
    if (!mark) {
      mark = document.createElement('span');
      mark.className = 'here';
      mark.setAttribute('aria-hidden', 'true');
      row.element.append(mark);
    }
    mark.textContent = here.map(({ name }) => shortName(name)).join(', ');
  }
}
