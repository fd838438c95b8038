// @ts-check
// The card of one clip in the margin: where it stands, on which track, how loud. Everything its grips do can be typed here.
import { highestGainDb, lowestGainDb } from '../page/laws.js';
import { byId, fieldById } from '../shared/elements.js';
import { fineClock, framesOf } from '../shared/time.js';

export class ClipCard {
  #bench;
  /** @type {number | null} */
  #clipId = null;

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
      frame => ({ type: 'move', trackId: this.#track()?.id, startFrame: frame })));
    byId('clip-end').addEventListener('change', () => this.#typed('clip-end', frame => ({ type: 'trim', edge: 'END', frame })));
    byId('clip-track').addEventListener('change', () => this.#wish(
      { type: 'move', trackId: Number(fieldById('clip-track').value), startFrame: this.#clip()?.startFrame }));
    byId('clip-let-go').addEventListener('click', () => this.show(null));
  }

  /** Where the clip begins; null if none is shown. */
  get frame() {
    return this.#clip()?.startFrame ?? null;
  }

  /** @param {number | null} clipId */
  show(clipId) {
    this.#clipId = clipId;
    this.draw();
  }

  draw() {
    const track = this.#track();
    const clip = this.#clip();
    byId('clip-card').hidden = !clip;
    if (!track || !clip) {
      this.#clipId = null;
      return;
    }
    const what = clip.source.roomFrame !== null ? 'room' : this.#bench.timeline().takes[clip.source.takeId]?.name ?? 'a take';
    byId('clip-name').textContent = `${track.name} · ${what}`;
    fieldById('clip-start').value = fineClock(clip.startFrame, 2);
    fieldById('clip-end').value = fineClock(clip.startFrame + clip.frames, 2);
    fieldById('clip-gain').value = fieldById('clip-gain-db').value = String(clip.gainDb);
    byId('clip-track').replaceChildren(...this.#bench.timeline().tracks.map(each =>
      new Option(each.name, String(each.id), false, each.id === track.id)));
  }

  #track() {
    return this.#bench.timeline()?.tracks.find(track => track.clips.some(clip => clip.id === this.#clipId));
  }

  #clip() {
    return this.#track()?.clips.find(clip => clip.id === this.#clipId);
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
    this.#bench.edit({ clipId: this.#clipId, ...wish }).then(() => document.getElementById(focused ?? '')?.focus({ preventScroll: true }));
  }
}
