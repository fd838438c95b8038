// Dragging across the rows selects, a click plays. What is selected runs from its anchor to the pointer in reading order.
import { RATE } from '../shared/time.js';

// in steps of 10 ms, so that what the card says is exactly what is selected
const STEP = RATE / 100;
const NUDGE_PIXELS = 4;
const SCROLL_MS = 400;

/** @param bench rows, selection, length(), tiedTracks(trackId), onClick(frame), onEnd() */
export function attachDragSelect(element, bench) {
  let drag = null;
  let scrolledAt = 0;
  const stepped = frame => Math.min(bench.length(), Math.round(frame / STEP) * STEP);

  function scrollAtEdge(y) {
    const now = performance.now();
    const direction = y > window.innerHeight - 24 ? 1 : y < 24 ? -1 : 0;
    if (direction && now - scrolledAt > SCROLL_MS) {
      scrolledAt = now;
      window.scrollBy(0, direction * (bench.rows.row(0)?.element.offsetHeight ?? 0));
    }
  }

  element.addEventListener('pointerdown', event => {
    if (!event.target.closest('.row-sound') || event.target.closest('button') || event.button !== 0) {
      return;
    }
    const place = bench.rows.at(event.clientX, event.clientY);
    const lane = event.target.closest('.lane');
    drag = { anchor: place.frame, x: event.clientX, y: event.clientY, moved: false,
      tracks: bench.tiedTracks(Number(lane?.dataset.track)) };
    event.currentTarget.setPointerCapture(event.pointerId);
  });

  element.addEventListener('pointermove', event => {
    if (!drag) {
      return;
    }
    drag.moved ||= Math.hypot(event.clientX - drag.x, event.clientY - drag.y) > NUDGE_PIXELS;
    if (drag.moved) {
      bench.selection.set(stepped(drag.anchor), stepped(bench.rows.at(event.clientX, event.clientY).frame), drag.tracks);
      scrollAtEdge(event.clientY);
    }
  });

  element.addEventListener('pointerup', () => {
    const ended = drag;
    drag = null;
    if (ended && !ended.moved) {
      bench.selection.letGo();
      bench.onClick(ended.anchor);
    }
    if (ended) {
      bench.onEnd();
    }
  });

  element.addEventListener('pointercancel', () => { drag = null; });
}
