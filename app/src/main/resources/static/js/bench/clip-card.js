// The card of one clip in the margin: where it stands, on which track, how loud. Everything its grips do can be typed here.
import { highestGainDb, lowestGainDb } from '../page/laws.js';
import { chosen } from '../page/state.js';
import { byId, fieldById } from '../shared/elements.js';
import { fineClock, framesOf } from '../shared/time.js';
import { live } from '../vendor/lit-html/directives/live.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

export class ClipCard {
  #bench;

  /** @param {import('./types.js').Bench} bench */
  constructor(bench) {
    this.#bench = bench;
    for (const id of ['clip-gain', 'clip-gain-db']) {
      Object.assign(byId(id), { min: lowestGainDb, max: highestGainDb });
    }
    byId('clip-gain').addEventListener('input', () => { fieldById('clip-gain-db').value = fieldById('clip-gain').value; });
    for (const id of ['clip-gain', 'clip-gain-db']) {
      byId(id).addEventListener('change', () => this.#wish({ type: 'set-clip-gain', gainDb: Number(fieldById(id).value) }));
    }
    byId('clip-start').addEventListener('change', () => this.#typed('clip-start',
      frame => ({ type: 'move', trackId: chosen(bench.page.state)?.track.id, startFrame: frame })));
    byId('clip-end').addEventListener('change', () => this.#typed('clip-end', frame => ({ type: 'trim', edge: 'END', frame })));
    byId('clip-track').addEventListener('change', () => this.#wish(
      { type: 'move', trackId: Number(fieldById('clip-track').value), startFrame: chosen(bench.page.state)?.clip.startFrame }));
    byId('clip-let-go').addEventListener('click', () => bench.onChosen(null));
  }

  draw() {
    const found = chosen(this.#bench.page.state);
    byId('clip-card').hidden = !found;
    if (!found) {
      return;
    }
    const { track, clip } = found;
    const what = clip.source.roomFrame !== null ? 'room' : this.#bench.timeline().takes[clip.source.takeId]?.name ?? 'a take';
    byId('clip-name').textContent = `${track.name} · ${what}`;
    fieldById('clip-start').value = fineClock(clip.startFrame, 2);
    fieldById('clip-end').value = fineClock(clip.startFrame + clip.frames, 2);
    fieldById('clip-gain').value = fieldById('clip-gain-db').value = String(clip.gainDb);
    render(this.#bench.timeline().tracks.map(each => html`<option value=${each.id} .selected=${live(each.id === track.id)}>${each.name}</option>`), byId('clip-track'));
  }

  /** @param {string} id @param {(frame: number) => import('./types.js').Wish} wish */
  #typed(id, wish) {
    const frame = framesOf(fieldById(id).value);
    if (frame === null) {
      this.draw();
    } else {
      this.#wish(wish(frame));
    }
  }

  /** @param {import('./types.js').Wish} wish */
  #wish(wish) {
    const focused = document.activeElement?.id;
    this.#bench.edit({ clipId: this.#bench.page.state.chosenClip, ...wish }).then(() => document.getElementById(focused ?? '')?.focus({ preventScroll: true }));
  }
}
