// Dragging across the rows selects, a click plays; with Alt it only goes there. What is selected runs from its anchor to the
// pointer in reading order. Dragging an edge of the selection moves that edge.
import { sourceOf } from '../shared/elements.js';
import { RATE } from '../shared/time.js';

// in steps of 10 ms, so that what the card says is exactly what is selected
const STEP = RATE / 100;
const NUDGE_PIXELS = 4;
const SCROLL_MS = 400;

/**
 * @param {HTMLElement} element that holds the rows
 * @param {{ rows: import('./rows.js').Rows, length: () => number,
 *   selection: () => import('./state.js').Selection | null, onSelect: (anchor: number, frame: number, trackIds: readonly number[]) => void,
 *   tiedTracks: (trackId: number) => number[], onClick: (frame: number, placed: boolean) => void, onEnd: (edge: string | null) => void }} page
 */
export function attachDragSelect(element, page) {
  /** @type {{ anchor: number, x: number, y: number, moved: boolean, tracks: readonly number[], edge: string | null } | null} */
  let drag = null;
  let scrolledAt = 0;
  /** @param {number} frame */
  const stepped = frame => Math.min(page.length(), Math.round(frame / STEP) * STEP);

  /** @param {number} y */
  function scrollAtEdge(y) {
    const now = performance.now();
    const direction = y > window.innerHeight - 24 ? 1 : y < 24 ? -1 : 0;
    if (direction && now - scrolledAt > SCROLL_MS) {
      scrolledAt = now;
      window.scrollBy(0, direction * (page.rows.all[0]?.element.offsetHeight ?? 0));
    }
  }

  element.addEventListener('pointerdown', event => {
    const handle = /** @type {HTMLElement | null} */ (sourceOf(event).closest('.edge'));
    if (!sourceOf(event).closest('.row-sound') || sourceOf(event).closest('button:not(.edge), .ribbon-head') || event.button !== 0) {
      return;
    }
    // otherwise the browser would mark text
    event.preventDefault();
    const place = page.rows.at(event.clientX, event.clientY);
    if (!place) {
      return;
    }
    const lane = /** @type {HTMLElement | null} */ (sourceOf(event).closest('.lane'));
    const selection = page.selection();
    drag = handle && selection
      ? { anchor: handle.dataset.edge === 'start' ? selection.end : selection.start, x: event.clientX, y: event.clientY, moved: false,
        tracks: selection.trackIds, edge: handle.dataset.edge ?? null }
      : { anchor: place.frame, x: event.clientX, y: event.clientY, moved: false, tracks: page.tiedTracks(Number(lane?.dataset.track)), edge: null };
    element.setPointerCapture(event.pointerId);
  });

  element.addEventListener('pointermove', event => {
    if (!drag) {
      return;
    }
    drag.moved ||= Math.hypot(event.clientX - drag.x, event.clientY - drag.y) > NUDGE_PIXELS;
    const place = page.rows.at(event.clientX, event.clientY);
    if (drag.moved && place) {
      page.onSelect(stepped(drag.anchor), stepped(place.frame), drag.tracks);
      scrollAtEdge(event.clientY);
    }
  });

  element.addEventListener('pointerup', event => {
    const ended = drag;
    drag = null;
    // a quick swipe has few moves on its way: its end is where the finger left
    const place = ended?.moved ? page.rows.at(event.clientX, event.clientY) : null;
    if (ended && place) {
      page.onSelect(stepped(ended.anchor), stepped(place.frame), ended.tracks);
    }
    if (ended && !ended.moved && !ended.edge) {
      page.onClick(ended.anchor, event.altKey);
    }
    if (ended) {
      page.onEnd(ended.edge);
    }
  });

  element.addEventListener('pointercancel', () => { drag = null; });
}
