// The card of one clip in the margin: where it stands, on which track, how loud. Everything its grips do can be typed here.
import { fadeShapes, highestGainDb, lowestGainDb } from '../page/laws.js';
import { chosen } from '../page/state.js';
import { byId, fieldById } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { RATE, fineClock, framesOf } from '../shared/time.js';
import { live } from '../vendor/lit-html/directives/live.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

const SHAPE_WORDS = /** @type {{ [shape: string]: string }} */ ({ STRAIGHT: 'straight', GENTLE: 'gentle', EQUAL_POWER: 'equal power', SLOW_START: 'slow start', SLOW_END: 'slow end' });
const FADES = /** @type {['START' | 'END', 'fadeIn' | 'fadeOut', string][]} */ ([['START', 'fadeIn', 'fade-in'], ['END', 'fadeOut', 'fade-out']]);

export class ClipCard {
  #bench;
  #episode;
  /** Whose loudness is shown. */
  #asked = '';
  /** The field in which something stands that is not sent yet: what others do meanwhile leaves it alone. @type {EventTarget | null} */
  #typing = null;

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#bench = bench;
    this.#episode = `/episodes/${episodeId}`;
    for (const id of ['clip-gain', 'clip-gain-db']) {
      Object.assign(byId(id), { min: lowestGainDb, max: highestGainDb });
    }
    byId('clip-card').addEventListener('input', event => { this.#typing = event.target; });
    byId('clip-card').addEventListener('focusout', () => { this.#typing = null; });
    byId('clip-card').addEventListener('change', () => { this.#typing = null; }, true);
    byId('clip-gain').addEventListener('input', () => { fieldById('clip-gain-db').value = fieldById('clip-gain').value; });
    for (const id of ['clip-gain', 'clip-gain-db']) {
      byId(id).addEventListener('change', () => this.#wish({ type: 'set-clip-gain', gainDb: Number(fieldById(id).value) }));
    }
    byId('clip-start').addEventListener('change', () => this.#typed('clip-start',
      frame => ({ type: 'move', trackId: chosen(bench.page.state)?.track.id, startFrame: frame, along: fieldById('clip-along').checked })));
    byId('clip-end').addEventListener('change', () => this.#typed('clip-end', frame => ({ type: 'trim', edge: 'END', frame, tied: fieldById('clip-tied').checked })));
    for (const [edge, , id] of FADES) {
      for (const field of [id, `${id}-shape`]) {
        byId(field).addEventListener('change', () => this.#wish(
          { type: 'set-fade', edge, frames: Math.max(0, Math.round(Number(fieldById(id).value.replace(',', '.')) * RATE) || 0), shape: fieldById(`${id}-shape`).value }));
      }
    }
    byId('clip-remove').addEventListener('click', () => this.#wish({ type: 'remove-clip' }, 'The clip is gone from the page. Its take is kept.'));
    byId('clip-join-hear').addEventListener('click', () => {
      const clip = chosen(bench.page.state)?.clip;
      if (clip) {
        const join = clip.startFrame + clip.frames;
        bench.page.playFrom(Math.max(0, join - RATE), Math.min(bench.timeline().frames, join + RATE));
      }
    });
    byId('clip-join-earlier').addEventListener('click', () => this.#moveJoin(-1));
    byId('clip-join-later').addEventListener('click', () => this.#moveJoin(1));
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
    this.#show('clip-start', fineClock(clip.startFrame, 2));
    this.#show('clip-end', fineClock(clip.startFrame + clip.frames, 2));
    for (const [, fade, id] of FADES) {
      this.#show(id, (clip[fade].frames / RATE).toFixed(2));
      render(fadeShapes.map(shape => html`<option value=${shape} .selected=${live(shape === clip[fade].shape)}>${SHAPE_WORDS[shape]}</option>`), byId(`${id}-shape`));
    }
    byId('clip-join').hidden = !track.clips.some(other => other.startFrame > clip.startFrame && other.startFrame <= clip.startFrame + clip.frames);
    this.#showLoudness(clip.id);
    this.#show('clip-gain', String(clip.gainDb));
    this.#show('clip-gain-db', String(clip.gainDb));
    render(this.#bench.timeline().tracks.map(each => html`<option value=${each.id} .selected=${live(each.id === track.id)}>${each.name}</option>`), byId('clip-track'));
  }

  /** @param {string} id @param {string} value */
  #show(id, value) {
    if (fieldById(id) !== this.#typing) {
      fieldById(id).value = value;
    }
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

  /** How loud the clip is in the mix, once it is known. @param {number} clipId */
  async #showLoudness(clipId) {
    const { revision } = this.#bench.timeline();
    const asked = `${revision}/${clipId}`;
    if (asked !== this.#asked) {
      this.#asked = asked;
      const { lufs } = await getJson(`${this.#episode}/loudness/${asked}`).catch(() => ({ lufs: null }));
      if (asked === this.#asked) {
        byId('clip-loudness').textContent = lufs === null ? '' : `${lufs.toFixed(1).replace('-', '−')} LUFS here`;
      }
    }
  }

  /** The join with the next clip, by a tenth of a second: no sound moves. @param {number} direction */
  #moveJoin(direction) {
    this.#wish({ type: 'move-join', byFrames: direction * RATE / 10 }, `The join is 0.10 s ${direction < 0 ? 'earlier' : 'later'}.`);
  }

  /** @param {import('./types.js').Wish} wish @param {string} [said] */
  #wish(wish, said) {
    const focused = document.activeElement?.id;
    this.#bench.edit({ clipId: this.#bench.page.state.chosenClip, ...wish }, undefined, said).then(() => document.getElementById(focused ?? '')?.focus({ preventScroll: true }));
  }
}
