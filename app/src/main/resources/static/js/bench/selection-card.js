// @ts-check
// What is selected, in words, on a card in the margin beside its row; tracks can be ticked in and out of it.
import { buttonById, byId } from '../shared/elements.js';
import { RATE, fineClock } from '../shared/time.js';

/** Fills the card in the margin. @param {import('../page/page.js').Page} page */
export function drawCard(page) {
  const { selection, timeline } = page;
  const tracks = timeline?.tracks ?? [];
  const card = byId('card');
  card.hidden = !selection.present;
  if (!selection.present) {
    return;
  }
  const seconds = ((selection.end - selection.start) / RATE).toFixed(2);
  byId('card-span').textContent =
    `${fineClock(selection.start, 2)} to ${fineClock(selection.end, 2)} · ${seconds} s`;
  const list = byId('card-tracks');
  const known = [...list.querySelectorAll('input')].map(input => input.value).join();
  if (known !== tracks.map(track => track.id).join()) {
    list.replaceChildren(...tracks.map(track => trackBox(track, selection)));
  }
  list.querySelectorAll('input').forEach(input => { input.checked = selection.trackIds.has(Number(input.value)); });
  if (document.getElementById('remove')) {
    buttonById('remove').disabled = selection.trackIds.size === 0;
  }
}

/** @param {import('./types.js').TrackView} track @param {import('../page/selection.js').Selection} selection */
function trackBox(track, selection) {
  const label = document.createElement('label');
  label.className = 'flex items-center gap-2 py-0.5';
  const box = document.createElement('input');
  box.type = 'checkbox';
  box.value = String(track.id);
  box.className = 'size-4';
  box.addEventListener('change', () => selection.tick(track.id, box.checked));
  label.append(box, track.name);
  return label;
}
