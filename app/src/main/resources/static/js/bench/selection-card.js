// What is selected, in words, on a card in the margin beside its row; tracks can be ticked in and out of it.
import { tick } from '../page/state.js';
import { buttonById, byId, fieldOf } from '../shared/elements.js';
import { RATE, fineClock } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** Fills the card in the margin. @param {import('../page/page.js').Page} page */
export function drawCard(page) {
  const { selection, timeline } = page;
  byId('card').hidden = !selection;
  if (!selection) {
    return;
  }
  const { start, end, trackIds } = selection;
  byId('card-span').textContent = `${fineClock(start, 2)} to ${fineClock(end, 2)} · ${((end - start) / RATE).toFixed(2)} s`;
  render((timeline?.tracks ?? []).map(track => html`
    <label class="flex items-center gap-2 py-0.5"><input type="checkbox" class="size-4" value=${track.id} .checked=${trackIds.includes(track.id)}
      @change=${(/** @type {Event} */ event) => page.change(tick(track.id, fieldOf(event).checked))}>${track.name}</label>`), byId('card-tracks'));
  if (document.getElementById('remove')) {
    buttonById('remove').disabled = trackIds.length === 0;
  }
}
