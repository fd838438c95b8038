// The pauses of the page: where they are, how long, after whom. Those that are too long become as long as that speaker's pauses
// usually are, each as ticked, in one press.
import { byId, fieldById, fieldOf } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { RATE, fineClock } from '../shared/time.js';
import { live } from '../vendor/lit-html/directives/live.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {{ startFrame: number, endFrame: number }} Span */
/** @typedef {{ trackId: number, span: Span, allQuiet: boolean, naturalFrames: number, cut: Span | null }} Pause */

const AROUND = RATE;
/** Kept beside words, so that no breath goes. */
const LEAST_KEPT = RATE / 5;

/** @param {Span} span */
const lengthOf = ({ startFrame, endFrame }) => endFrame - startFrame;
/** @param {number} frames */
const seconds = frames => (frames / RATE).toFixed(2);

export class PausesTab {
  #bench;
  #episode;
  #own;
  /** @type {Pause[]} */
  #pauses = [];
  #measured = true;
  #revision = 0;
  /** Those that are left as they are, by their starts. @type {Set<number>} */
  #refused = new Set();
  /** How long others shall be instead, in frames by their starts. @type {Map<number, number>} */
  #wanted = new Map();

  /** @param {string} episodeId @param {boolean} own @param {import('./types.js').Bench} bench */
  constructor(episodeId, own, bench) {
    this.#bench = bench;
    this.#own = own;
    this.#episode = `/episodes/${episodeId}`;
    ['pauses-longer', 'pauses-others'].forEach(id => byId(id).addEventListener('change', () => this.#show()));
    document.getElementById('shorten-pauses')?.addEventListener('click', () => this.#shorten());
  }

  /** Asks for the pauses of what is shown, once. */
  async draw() {
    const { revision } = this.#bench.timeline();
    // what is not measured yet is asked for again
    if (revision !== this.#revision || !this.#measured) {
      const { measured, pauses } = await getJson(`${this.#episode}/pauses/${revision}`);
      if (revision !== this.#revision) {
        this.#refused.clear();
        this.#wanted.clear();
      }
      this.#revision = revision;
      this.#pauses = pauses;
      this.#measured = measured;
    }
    this.#show();
  }

  /** The starts and ends of pauses, to jump to. @returns {Promise<number[]>} */
  async places() {
    await this.draw();
    return this.#pauses.filter(pause => pause.allQuiet).map(({ span }) => span.startFrame);
  }

  /** Quiet ones of at least the length that is asked for. */
  #listed() {
    const longer = Number(fieldById('pauses-longer').value.replace(',', '.')) * RATE || 0;
    const others = fieldById('pauses-others').checked;
    return this.#pauses.filter(pause => lengthOf(pause.span) >= longer && (pause.allQuiet || others));
  }

  /** What is taken out of a pause; null if it is left as it is. @param {Pause} pause @returns {Span | null} */
  #cutOf({ span, cut, allQuiet, naturalFrames }) {
    const kept = Math.max(LEAST_KEPT, this.#wanted.get(span.startFrame) ?? naturalFrames);
    if (!allQuiet || this.#refused.has(span.startFrame) || kept >= lengthOf(span)) {
      return null;
    }
    if (cut && !this.#wanted.has(span.startFrame)) {
      return cut;
    }
    const before = Math.round(kept * 0.6);
    return { startFrame: span.startFrame + before, endFrame: span.endFrame - (kept - before) };
  }

  #show() {
    const { tracks } = this.#bench.timeline();
    const listed = this.#listed();
    const cuts = listed.flatMap(pause => this.#cutOf(pause) ?? []);
    const gained = cuts.reduce((sum, cut) => sum + lengthOf(cut), 0);
    byId('pauses-none').textContent = listed.length > 0 ? '' : this.#measured ? 'No pause is that long.' : 'The takes are being measured. Look again in a moment.';
    const button = /** @type {HTMLButtonElement | null} */ (document.getElementById('shorten-pauses'));
    if (button) {
      button.disabled = cuts.length === 0;
      button.textContent = cuts.length === 0 ? 'Nothing to shorten' : `Shorten ${cuts.length} ${cuts.length === 1 ? 'pause' : 'pauses'}: ${seconds(gained)} s less`;
    }
    render(listed.map(pause => this.#line(pause, tracks.find(track => track.id === pause.trackId)?.name ?? '')), byId('pauses-list'));
  }

  /** @param {Pause} pause @param {string} name */
  #line(pause, name) {
    const { span, allQuiet, naturalFrames } = pause;
    const start = span.startFrame;
    const at = fineClock(start);
    return html`
      <li class="track-line">
        <p class="flex items-baseline gap-3"><button type="button" class="link-button" aria-label="Go to the pause at ${at}" @click=${() => this.#bench.page.goTo(start, true)}>${at}</button>
          <b class="whitespace-nowrap">${seconds(lengthOf(span))} s</b><span class="text-muted text-sm truncate">${allQuiet ? 'after' : 'only of'} ${name}</span></p>
        <div class="flex flex-wrap items-center gap-2 text-sm">
          <button type="button" class="link-button" aria-label="Hear the pause at ${at}" @click=${() => this.#hear(pause)}>Hear</button>
          ${allQuiet && this.#own ? html`
          <label><input type="checkbox" .checked=${live(!this.#refused.has(start))} @change=${(/** @type {Event} */ event) => {
    this.#refused[fieldOf(event).checked ? 'delete' : 'add'](start);
    this.#show();
  }}> becomes</label>
          <label class="whitespace-nowrap"><input class="gain-number" inputmode="decimal" aria-label="New length of the pause at ${at} in seconds" .value=${live(seconds(this.#wanted.get(start) ?? naturalFrames))}
            @change=${(/** @type {Event} */ event) => {
    this.#wanted.set(start, Math.round(Number(fieldOf(event).value.replace(',', '.')) * RATE) || naturalFrames);
    this.#show();
  }}> s</label>` : null}
        </div></li>`;
  }

  /** As it would be then, with a little before and after; as it is, if it is left so. @param {Pause} pause */
  #hear(pause) {
    const cut = this.#cutOf(pause);
    if (cut) {
      this.#bench.hearAsIfGone(cut.startFrame, cut.endFrame, this.#trackIds());
    } else {
      this.#bench.page.playFrom(Math.max(0, pause.span.startFrame - AROUND), pause.span.endFrame + AROUND);
    }
  }

  /** All tracks that are cut with those on which somebody speaks. */
  #trackIds() {
    const { tracks } = this.#bench.timeline();
    const groups = new Set(tracks.filter(track => this.#pauses.some(pause => pause.trackId === track.id)).map(track => track.group));
    return tracks.filter(track => groups.has(track.group)).map(track => track.id);
  }

  #shorten() {
    const spans = this.#listed().flatMap(pause => this.#cutOf(pause) ?? []);
    const gained = spans.reduce((sum, span) => sum + lengthOf(span), 0);
    this.#bench.edit({ type: 'shorten-pauses', spans, trackIds: this.#trackIds() }, undefined,
      `${spans.length} ${spans.length === 1 ? 'pause is' : 'pauses are'} shorter: ${seconds(gained)} s less. Undo brings them back.`);
  }
}
