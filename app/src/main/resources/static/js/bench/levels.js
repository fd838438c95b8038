// What is heard now, track by track, while it plays: the level with what it reached last, what went over full scale, and how far the
// music lies under the voice. Drawn in the list of tracks, while that is open.
import { columns } from '../page/lanes.js';
import { getJson } from '../shared/http.js';
import { heightOf, nextReading, onScale } from '../shared/level-scale.js';
import { RATE } from '../shared/time.js';

/** The level is that of so much sound. */
const HEARD = RATE / 12;
const EVERY_MS = 80;
const COMPARED_EVERY_MS = 1000;

/** @param {import('../shared/level-scale.js').Reading} reading */
const words = ({ held, over }) => (over ? 'over!' : onScale(held) ? `${Math.round(held)} dB` : 'silent');

export class Levels {
  #bench;
  #episode;
  /** @type {Map<number, import('../shared/level-scale.js').Reading>} */
  #readings = new Map();
  #comparedAt = 0;
  #reading = false;

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#bench = bench;
    this.#episode = `/episodes/${episodeId}`;
    window.setInterval(async () => {
      // one at a time, however slow the network
      if (!this.#reading) {
        this.#reading = true;
        await this.#read().finally(() => { this.#reading = false; });
      }
    }, EVERY_MS);
  }

  /** Takes back that something went over. @param {number} trackId */
  forget(trackId) {
    this.#readings.delete(trackId);
  }

  async #read() {
    const { page } = this.#bench;
    const list = /** @type {HTMLElement | null} */ (document.getElementById('tracks-list'));
    if (!page.playing || !list?.offsetParent) {
      return;
    }
    const { tracks, takes } = this.#bench.timeline();
    const at = page.now();
    for (const track of tracks) {
      const meter = /** @type {HTMLElement | null} */ (list.querySelector(`[data-level="${track.id}"]`));
      const silent = track.muted || page.ear.without.includes(track.id);
      const [column] = silent ? [null] : await columns(track, takes, Math.max(0, at - HEARD), at + 1, 1).catch(() => [null]);
      const reading = nextReading(this.#readings.get(track.id), column?.peak ?? -Infinity, performance.now());
      this.#readings.set(track.id, reading);
      if (meter) {
        meter.style.setProperty('--level', String(onScale(reading.level) ? heightOf(reading.level) : 0));
        meter.style.setProperty('--held', String(onScale(reading.held) ? heightOf(reading.held) : 0));
        meter.classList.toggle('over', reading.over);
        /** @type {HTMLElement} */ (meter.nextElementSibling).textContent = words(reading);
      }
    }
    await this.#compare(at);
  }

  /** @param {number} at */
  async #compare(at) {
    const now = performance.now();
    const said = document.getElementById('under-voice');
    if (!said || now - this.#comparedAt < COMPARED_EVERY_MS) {
      return;
    }
    this.#comparedAt = now;
    const { lu } = await getJson(`${this.#episode}/under-voice/${this.#bench.timeline().revision}/${Math.round(at)}`).catch(() => ({ lu: null }));
    said.textContent = lu === null ? '' : lu < 0 ? `Here the music is ${Math.round(-lu)} LU over the voice.` : `Here the music is ${Math.round(lu)} LU under the voice.`;
  }
}
