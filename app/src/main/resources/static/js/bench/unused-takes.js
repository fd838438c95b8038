// @ts-check
// Takes that stand nowhere on the page: kept, and one press away.

import { byId } from '../shared/elements.js';

/** @param {import('./types.js').TimelineView} timeline @param {(takeId: number, trackName: string) => void} layOn */
export function drawUnusedTakes(timeline, layOn) {
  const used = new Set(timeline.tracks.flatMap(track => track.clips.map(clip => clip.source.takeId)));
  const unused = Object.entries(timeline.takes).filter(([id]) => !used.has(Number(id)));
  byId('take-list-card').hidden = unused.length === 0;
  byId('unused-takes').replaceChildren(...unused.map(([id, take]) => {
    const line = document.createElement('li');
    line.className = 'flex items-center justify-between gap-2';
    const button = document.createElement('button');
    button.type = 'button';
    button.className = 'button button-quiet text-sm px-2';
    button.textContent = `Lay on ${take.trackName}`;
    button.setAttribute('aria-label', `Lay ${take.name} on the track ${take.trackName}`);
    button.addEventListener('click', () => layOn(Number(id), take.trackName));
    const name = document.createElement('span');
    name.className = 'truncate';
    name.textContent = take.name;
    line.append(name, button);
    return line;
  }));
}
