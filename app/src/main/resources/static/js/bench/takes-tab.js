// Every take of the episode, on the page or not: to hear, and to lay at the position.
import { byId, fieldOf } from '../shared/elements.js';
import { postForm } from '../shared/http.js';
import { RATE, clock } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @param {import('./types.js').Bench} bench */
export function drawTakes(bench) {
  const { tracks, takes } = bench.timeline();
  const used = new Set(tracks.flatMap(track => track.clips.map(clip => clip.source.takeId)));
  const { selection } = bench.page;
  const audio = /** @type {HTMLAudioElement} */ (byId('take-audio'));
  render(Object.entries(takes).map(([id, { name, trackName, frames }]) => html`
    <li class="track-line">
      <p class="flex justify-between gap-2"><b class="truncate">${name}</b><span class="text-muted text-sm whitespace-nowrap">${clock(frames)} · ${used.has(Number(id)) ? 'on the page' : 'not used'}</span></p>
      <div class="flex flex-wrap items-center gap-2 text-sm">
        <button type="button" class="link-button" aria-label="Hear ${name}" @click=${() => { bench.page.stop(); audio.src = `/takes/${id}/sound`; audio.play(); }}>Hear</button>
        ${selection ? html`<button type="button" class="link-button" aria-label="Swap in ${name} for what is selected" @click=${() => swapIn(bench, Number(id), name)}>Swap in for the selection</button>` : null}
        <button type="button" class="link-button" aria-label="Lay ${name} at the ribbon" @click=${() => bench.edit({ type: 'lay-take', takeId: Number(id), trackName, startFrame: bench.page.now() }, undefined, `${name} is on the page.`)}>Lay at the ribbon</button>
        <button type="button" class="link-button" aria-label="Lay ${name} at the end of ${trackName}" @click=${() => bench.edit({ type: 'lay-take', takeId: Number(id), trackName, startFrame: null }, undefined, `${name} is on the page.`)}>At the end</button>
        <a class="link-button" href="/takes/${id}/sound" download="${name}.wav" aria-label="Take ${name} out as a WAV file">Take it out</a>
        ${used.has(Number(id)) && bench.timeline().takes[Number(id)].voice ? html`<a class="link-button" href="/takes/${id}/cleanup" aria-label="Clean ${name} up">Clean it up</a>` : null}
        ${used.has(Number(id)) ? html`<label class="link-button cursor-pointer">Bring it back<input type="file" class="visually-hidden" accept="audio/*" aria-label="Bring ${name} back as it was treated elsewhere"
          @change=${(/** @type {Event} */ event) => bringBack(bench, Number(id), name, fieldOf(event))}></label>` : null}
      </div></li>`), byId('takes-list'));
  byId('no-takes').hidden = Object.keys(takes).length > 0;
}


/** The take's words in the place of what is selected: heard first. @param {import('./types.js').Bench} bench @param {number} takeId @param {string} name */
function swapIn(bench, takeId, name) {
  const { selection } = bench.page;
  if (selection) {
    const { start, end, trackIds } = selection;
    bench.attempt(() => bench.offer({ type: 'swap-passage', startFrame: start, endFrame: end, trackIds, takeId },
      `${name} in the place of what was selected.`, `${name} is swapped in.`, Math.max(0, start - 2 * RATE)));
  }
}

/** A take that was treated elsewhere is played in its place. @param {import('./types.js').Bench} bench @param {number} takeId @param {string} name @param {HTMLInputElement} field */
function bringBack(bench, takeId, name, field) {
  const [file] = field.files ?? [];
  field.value = '';
  if (file) {
    bench.change(async () => {
      const form = new FormData();
      form.append('file', file);
      bench.page.say(`${name} comes back …`);
      await postForm(`/takes/${takeId}/returned`, form);
      await bench.load();
      bench.page.say(`${name} plays as it came back. Undo plays it as it was.`);
    });
  }
}
