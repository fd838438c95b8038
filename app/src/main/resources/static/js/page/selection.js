// @ts-check
// What is selected: a span and the tracks it is on. Shown with a highlighter across the rows.
import { closest, closestEnd } from './time-map.js';

export class Selection {
  /** @type {(() => void)[]} */
  #listeners = [];
  anchor = 0;
  start = 0;
  end = 0;
  /** @type {Set<number>} */
  trackIds = new Set();

  /** @param {() => void} listener */
  onChange(listener) {
    this.#listeners.push(listener);
  }

  get present() {
    return this.end > this.start;
  }

  /** Selects from an anchor to a frame, in either direction. @param {number} anchor @param {number} frame @param {Iterable<number>} trackIds */
  set(anchor, frame, trackIds) {
    this.anchor = anchor;
    this.start = Math.min(anchor, frame);
    this.end = Math.max(anchor, frame);
    this.trackIds = new Set(trackIds);
    this.#changed();
  }

  letGo() {
    this.start = this.end = this.anchor = 0;
    this.#changed();
  }

  /** Moves the edge that is nearer to a frame. @param {number} position @param {number} frames @param {number} length */
  nudge(position, frames, length) {
    const edge = Math.abs(position - this.start) <= Math.abs(position - this.end) ? 'start' : 'end';
    const moved = Math.max(0, Math.min(length, this[edge] + frames));
    if (edge === 'start' ? moved < this.end : moved > this.start) {
      this[edge] = moved;
      this.#changed();
    }
  }

  /** Goes where the time of its first track has gone, so that it means the same words. @param {import('./types.js').Maps} maps */
  moveBy(maps) {
    if (this.present) {
      const map = maps[[...this.trackIds][0]];
      this.start = closest(map, this.start);
      this.end = Math.max(this.start, closestEnd(map, this.end));
      this.anchor = closest(map, this.anchor);
    }
  }

  /** @param {number} trackId @param {boolean} on */
  tick(trackId, on) {
    this.trackIds[on ? 'add' : 'delete'](trackId);
    this.#changed();
  }

  #changed() {
    this.#listeners.forEach(listener => listener());
  }
}

/** Lays the highlighter over the lanes. @param {Selection} selection @param {any} rows @param {import('./layout.js').Layout} layout */
export function drawMarker(selection, rows, layout) {
  for (const row of rows.all) {
    const start = Math.max(selection.start, layout.rowStart(row.number));
    const end = Math.min(selection.end, layout.rowEnd(row.number));
    for (const { track, lane } of row.lanes) {
      let marker = lane.querySelector('.lane-marker');
      if (!selection.present || start >= end || !selection.trackIds.has(track.id)) {
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
  }
}
