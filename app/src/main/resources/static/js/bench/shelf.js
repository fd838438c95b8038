// The class's shelf on the bench: find a sound, hear it, lay it in at the position.
import { byId, dialogById, fieldById } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { fineClock } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {{ name: string, kind: string, seconds: number, startSeconds: number, credit: string, soundId: number, excerptId: number | null }} ShelfSound */

/**
 * @param {string} episodeId
 * @param {{ timeline: () => import('./types.js').TimelineView, position: () => number, gesture: () => import('./types.js').Gesture,
 *   layIn: (soundId: number, excerptId: number | null, trackName: string, startFrame: number, gesture: import('./types.js').Gesture) => Promise<void> }} bench
 *   where `layIn` resolves when the sound is on the page
 */
export function attachShelf(episodeId, { timeline, position, gesture, layIn }) {
  const dialog = dialogById('shelf');
  const list = byId('shelf-sounds');
  const audio = /** @type {HTMLAudioElement} */ (byId('shelf-audio'));
  /** @type {number | undefined} */
  let waiting;
  /** Where the position was when the shelf was opened. @type {{ frame: number, gesture: import('./types.js').Gesture }} */
  let opened;

  /** @param {ShelfSound} sound */
  const row = sound => html`
    <li class="flex items-center gap-2 border-t border-line py-2 first:border-t-0">
      <div class="grow min-w-0"><b>${sound.name}</b><span class="text-muted text-sm"> ${sound.kind === 'MUSIC' ? 'music' : 'effect'} · ${sound.seconds.toFixed(1)} s</span>
        <p class="text-muted text-sm truncate">${sound.credit}</p></div>
      <button type="button" class="button text-sm px-2" aria-label="Hear ${sound.name}" @click=${() => hear(sound)}>Hear</button>
      <button type="button" class="button text-sm px-2" aria-label="Lay ${sound.name} in" @click=${() => lay(sound)}>Lay in</button></li>`;

  /** @param {ShelfSound} sound */
  function hear(sound) {
    audio.src = `/shelf/${sound.soundId}/sound#t=${sound.startSeconds},${sound.startSeconds + sound.seconds}`;
    audio.play();
  }

  /** @param {ShelfSound} sound */
  async function lay(sound) {
    audio.pause();
    dialog.close();
    await layIn(sound.soundId, sound.excerptId, fieldById('shelf-track').value.trim(), opened.frame, opened.gesture);
  }

  async function find() {
    const sounds = await getJson(`/episodes/${episodeId}/shelf?words=${encodeURIComponent(fieldById('shelf-words').value)}`).catch(() => []);
    render(sounds.map(row), list);
    byId('shelf-none').hidden = sounds.length > 0;
  }

  byId('from-shelf').addEventListener('click', () => {
    const names = (timeline()?.tracks ?? []).map(track => track.name);
    byId('shelf-tracks').replaceChildren(...names.map(name => new Option(name)));
    opened = { frame: position(), gesture: gesture() };
    byId('shelf-where').textContent = `from ${fineClock(position(), 2)} on`;
    dialog.showModal();
    find();
  });
  byId('shelf-words').addEventListener('input', () => {
    clearTimeout(waiting);
    waiting = window.setTimeout(find, 200);
  });
  dialog.addEventListener('close', () => audio.pause());
}
