// The highlighter: what is selected, across the rows, with a handle at either edge.
import { fineClock } from '../shared/time.js';

/** @typedef {import('./state.js').Selection} Selection */
/** @typedef {'start' | 'end'} Edge */

export const EDGES = /** @type {Edge[]} */ (['start', 'end']);
const WORDS = { start: 'Start', end: 'End' };

export class Marker {
  #rows;
  /** @type {Selection | null} */
  #selection = null;
  /** @type {import('./layout.js').Layout | null} */
  #layout = null;
  #handles;

  /** @param {import('./rows.js').Rows} rows @param {(edge: Edge, event: KeyboardEvent) => boolean} onKey whether the key means something there */
  constructor(rows, onKey) {
    this.#rows = rows;
    this.#handles = { start: this.#handle('start', onKey), end: this.#handle('end', onKey) };
    rows.onRow(row => this.#mark(row));
  }

  /** @param {Selection | null} selection @param {import('./layout.js').Layout} layout */
  show(selection, layout) {
    this.#selection = selection;
    this.#layout = layout;
    const focused = EDGES.find(edge => this.#handles[edge] === document.activeElement);
    if (!selection) {
      EDGES.forEach(edge => this.#handles[edge].remove());
    }
    this.#rows.all.forEach(row => this.#mark(row));
    if (focused) {
      this.#handles[focused].focus({ preventScroll: true });
    }
  }

  /** @param {Edge} edge @param {(edge: Edge, event: KeyboardEvent) => boolean} onKey */
  #handle(edge, onKey) {
    const handle = document.createElement('button');
    handle.type = 'button';
    handle.className = `edge edge-${edge}`;
    handle.dataset.edge = edge;
    handle.addEventListener('keydown', event => {
      if (onKey(edge, event)) {
        event.preventDefault();
        event.stopPropagation();
      }
    });
    return handle;
  }

  /** @param {import('./rows.js').Row} row */
  #mark(row) {
    const selection = this.#selection;
    const layout = this.#layout;
    if (!layout || row.number >= layout.rowCount) {
      return;
    }
    const start = Math.max(selection?.start ?? 0, layout.rowStart(row.number));
    const end = Math.min(selection?.end ?? 0, layout.rowEnd(row.number));
    for (const { track, lane } of row.lanes) {
      let marker = /** @type {HTMLElement | null} */ (lane.querySelector('.lane-marker'));
      if (start >= end || !selection?.trackIds.includes(track.id)) {
        marker?.remove();
        continue;
      }
      if (!marker) {
        marker = document.createElement('div');
        marker.className = 'lane-marker';
        lane.append(marker);
      }
      marker.style.left = `${100 * layout.part(row.number, start)}%`;
      marker.style.width = `${100 * (layout.part(row.number, end) - layout.part(row.number, start))}%`;
    }
    if (selection) {
      EDGES.forEach(edge => this.#placeHandle(edge, selection, layout, row));
    }
  }

  /** @param {Edge} edge @param {Selection} selection @param {import('./layout.js').Layout} layout @param {import('./rows.js').Row} row */
  #placeHandle(edge, selection, layout, row) {
    const frame = selection[edge];
    const handle = this.#handles[edge];
    const here = edge === 'start' ? frame >= layout.rowStart(row.number) && frame < layout.rowEnd(row.number)
      : frame > layout.rowStart(row.number) && frame <= layout.rowEnd(row.number);
    if (here) {
      handle.style.left = `${100 * layout.part(row.number, frame)}%`;
      handle.setAttribute('aria-label', `${WORDS[edge]} of the selection, ${fineClock(frame, 2)}. Arrows move it.`);
      if (handle.parentElement !== row.sound) {
        row.sound.append(handle);
      }
    } else if (handle.parentElement === row.sound) {
      handle.remove();
    }
  }
}
