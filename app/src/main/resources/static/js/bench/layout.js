// Where frames stand on the page: time runs along a row and wraps to the next, as text does.
import { RATE } from '../shared/time.js';

/** Seconds a row, closest first; Infinity is the whole episode in one row. */
export const ROW_SECONDS = [2, 5, 10, 20, 40, 80, Infinity];

/** The end of a row is repeated, greyed, at the start of the next: a fortieth of a row. */
const LEAD_PART = 40;

export class Layout {
  constructor(timeline, rowSeconds) {
    this.timeline = timeline;
    this.rowFrames = rowSeconds === Infinity ? Math.max(RATE, timeline.frames) : rowSeconds * RATE;
    this.leadFrames = Math.floor(this.rowFrames / LEAD_PART);
    this.rowCount = Math.ceil(timeline.frames / this.rowFrames);
  }

  rowStart(row) {
    return row * this.rowFrames;
  }

  rowEnd(row) {
    return Math.min(this.timeline.frames, (row + 1) * this.rowFrames);
  }

  rowOf(frame) {
    return Math.max(0, Math.min(this.rowCount - 1, Math.floor(frame / this.rowFrames)));
  }

  /** Where a frame stands across a row, from 0 to 1. */
  part(row, frame) {
    return (frame - this.rowStart(row) + this.leadFrames) / (this.rowFrames + this.leadFrames);
  }

  /** The frame at a place across a row, held inside the row. */
  frameAt(row, part) {
    const frame = this.rowStart(row) - this.leadFrames + Math.round(part * (this.rowFrames + this.leadFrames));
    return Math.max(this.rowStart(row), Math.min(this.rowEnd(row), frame));
  }

  /** The tracks with a clip in a row: the others are left out of it. */
  tracksIn(row) {
    return this.timeline.tracks.filter(track => track.clips.some(
      clip => clip.startFrame < this.rowEnd(row) && clip.startFrame + clip.frames > this.rowStart(row)));
  }
}
