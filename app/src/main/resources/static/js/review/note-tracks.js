// On which tracks a note is: ticked in and out, where there are several.
import { select } from '../page/state.js';
import { live } from '../vendor/lit-html/directives/live.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @param {HTMLElement} fieldset @param {import('../page/page.js').Page} page */
export function drawTracks(fieldset, page) {
  const tracks = page.timeline?.tracks ?? [];
  const { selection } = page;
  fieldset.hidden = tracks.length < 2 || !selection;
  if (!selection) {
    return;
  }
  const { start, end, trackIds } = selection;
  render(html`<legend class="visually-hidden">On which tracks</legend>${tracks.map(({ id, name }) => html`
    <label class="flex items-center gap-1.5 py-0.5 min-h-6"><input type="checkbox" name="on" class="size-4" value=${id} .checked=${live(trackIds.includes(id))}
      @change=${() => page.change(select(start, end, toggled(trackIds, id)))}> ${name}</label>`)}`, fieldset);
}

/** One at least stays. @param {readonly number[]} trackIds @param {number} id */
function toggled(trackIds, id) {
  const others = trackIds.filter(other => other !== id);
  return trackIds.includes(id) ? (others.length > 0 ? others : [...trackIds]) : [...trackIds, id];
}
