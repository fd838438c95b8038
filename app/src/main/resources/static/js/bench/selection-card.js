// What is selected, in words, on a card in the margin beside its row; tracks can be ticked in and out of it.
import { RATE, fineClock } from '../shared/time.js';

/** Fills the card in the margin and puts it beside the row where the selection starts. */
export function drawCard(page) {
  const { selection, timeline } = page;
  const card = document.getElementById('card');
  card.hidden = !selection.present;
  if (!selection.present) {
    return;
  }
  const seconds = ((selection.end - selection.start) / RATE).toFixed(2);
  document.getElementById('card-span').textContent =
    `${fineClock(selection.start, 2)} to ${fineClock(selection.end, 2)} · ${seconds} s`;
  const list = document.getElementById('card-tracks');
  const known = [...list.querySelectorAll('input')].map(input => input.value).join();
  if (known !== timeline.tracks.map(track => track.id).join()) {
    list.replaceChildren(...timeline.tracks.map(track => trackBox(track, selection)));
  }
  list.querySelectorAll('input').forEach(input => { input.checked = selection.trackIds.has(Number(input.value)); });
  const remove = document.getElementById('remove');
  if (remove) {
    remove.disabled = selection.trackIds.size === 0;
  }
}

function trackBox(track, selection) {
  const label = document.createElement('label');
  label.className = 'flex items-center gap-2 py-0.5';
  const box = document.createElement('input');
  box.type = 'checkbox';
  box.value = track.id;
  box.className = 'size-4';
  box.addEventListener('change', () => selection.tick(track.id, box.checked));
  label.append(box, track.name);
  return label;
}
