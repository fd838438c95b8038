// @ts-check
// How loud each track is: a slider with its dB beside it, and a number that can be typed.

import { byId } from '../shared/elements.js';
import { highestGainDb, lowestGainDb } from '../page/laws.js';

/** @param {import('./types.js').TimelineView} timeline @param {import('./types.js').EditIt} edit */
export function drawTrackGains(timeline, edit) {
  const list = byId('track-gains');
  const focused = /** @type {HTMLElement | null} */ (document.activeElement)?.dataset.gainOf;
  list.replaceChildren(...timeline.tracks.map(track => line(track, edit)));
  if (focused) {
    /** @type {HTMLElement | null} */ (list.querySelector(`[data-gain-of="${focused}"]`))?.focus({ preventScroll: true });
  }
}

/** @param {import('./types.js').TrackView} track @param {import('./types.js').EditIt} edit */
function line(track, edit) {
  const item = document.createElement('li');
  item.className = 'grid grid-cols-[minmax(0,1fr)_auto] gap-x-2 items-center';
  const slider = input('range', track, `slider-${track.id}`, `Gain of ${track.name}`);
  const number = input('number', track, `number-${track.id}`, `Gain of ${track.name} in dB`);
  number.className = 'gain-number';
  slider.addEventListener('input', () => { number.value = slider.value; });
  for (const control of [slider, number]) {
    control.addEventListener('change', () => edit({ type: 'set-track-gain', trackId: track.id, gainDb: Number(control.value) }));
  }
  const name = document.createElement('span');
  name.className = 'col-span-2 truncate';
  name.textContent = track.name;
  const unit = document.createElement('span');
  unit.className = 'gain';
  unit.append(number, ' dB');
  item.append(name, slider, unit);
  return item;
}

/** @param {string} type @param {import('./types.js').TrackView} track @param {string} key @param {string} label */
function input(type, track, key, label) {
  const control = document.createElement('input');
  Object.assign(control, { type, min: lowestGainDb, max: highestGainDb, step: 0.5, value: track.gainDb });
  control.dataset.gainOf = key;
  control.setAttribute('aria-label', label);
  return control;
}
