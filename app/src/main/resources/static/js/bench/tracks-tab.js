// All tracks at a glance: how loud, where between left and right, left out or heard alone, their order, what they are tied to.
import { highestGainDb, lowestGainDb } from '../page/laws.js';
import { askName } from './asking.js';
import { EvenVoices } from './even-voices.js';
import { Levels } from './levels.js';
import { HEIGHTS } from '../page/look.js';
import { byId, fieldOf } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { live } from '../vendor/lit-html/directives/live.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {import('./types.js').TrackView} TrackView */

/** A voice that stands further to one side is hard to hear for who has one ear, or one earphone. */
const FAR_PAN = 0.6;

/** @param {number} pan */
const panInWords = pan => (pan === 0 ? 'middle' : `${Math.round(100 * Math.abs(pan))} % ${pan < 0 ? 'left' : 'right'}`);

export class TracksTab {
  #bench;
  #episode;
  #levels;
  #even;

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#bench = bench;
    this.#episode = `/episodes/${episodeId}`;
    this.#levels = new Levels(episodeId, bench);
    this.#even = new EvenVoices(episodeId, bench);
    byId('add-track').addEventListener('click', async () => {
      const name = await askName('What is the new track called?');
      if (name) {
        bench.edit({ type: 'add-track', name }, undefined, `${name} is a new track.`);
      }
    });
  }

  draw() {
    const { tracks } = this.#bench.timeline();
    render(tracks.map((track, place) => this.#line(track, place, tracks)), byId('tracks-list'));
    this.#even.draw();
  }

  /** @param {TrackView} track @param {number} place @param {TrackView[]} tracks */
  #line(track, place, tracks) {
    const { id, name } = track;
    const { without } = this.#bench.page.ear;
    const alone = without.length > 0 && !without.includes(id);
    /** @param {import('./types.js').Wish} wish @param {string} said */
    const edit = (wish, said) => this.#bench.edit({ trackId: id, ...wish }, undefined, said);
    /** While a slider moves, its number goes along. @param {Event} event */
    const show = event => Object.assign(fieldOf(event).closest('.slider')?.querySelector('.gain-number') ?? {}, { value: fieldOf(event).value });
    const gain = (/** @type {Event} */ event) => edit({ type: 'set-track-gain', gainDb: Number(fieldOf(event).value) }, `${name}: ${fieldOf(event).value} dB.`);
    return html`
      <li class="track-line">
        <div class="flex items-center gap-1">
          <input class="track-name" aria-label="Name of ${name}" maxlength="60" .value=${live(name)}
            @change=${(/** @type {Event} */ event) => edit({ type: 'name-track', name: fieldOf(event).value }, `It is called ${fieldOf(event).value} now.`)}>
          <button type="button" class="row-tool" aria-label="${name} further up" ?disabled=${place === 0} @click=${() => edit({ type: 'order-track', place: place - 1 }, `${name} is further up.`)}>↑</button>
          <button type="button" class="row-tool" aria-label="${name} further down" ?disabled=${place === tracks.length - 1} @click=${() => edit({ type: 'order-track', place: place + 1 }, `${name} is further down.`)}>↓</button>
        </div>
        <div class="slider"><span>level</span><button type="button" class="track-level" data-level=${id} aria-label="Level of ${name}: forget what it reached" @click=${() => this.#levels.forget(id)}></button><span class="text-sm tabular-nums">silent</span></div>
        <div class="slider"><span>loud</span><input type="range" min=${lowestGainDb} max=${highestGainDb} step="0.5" .value=${live(String(track.gainDb))} aria-label="Gain of ${name}" @input=${show} @change=${gain}>
          <span class="gain"><input class="gain-number" type="number" min=${lowestGainDb} max=${highestGainDb} step="0.5" .value=${live(String(track.gainDb))} aria-label="Gain of ${name} in dB" @change=${gain}> dB</span></div>
        <div class="slider"><span>side</span><input type="range" min="-1" max="1" step="0.05" .value=${live(String(track.pan))} aria-label="Where ${name} stands between left and right" aria-valuetext=${panInWords(track.pan)}
          @change=${(/** @type {Event} */ event) => edit({ type: 'pan-track', pan: Number(fieldOf(event).value) }, this.#panSaid(track, Number(fieldOf(event).value)))}><span>${panInWords(track.pan)}</span></div>
        <div class="flex flex-wrap gap-x-3 text-sm">
          <label><input type="checkbox" .checked=${live(track.muted)} @change=${(/** @type {Event} */ event) =>
    edit({ type: 'mute-track', muted: fieldOf(event).checked }, fieldOf(event).checked ? `${name} is left out of the episode.` : `${name} is in the episode again.`)}> left out</label>
          <label><input type="checkbox" .checked=${live(alone)} @change=${(/** @type {Event} */ event) => this.#hearAlone(track, fieldOf(event).checked)}> hear alone</label>
          <label>shown <select class="small-select" aria-label="How high ${name} is drawn" @change=${(/** @type {Event} */ event) =>
    this.#bench.page.lookOtherwise(look => look.setHeight(id, fieldOf(event).value))}>${Object.keys(HEIGHTS).map(height => html`
            <option value=${height} ?selected=${this.#bench.page.look.height(id) === height}>${height === 'hidden' ? 'not at all' : height}</option>`)}</select></label>
          <label><input type="checkbox" .checked=${live(this.#tiedTo(track, tracks) !== null)} ?disabled=${tracks.length < 2}
            @change=${(/** @type {Event} */ event) => this.#tie(track, tracks, fieldOf(event).checked)}> cut with others</label>
        </div>
        <div class="flex flex-wrap gap-2 text-sm">
          <button type="button" class="link-button" @click=${() => this.#bench.addPoint(id)}>Volume point</button>
          <button type="button" class="link-button" aria-label="Take ${name} down under the voices" @click=${() => this.#duck(track)}>Down under voices</button>
          <button type="button" class="link-button" aria-label="Drop ${name}" @click=${() => edit({ type: 'drop-track' }, `${name} is gone. Its takes are kept. Undo brings it back.`)}>Drop</button>
        </div>
      </li>`;
  }

  /** @param {TrackView} track @param {number} pan */
  #panSaid({ name, clips }, pan) {
    const speaks = clips.some(clip => this.#bench.timeline().takes[clip.source.takeId]?.voice);
    return `${name}: ${panInWords(pan)}.${speaks && Math.abs(pan) > FAR_PAN ? ' That is far for a voice: with one earphone it is hardly heard.' : ''}`;
  }

  /** @param {TrackView} track @param {boolean} on */
  #hearAlone({ id }, on) {
    const ids = this.#bench.timeline().tracks.map(track => track.id);
    this.#bench.page.hearOtherwise({ without: on ? ids.filter(other => other !== id) : [] });
    this.draw();
  }

  /** A track that is cut with this one; null if none is. @param {TrackView} track @param {TrackView[]} tracks */
  #tiedTo(track, tracks) {
    return tracks.find(other => other.id !== track.id && other.group === track.group)?.id ?? null;
  }

  /** @param {TrackView} track @param {TrackView[]} tracks @param {boolean} on */
  #tie(track, tracks, on) {
    const other = tracks.find(each => each.id !== track.id && tracks.some(third => third.id !== each.id && third.id !== track.id && third.group === each.group))
      ?? tracks.find(each => each.id !== track.id);
    this.#bench.edit({ type: 'tie-track', trackId: track.id, withTrackId: on ? other?.id ?? 0 : 0 }, undefined,
      on ? `${track.name} is cut with ${other?.name} from now on.` : `${track.name} is cut on its own from now on.`);
  }

  /** @param {TrackView} track */
  #duck({ id, name }) {
    this.#bench.attempt(async () => {
      const { revision } = this.#bench.timeline();
      const points = await getJson(`${this.#episode}/ducked/${revision}/${id}`);
      await this.#bench.edit({ type: 'draw-curve', trackId: id, points }, undefined, `${name} goes down under the voices. Drag its points, or undo.`);
    });
  }
}
