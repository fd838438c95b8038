// What is selected, in words, on a card in the margin beside its row: its start, end and length can be typed, tracks ticked in and
// out of it, and what can be done with it stands there, numbered as its keys are.
import { moveEdge, tick } from '../page/state.js';
import { buttonById, byId, fieldById, fieldOf } from '../shared/elements.js';
import { RATE, fineClock, framesOf } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** Buttons that need a track. */
const ON_TRACKS = ['remove', 'blank', 'soften', 'keep-only', 'copy', 'cut-out', 'duplicate', 'clear', 'fill'];

/** The field that is being typed in: what others do meanwhile does not take the words away. @type {HTMLInputElement | null} */
let typedIn = null;

/** Lets the card's fields set what is selected. @param {import('../page/page.js').Page} page */
export function attachSelectionCard(page) {
  /** @param {string} id @param {(frames: number) => void} set */
  const typed = (id, set) => byId(id).addEventListener('change', () => {
    typedIn = null;
    const frames = framesOf(fieldById(id).value);
    const before = page.selection;
    if (frames !== null) {
      set(frames);
    }
    if (frames === null) {
      page.say('A time looks like 0:05.30.');
    } else if (page.selection === before) {
      page.say('The start comes before the end.');
    }
    drawCard(page);
  });
  byId('card').addEventListener('input', event => {
    typedIn = /** @type {HTMLInputElement} */ (event.target);
  });
  byId('card').addEventListener('focusout', () => {
    typedIn = null;
    drawCard(page);
  });
  typed('card-start', frame => page.change(moveEdge('start', frame)));
  typed('card-end', frame => page.change(moveEdge('end', frame)));
  typed('card-length', frames => page.selection && page.change(moveEdge('end', page.selection.start + frames)));
}

/** So much as the brief says is in sight, the rest behind *more*; who opens that, keeps it open. @param {string} actions @param {string} person */
export function arrangeActions(actions, person) {
  const more = /** @type {HTMLDetailsElement} */ (byId('card-more'));
  const keptAs = `mellow-more-${person}`;
  if (actions === 'FEW') {
    byId('card-rest').prepend(...byId('card').querySelectorAll('[data-seldom]'));
  }
  more.open = actions === 'ALL' || localStorage.getItem(keptAs) === 'open';
  more.addEventListener('toggle', () => localStorage.setItem(keptAs, more.open ? 'open' : 'closed'));
}

/** The tracks of the selection and its times, in words. @param {import('../page/page.js').Page} page */
export function inWords({ selection, timeline }) {
  if (!selection) {
    return '';
  }
  const names = (timeline?.tracks ?? []).filter(track => selection.trackIds.includes(track.id)).map(track => track.name);
  const on = names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}`;
  return `${on || 'No track'} · ${fineClock(selection.start, 2)} to ${fineClock(selection.end, 2)} · ${((selection.end - selection.start) / RATE).toFixed(2)} s`;
}

/** Fills the card in the margin. @param {import('../page/page.js').Page} page */
export function drawCard(page) {
  const { selection, timeline } = page;
  byId('card').hidden = !selection;
  if (!selection) {
    typedIn = null;
    return;
  }
  const { start, end, trackIds } = selection;
  byId('card-span').textContent = inWords(page);
  /** @type {[string, string][]} */
  const times = [['card-start', fineClock(start, 2)], ['card-end', fineClock(end, 2)], ['card-length', ((end - start) / RATE).toFixed(2)]];
  for (const [id, words] of times) {
    const field = fieldById(id);
    if (field !== typedIn) {
      field.value = words;
    }
  }
  render((timeline?.tracks ?? []).map(track => html`
    <label class="inline-flex items-center gap-1.5 py-0.5"><input type="checkbox" class="size-4" value=${track.id} .checked=${trackIds.includes(track.id)}
      @change=${(/** @type {Event} */ event) => page.change(tick(track.id, fieldOf(event).checked))}>${track.name}</label>`), byId('card-tracks'));
  for (const id of ON_TRACKS) {
    if (document.getElementById(id)) {
      buttonById(id).disabled = trackIds.length === 0;
    }
  }
}
