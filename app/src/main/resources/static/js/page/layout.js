// Where frames stand on the page: time runs along a row and wraps to the next, as text does.
import { RATE } from '../shared/time.js';

/** Seconds a row, closest first. */
export const ROW_SECONDS = [2, 5, 10, 20, 40, 80];

/** What a row may hold when its length is chosen to fill the window. */
const FITTING_SECONDS = [2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 80];
const LOWEST_LANE = 62;
const HIGHEST_LANE = 140;
/** Under a lane, and under the last lane of a row. */
export const LANE_GAP = 6;
export const ROW_GAP = 22;

/** The end of a row is repeated, greyed, at the start of the next: a fortieth of a row. */
const LEAD_PART = 40;

/** @typedef {import('./types.js').TimelineView} TimelineView */

export class Layout {
  /** @param {TimelineView} timeline @param {number} rowSeconds */
  constructor(timeline, rowSeconds) {
    this.timeline = timeline;
    this.rowSeconds = rowSeconds;
    this.rowFrames = rowSeconds * RATE;
    this.leadFrames = Math.floor(this.rowFrames / LEAD_PART);
    this.rowCount = Math.ceil(timeline.frames / this.rowFrames);
  }

  /** As few seconds a row as there may be so that the whole episode can be seen in a window so many pixels high. @param {TimelineView} timeline @param {number} height */
  static fitting(timeline, height) {
    const layouts = FITTING_SECONDS.map(seconds => new Layout(timeline, seconds));
    return layouts.find(layout => layout.#height(LOWEST_LANE) <= height) ?? layouts[layouts.length - 1];
  }

  /** How high a lane is so that the rows fill a window: within bounds, and the lowest where they do not fit. @param {number} height */
  laneHeight(height) {
    const lanes = this.#laneCount();
    const free = height - this.rowCount * ROW_GAP;
    return lanes === 0 ? LOWEST_LANE : Math.max(LOWEST_LANE, Math.min(HIGHEST_LANE, Math.floor(free / lanes) - LANE_GAP));
  }

  #laneCount() {
    let lanes = 0;
    for (let row = 0; row < this.rowCount; row++) {
      lanes += this.tracksIn(row).length;
    }
    return lanes;
  }

  /** @param {number} lane */
  #height(lane) {
    return this.#laneCount() * (lane + LANE_GAP) + this.rowCount * ROW_GAP;
  }

  /** @param {number} row */
  rowStart(row) {
    return row * this.rowFrames;
  }

  /** @param {number} row */
  rowEnd(row) {
    return Math.min(this.timeline.frames, (row + 1) * this.rowFrames);
  }

  /** @param {number} frame */
  rowOf(frame) {
    return Math.max(0, Math.min(this.rowCount - 1, Math.floor(frame / this.rowFrames)));
  }

  /** Where a frame stands across a row, from 0 to 1. @param {number} row @param {number} frame */
  part(row, frame) {
    return (frame - this.rowStart(row) + this.leadFrames) / (this.rowFrames + this.leadFrames);
  }

  /** The frame at a place across a row, held inside the row. @param {number} row @param {number} part */
  frameAt(row, part) {
    const frame = this.rowStart(row) - this.leadFrames + Math.round(part * (this.rowFrames + this.leadFrames));
    return Math.max(this.rowStart(row), Math.min(this.rowEnd(row), frame));
  }

  /** The tracks with a clip in a row: the others are left out of it. @param {number} row */
  tracksIn(row) {
    return this.timeline.tracks.filter(track => track.clips.some(
      clip => clip.startFrame < this.rowEnd(row) && clip.startFrame + clip.frames > this.rowStart(row)));
  }
}
