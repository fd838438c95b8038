// @ts-check
// The class's shelf on the bench: find a sound, hear it, lay it in at the position.
import { byId, dialogById, fieldById } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { fineClock } from '../shared/time.js';

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
  function row(sound) {
    const item = document.createElement('li');
    item.className = 'flex items-center gap-2 border-t border-line py-2 first:border-t-0';
    const about = document.createElement('div');
    about.className = 'grow min-w-0';
    const name = document.createElement('b');
    name.textContent = sound.name;
    const length = document.createElement('span');
    length.className = 'text-muted text-sm';
    length.textContent = ` ${sound.kind === 'MUSIC' ? 'music' : 'effect'} · ${sound.seconds.toFixed(1)} s`;
    const credit = document.createElement('p');
    credit.className = 'text-muted text-sm truncate';
    credit.textContent = sound.credit;
    about.append(name, length, credit);
    item.append(about, button('Hear', `Hear ${sound.name}`, () => hear(sound)),
      button('Lay in', `Lay ${sound.name} in`, () => lay(sound)));
    return item;
  }

  /** @param {string} words @param {string} label @param {() => void} act */
  function button(words, label, act) {
    const made = document.createElement('button');
    made.type = 'button';
    made.className = 'button text-sm px-2';
    made.textContent = words;
    made.setAttribute('aria-label', label);
    made.addEventListener('click', act);
    return made;
  }

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
    list.replaceChildren(...sounds.map(row));
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
