// Dragging across the rows selects, a click plays. What is selected runs from its anchor to the pointer in reading order.
import { sourceOf } from '../shared/elements.js';
import { RATE } from '../shared/time.js';

// in steps of 10 ms, so that what the card says is exactly what is selected
const STEP = RATE / 100;
const NUDGE_PIXELS = 4;
const SCROLL_MS = 400;

/**
 * @param {HTMLElement} element that holds the rows
 * @param {{ rows: import('./rows.js').Rows, length: () => number,
 *   onSelect: (anchor: number, frame: number, trackIds: number[]) => void, tiedTracks: (trackId: number) => number[], onClick: (frame: number) => void, onEnd: () => void }} page
 */
export function attachDragSelect(element, page) {
  /** @type {{ anchor: number, x: number, y: number, moved: boolean, tracks: number[] } | null} */
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
      window.scrollBy(0, direction * (page.rows.row(0)?.element.offsetHeight ?? 0));
    }
  }

  element.addEventListener('pointerdown', event => {
    if (!sourceOf(event).closest('.row-sound') || sourceOf(event).closest('button') || event.button !== 0) {
      return;
    }
    const place = page.rows.at(event.clientX, event.clientY);
    if (!place) {
      return;
    }
    const lane = /** @type {HTMLElement | null} */ (sourceOf(event).closest('.lane'));
    drag = { anchor: place.frame, x: event.clientX, y: event.clientY, moved: false,
      tracks: page.tiedTracks(Number(lane?.dataset.track)) };
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
    if (ended && !ended.moved) {
      page.onClick(ended.anchor);
    }
    if (ended) {
      page.onEnd();
    }
  });

  element.addEventListener('pointercancel', () => { drag = null; });
}
