// Where frames stand on the page: time runs along a row and wraps to the next, as text does.
import { RATE } from '../shared/time.js';

/** Seconds a row, closest first. */
export const ROW_SECONDS = [0.05, 0.2, 1, 2, 5, 10, 20, 40, 80];

/** What a row may hold when its length is chosen to fill the window. */
const FITTING_SECONDS = [2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 80];
const LOWEST_LANE = 62;
const HIGHEST_LANE = 140;
/** Above each lane stands a strip with names, flags and grips; under the last lane of a row there is a gap. As in the styles. */
export const STRIP = 24;
export const ROW_GAP = 16;
/** A row in which nobody is heard. */
const EMPTY_ROW = 30;

/** The end of a row is repeated, greyed, at the start of the next: a fortieth of a row. */
const LEAD_PART = 40;

/** @typedef {import('./types.js').TimelineView} TimelineView */

export class Layout {
  /** In which rows each track is heard. @type {Uint8Array[]} */
  #heard;
  /** Where each row starts, and the last one ends, in pixels from the top of the page; filled by {@link place}. @type {Float64Array} */
  tops = new Float64Array(0);

  /** @param {TimelineView} timeline @param {number} rowSeconds */
  constructor(timeline, rowSeconds) {
    this.timeline = timeline;
    this.rowSeconds = rowSeconds;
    this.rowFrames = Math.round(rowSeconds * RATE);
    this.leadFrames = Math.floor(this.rowFrames / LEAD_PART);
    this.rowCount = Math.ceil(timeline.frames / this.rowFrames);
    this.#heard = timeline.tracks.map(track => this.#rowsOf(track));
    this.lanes = Uint16Array.from({ length: this.rowCount }, (_, row) => this.#heard.reduce((sum, rows) => sum + rows[row], 0));
  }

  /** In which rows a track has a clip, as 0 or 1. @param {import('./types.js').TrackView} track */
  #rowsOf(track) {
    const rows = new Uint8Array(this.rowCount);
    for (const clip of track.clips) {
      rows.fill(1, Math.floor(clip.startFrame / this.rowFrames), Math.floor((clip.startFrame + clip.frames - 1) / this.rowFrames) + 1);
    }
    return rows;
  }

  /** Gives lanes their height, and with it each row its place from the top of the page. @param {number} lane in pixels */
  place(lane) {
    this.tops = new Float64Array(this.rowCount + 1);
    for (let row = 0; row < this.rowCount; row++) {
      this.tops[row + 1] = this.tops[row] + ROW_GAP + (this.lanes[row] === 0 ? EMPTY_ROW : this.lanes[row] * (lane + STRIP));
    }
  }

  /** The rows that lie in a stretch of the page, the first and the last of them. @param {number} from @param {number} to in pixels from the top of the page */
  rowsBetween(from, to) {
    return [this.#rowAt(from), this.#rowAt(to)];
  }

  /** @param {number} y */
  #rowAt(y) {
    let low = 0;
    let high = this.rowCount - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.tops[middle] <= y) {
        low = middle;
      } else {
        high = middle - 1;
      }
    }
    return low;
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
    return lanes === 0 ? LOWEST_LANE : Math.max(LOWEST_LANE, Math.min(HIGHEST_LANE, Math.floor(free / lanes) - STRIP));
  }

  #laneCount() {
    return this.lanes.reduce((sum, lanes) => sum + lanes, 0);
  }

  /** @param {number} lane */
  #height(lane) {
    return this.#laneCount() * (lane + STRIP) + this.rowCount * ROW_GAP;
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
    return this.timeline.tracks.filter((_, index) => this.#heard[index][row] === 1);
  }
}
