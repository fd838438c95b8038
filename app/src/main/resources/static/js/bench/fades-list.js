// The fades of the page: where they are, how long, whether one is left over from a cut.
import { byId } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { RATE, fineClock, lasting } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {{ trackId: number, clipId: number, edge: string, kind: 'IN' | 'OUT' | 'CROSSFADE', startFrame: number, frames: number, stray: boolean }} Fade */

const KINDS = { IN: 'fade in', OUT: 'fade out', CROSSFADE: 'crossfade' };

export class FadesList {
  #bench;
  #episode;
  /** @type {Fade[]} */
  #fades = [];
  #revision = 0;

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#bench = bench;
    this.#episode = `/episodes/${episodeId}`;
    document.getElementById('clear-strays')?.addEventListener('click', () =>
      bench.edit({ type: 'clear-stray-fades' }, undefined, 'What was left over is cleared. Undo brings it back.'));
  }

  async draw() {
    const { revision } = this.#bench.timeline();
    if (revision !== this.#revision) {
      this.#fades = await getJson(`${this.#episode}/fades/${revision}`);
      this.#revision = revision;
    }
    byId('fades-none').hidden = this.#fades.length > 0;
    Object.assign(document.getElementById('clear-strays') ?? {}, { hidden: !this.#fades.some(fade => fade.stray) });
    render(this.#fades.map(fade => this.#line(fade)), byId('fades-list'));
  }

  /** @param {Fade} fade */
  #line({ trackId, clipId, kind, startFrame, frames, stray }) {
    const { page } = this.#bench;
    const at = fineClock(startFrame);
    const name = this.#bench.timeline().tracks.find(track => track.id === trackId)?.name ?? '';
    return html`
      <li class="track-line"><p class="flex items-baseline gap-3">
        <button type="button" class="link-button" aria-label="Go to the ${KINDS[kind]} at ${at}" @click=${() => { page.goTo(startFrame, true); this.#bench.onChosen(clipId); }}>${at}</button>
        <b class="whitespace-nowrap">${lasting(frames)}</b><span class="text-muted text-sm truncate">${KINDS[kind]} · ${name}</span></p>
        <p class="flex gap-3 text-sm"><button type="button" class="link-button" aria-label="Hear the ${KINDS[kind]} at ${at}" @click=${() => page.playFrom(Math.max(0, startFrame - RATE), startFrame + frames + RATE)}>Hear</button>
          ${stray ? html`<span class="text-persimmon-deep font-bold">left over</span>` : null}</p></li>`;
  }
}
