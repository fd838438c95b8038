// How loud each track is: a slider with its dB beside it, and a number that can be typed.
import { highestGainDb, lowestGainDb } from '../page/laws.js';
import { byId, fieldOf } from '../shared/elements.js';
import { live } from '../vendor/lit-html/directives/live.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @param {import('./types.js').TimelineView} timeline @param {import('./types.js').EditIt} edit */
export function drawTrackGains(timeline, edit) {
  render(timeline.tracks.map(track => line(track, edit)), byId('track-gains'));
}

/** @param {import('./types.js').TrackView} track @param {import('./types.js').EditIt} edit */
function line({ id, name, gainDb }, edit) {
  /** While the slider moves, its number goes along. @param {Event} event */
  const show = event => Object.assign(fieldOf(event).parentElement?.querySelector('.gain-number') ?? {}, { value: fieldOf(event).value });
  const set = (/** @type {Event} */ event) => edit({ type: 'set-track-gain', trackId: id, gainDb: Number(fieldOf(event).value) });
  return html`
    <li class="grid grid-cols-[minmax(0,1fr)_auto] gap-x-2 items-center"><span class="col-span-2 truncate">${name}</span>
      <input type="range" min=${lowestGainDb} max=${highestGainDb} step="0.5" .value=${live(String(gainDb))} aria-label="Gain of ${name}" @input=${show} @change=${set}>
      <span class="gain"><input class="gain-number" type="number" min=${lowestGainDb} max=${highestGainDb} step="0.5" .value=${live(String(gainDb))}
        aria-label="Gain of ${name} in dB" @change=${set}> dB</span></li>`;
}
