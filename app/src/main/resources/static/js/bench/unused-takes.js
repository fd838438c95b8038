// Takes that stand nowhere on the page: kept, and one press away.
import { byId } from '../shared/elements.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @param {import('./types.js').TimelineView} timeline @param {(takeId: number, trackName: string) => void} layOn */
export function drawUnusedTakes(timeline, layOn) {
  const used = new Set(timeline.tracks.flatMap(track => track.clips.map(clip => clip.source.takeId)));
  const unused = Object.entries(timeline.takes).filter(([id]) => !used.has(Number(id)));
  byId('take-list-card').hidden = unused.length === 0;
  render(unused.map(([id, { name, trackName }]) => html`
    <li class="flex items-center justify-between gap-2"><span class="truncate">${name}</span>
      <button type="button" class="button button-quiet text-sm px-2" aria-label="Lay ${name} on the track ${trackName}"
        @click=${() => layOn(Number(id), trackName)}>Lay on ${trackName}</button></li>`), byId('unused-takes'));
}
