// What pointing at the rows does: a click plays or goes there, dragging selects, a row's own mark plays it.
import { byId, sourceOf } from '../shared/elements.js';
import { attachDragSelect } from './drag-select.js';
import * as state from './state.js';

/** @param {import('./page.js').Page} page */
export function attachPointing(page) {
  attachDragSelect(byId('rows'), {
    rows: page.rows,
    selection: () => page.selection,
    onSelect: (anchor, frame, trackIds) => page.change(state.select(anchor, frame, trackIds)),
    tiedTracks: trackId => state.tiedTracks(page.state, trackId),
    length: () => page.timeline?.frames ?? 0,
    onClick: (frame, placed) => {
      page.change(state.letGo);
      if (placed) {
        page.stop();
        page.goTo(frame);
      } else {
        page.playFrom(frame);
      }
    },
    onEnd: edge => (edge ? /** @type {HTMLElement | null} */ (document.querySelector(`.edge-${edge}`))?.focus({ preventScroll: true }) : page.focus()),
  });
  byId('rows').addEventListener('click', event => {
    const row = /** @type {HTMLElement | null} */ (sourceOf(event).closest('.row-play')?.closest('.row') ?? null);
    if (row && page.layout) {
      page.playFrom(page.layout.rowStart(Number(row.dataset.row)));
    }
  });
}
