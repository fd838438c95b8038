// What pointing at the rows does: a click plays or goes there, dragging selects, a row's own mark plays it.
import { byId, sourceOf } from '../shared/elements.js';
import { RATE } from '../shared/time.js';
import { attachDragSelect } from './drag-select.js';
import * as state from './state.js';

/** So much is heard at each place over which the ribbon is dragged. */
const HEARD_FRAMES = RATE / 8;

/** Dragging the ribbon sounds. @param {import('./page.js').Page} page */
function attachScrubbing(page) {
  let dragging = false;
  byId('rows').addEventListener('pointerdown', event => {
    if (sourceOf(event).closest('.ribbon-head')) {
      dragging = true;
      event.preventDefault();
      byId('rows').setPointerCapture(event.pointerId);
      page.stop();
    }
  });
  byId('rows').addEventListener('pointermove', event => {
    const place = dragging ? page.rows.at(event.clientX, event.clientY) : null;
    if (place && !page.playing) {
      page.playFrom(place.frame, Math.min(page.timeline?.frames ?? 0, place.frame + HEARD_FRAMES));
    }
  });
  for (const end of ['pointerup', 'pointercancel']) {
    byId('rows').addEventListener(end, event => {
      const place = dragging && event instanceof PointerEvent ? page.rows.at(event.clientX, event.clientY) : null;
      dragging = false;
      if (place) {
        page.stop();
        page.goTo(place.frame);
      }
    });
  }
}

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
  attachScrubbing(page);
  byId('rows').addEventListener('click', event => {
    const row = /** @type {HTMLElement | null} */ (sourceOf(event).closest('.row-play')?.closest('.row') ?? null);
    if (row && page.layout) {
      page.playFrom(page.layout.rowStart(Number(row.dataset.row)));
    }
  });
}
