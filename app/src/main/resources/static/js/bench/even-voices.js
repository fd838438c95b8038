// How loud the voices are beside each other, as bars, and the gains that would make them even: heard before they are kept.
import { byId } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** As `EvenVoices` of the core. @typedef {{ targetLufs: number, gainsDb: Record<string, number>, voices: { trackId: number, lufs: number, evenLufs: number }[] }} Even */

/** The bars show so much. */
const LOWEST_LUFS = -48;
const HIGHEST_LUFS = -6;
/** Voices that are so near to each other are even. */
const EVEN_DB = 0.5;
/** A voice that is raised by more than this raises its room so that it is heard. */
const MUCH_DB = 12;

/** @param {number} lufs */
const part = lufs => Math.max(0, Math.min(1, (lufs - LOWEST_LUFS) / (HIGHEST_LUFS - LOWEST_LUFS)));
/** @param {number} db */
const signed = db => `${db > 0 ? '+' : db < 0 ? '−' : ''}${Math.abs(db).toFixed(1)} dB`;
/** @param {number} lufs */
const loud = lufs => `${lufs < 0 ? '−' : ''}${Math.abs(lufs).toFixed(1)} LUFS`;

export class EvenVoices {
  #bench;
  #episode;
  /** @type {Even | null} */
  #even = null;
  /** The revision it was asked for. */
  #revision = -1;

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#bench = bench;
    this.#episode = `/episodes/${episodeId}`;
    byId('even-out').addEventListener('click', () => this.#offer());
  }

  /** Asks again where something has changed, while the list is looked at. */
  async draw() {
    const { revision } = this.#bench.timeline();
    if (revision === this.#revision || !byId('tracks-list').offsetParent) {
      return;
    }
    this.#revision = revision;
    const even = await getJson(`${this.#episode}/even/${revision}`).catch(() => null);
    if (revision === this.#revision) {
      // what is not measured yet is asked for again
      this.#revision = even ? revision : -1;
      this.#even = even;
      this.#show();
    }
  }

  get #changes() {
    return (this.#even?.voices ?? []).map(voice => ({ ...voice, name: this.#bench.timeline().tracks.find(({ id }) => id === voice.trackId)?.name ?? '', db: voice.evenLufs - voice.lufs }))
      .filter(({ name }) => name !== '');
  }

  #show() {
    const changes = this.#changes;
    const target = this.#even?.targetLufs ?? 0;
    // takes on one track may be uneven too
    const uneven = this.#bench.timeline().tracks.some(({ clips }) => clips.some(({ id, gainDb }) => Math.abs((this.#even?.gainsDb[id] ?? gainDb) - gainDb) >= EVEN_DB));
    byId('voices').hidden = changes.length < 2 && !uneven;
    byId('even-out').hidden = !uneven;
    render(html`${changes.map(({ name, lufs, db }) => html`
      <li class="voice-bar">
        <span class="flex justify-between gap-2"><b class="truncate">${name}</b><span class="tabular-nums whitespace-nowrap">${loud(lufs)}${Math.abs(db) < EVEN_DB ? '' : html` · <b>${signed(db)}</b>`}</span></span>
        <svg class="voice-bar-picture" viewBox="0 0 100 12" preserveAspectRatio="none" aria-hidden="true">
          <rect class="voice-bar-all" width="100" height="12" rx="2"></rect>
          <rect class="voice-bar-now" y="3" width=${100 * part(lufs)} height="6"></rect>
          <rect class="voice-bar-target" x=${100 * part(target) - 0.5} width="1" height="12"></rect>
        </svg>
      </li>`)}`, byId('voices-list'));
    byId('voices-said').textContent = !uneven ? `All voices are within ${EVEN_DB} dB of each other.`
      : `The mark is where all would be: ${loud(target)}.${changes.some(({ db }) => db > MUCH_DB) ? ' A voice that is raised so much raises its room too.' : ''}`;
  }

  /** The gains that make the voices even are heard first. */
  #offer() {
    this.#bench.attempt(async () => {
      const said = this.#changes.filter(({ db }) => Math.abs(db) >= EVEN_DB).map(({ name, db }) => `${name}: ${signed(db)}`).join(' · ');
      await this.#bench.offer({ type: 'set-clip-gains', gainsDb: this.#even?.gainsDb ?? {} }, said, 'The voices are even.', this.#bench.page.position);
    });
  }
}
