// The elements of a row of the page: its time and play mark, the names of its tracks, a lane for each, and all of it in words.
import { clock, fineClock } from '../shared/time.js';
import { inkOf } from './lanes.js';
import { shortName } from './names.js';

/** @typedef {import('./layout.js').Layout} Layout */
/** @typedef {import('./types.js').TrackView} TrackView */

/** How times are written where rows are that long. @param {Layout} layout @returns {(frame: number) => string} */
const timeIn = layout => (layout.rowSeconds < 1 ? frame => fineClock(frame, 2) : clock);

/** A row with its head, its names and its lanes; nothing is drawn in them yet. @param {Layout} layout @param {number} number @param {string} icons where they are */
export function makeRow(layout, number, icons) {
  const tracks = layout.tracksIn(number);
  const element = document.createElement('section');
  element.className = number === 0 ? 'row first' : 'row';
  element.dataset.row = String(number);
  const time = timeIn(layout);
  const times = `${time(layout.rowStart(number))} to ${time(layout.rowEnd(number))}`;
  element.setAttribute('aria-label', `Row ${times}`);

  const play = document.createElement('button');
  play.type = 'button';
  play.className = 'row-play';
  play.setAttribute('aria-label', `Play from ${time(layout.rowStart(number))}`);
  play.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${icons}#play"></use></svg>`;
  const start = document.createElement('span');
  start.textContent = time(layout.rowStart(number));
  const head = document.createElement('div');
  head.className = 'row-head';
  head.append(start, play);

  const names = document.createElement('div');
  names.className = 'row-names';
  const sound = document.createElement('div');
  sound.className = 'row-sound';
  const lanes = tracks.map(track => {
    const index = layout.timeline.tracks.indexOf(track);
    const name = document.createElement('span');
    name.className = 'lane-name';
    name.style.color = inkOf(index);
    name.title = track.name;
    name.textContent = number === 0 ? track.name : shortName(track.name);
    names.append(name);
    const lane = document.createElement('div');
    lane.className = 'lane';
    lane.dataset.track = String(track.id);
    lane.style.setProperty('--share', String(layout.share(track.id)));
    name.style.setProperty('--share', String(layout.share(track.id)));
    const strip = document.createElement('div');
    strip.className = 'strip';
    lane.append(strip);
    sound.append(lane);
    return { track, index, lane, strip };
  });
  const words = document.createElement('p');
  words.className = 'visually-hidden';
  words.textContent = `${times}. ${lanes.map(({ track }) => spans(layout, track, number)).join(' ')}`;
  const left = document.createElement('div');
  left.className = 'contents';
  left.append(head, names);
  element.append(left, sound, words);
  return { number, element, sound, play, words, lanes };
}

/** When a track has sound in a row, in words. @param {Layout} layout @param {TrackView} track @param {number} row */
function spans(layout, track, row) {
  const spans = track.clips
    .map(clip => [Math.max(clip.startFrame, layout.rowStart(row)),
      Math.min(clip.startFrame + clip.frames, layout.rowEnd(row))])
    .filter(([start, end]) => start < end).map(([start, end]) => `${clock(start)} to ${clock(end)}`);
  return `${track.name}: ${spans.join(', ')}.`;
}
