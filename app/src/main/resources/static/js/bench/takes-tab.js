// Every take of the episode, on the page or not: to hear, and to lay at the position.
import { byId } from '../shared/elements.js';
import { clock } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @param {import('./types.js').Bench} bench */
export function drawTakes(bench) {
  const { tracks, takes } = bench.timeline();
  const used = new Set(tracks.flatMap(track => track.clips.map(clip => clip.source.takeId)));
  const audio = /** @type {HTMLAudioElement} */ (byId('take-audio'));
  render(Object.entries(takes).map(([id, { name, trackName, frames }]) => html`
    <li class="track-line">
      <p class="flex justify-between gap-2"><b class="truncate">${name}</b><span class="text-muted text-sm whitespace-nowrap">${clock(frames)} · ${used.has(Number(id)) ? 'on the page' : 'not used'}</span></p>
      <div class="flex flex-wrap gap-2 text-sm">
        <button type="button" class="link-button" aria-label="Hear ${name}" @click=${() => { bench.page.stop(); audio.src = `/takes/${id}/sound`; audio.play(); }}>Hear</button>
        <button type="button" class="link-button" aria-label="Lay ${name} at the ribbon" @click=${() => bench.edit({ type: 'lay-take', takeId: Number(id), trackName, startFrame: bench.page.now() }, undefined, `${name} is on the page.`)}>Lay at the ribbon</button>
        <button type="button" class="link-button" aria-label="Lay ${name} at the end of ${trackName}" @click=${() => bench.edit({ type: 'lay-take', takeId: Number(id), trackName, startFrame: null }, undefined, `${name} is on the page.`)}>At the end</button>
      </div></li>`), byId('takes-list'));
  byId('no-takes').hidden = Object.keys(takes).length > 0;
}

