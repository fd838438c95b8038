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

/** Where one likes the page to differ: how high tracks are beside others, 0 for one that is not shown. @typedef {{ [trackId: string]: number }} Shares */

/** Where rows start: every part on a row of its own, like a paragraph. @param {number} frames @param {number} rowFrames @param {number[]} parts where parts start */
function startsOf(frames, rowFrames, parts) {
  const starts = [];
  const breaks = [...new Set(parts)].filter(frame => frame > 0 && frame < frames).sort((a, b) => a - b);
  let at = 0;
  for (const end of [...breaks, frames]) {
    for (; at < end; at += rowFrames) {
      starts.push(at);
    }
    at = end;
  }
  return Float64Array.from(starts);
}

/** The last of ascending places that is not behind another; the first if all are. @param {Float64Array} places @param {number} count @param {number} place */
function lastUpTo(places, count, place) {
  let low = 0;
  let high = count - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (places[middle] <= place) {
      low = middle;
    } else {
      high = middle - 1;
    }
  }
  return Math.max(0, low);
}

export class Layout {
  /** In which rows each track is heard. @type {Uint8Array[]} */
  #heard;
  #starts;
  #shares;
  /** Where each row starts, and the last one ends, in pixels from the top of the page; filled by {@link place}. @type {Float64Array} */
  tops = new Float64Array(0);

  /**
   * @param {TimelineView} timeline @param {number} rowSeconds @param {Shares} [shares] of the height of a lane; 1 where nothing is said
   * @param {string[]} [parts] names of flags that start a paragraph @param {number | null} [only] where the only row starts, if there is but one
   */
  constructor(timeline, rowSeconds, shares = {}, parts = [], only = null) {
    this.timeline = timeline;
    this.rowSeconds = rowSeconds;
    this.rowFrames = Math.round(rowSeconds * RATE);
    this.leadFrames = only === null ? Math.floor(this.rowFrames / LEAD_PART) : 0;
    this.#starts = only !== null ? Float64Array.of(only)
      : startsOf(timeline.frames, this.rowFrames, timeline.flags.filter(flag => parts.includes(flag.name)).map(flag => flag.frame));
    this.rowCount = this.#starts.length;
    this.#shares = shares;
    this.#heard = timeline.tracks.map(track => this.#rowsOf(track));
    this.lanes = Uint16Array.from({ length: this.rowCount }, (_, row) => this.#heard.reduce((sum, rows) => sum + rows[row], 0));
  }

  /** In which rows a track has a clip, as 0 or 1; in none if it is not shown. @param {import('./types.js').TrackView} track */
  #rowsOf(track) {
    const rows = new Uint8Array(this.rowCount);
    for (const clip of this.share(track.id) > 0 ? track.clips : []) {
      if (clip.startFrame < this.rowReach(this.rowCount - 1) && clip.startFrame + clip.frames > this.rowStart(0)) {
        rows.fill(1, this.rowOf(clip.startFrame), this.rowOf(clip.startFrame + clip.frames - 1) + 1);
      }
    }
    return rows;
  }

  /** How high a track is beside others. @param {number} trackId */
  share(trackId) {
    return this.#shares[trackId] ?? 1;
  }

  /** What the lanes of a row have together. @param {number} row */
  #sharesIn(row) {
    return this.timeline.tracks.reduce((sum, track, index) => sum + this.#heard[index][row] * this.share(track.id), 0);
  }

  /** Gives lanes their height, and with it each row its place from the top of the page. @param {number} lane in pixels */
  place(lane) {
    this.tops = new Float64Array(this.rowCount + 1);
    for (let row = 0; row < this.rowCount; row++) {
      this.tops[row + 1] = this.tops[row] + ROW_GAP + (this.lanes[row] === 0 ? EMPTY_ROW : Math.round(this.#sharesIn(row) * lane) + this.lanes[row] * STRIP);
    }
  }

  /** The rows that lie in a stretch of the page, the first and the last of them. @param {number} from @param {number} to in pixels from the top of the page */
  rowsBetween(from, to) {
    return [from, to].map(y => lastUpTo(this.tops, this.rowCount, y));
  }

  /**
   * As few seconds a row as there may be so that the whole episode can be seen in a window so many pixels high.
   *
   * @param {TimelineView} timeline @param {number} height @param {Shares} [shares] @param {string[]} [parts]
   */
  static fitting(timeline, height, shares, parts) {
    const layouts = FITTING_SECONDS.map(seconds => new Layout(timeline, seconds, shares, parts));
    return layouts.find(layout => layout.#height(LOWEST_LANE) <= height) ?? layouts[layouts.length - 1];
  }

  /** How high a lane is so that the rows fill a window: within bounds, and the lowest where they do not fit. @param {number} height */
  laneHeight(height) {
    const shares = this.#shareCount();
    const free = height - this.rowCount * ROW_GAP - this.#laneCount() * STRIP;
    return shares === 0 ? LOWEST_LANE : Math.max(LOWEST_LANE, Math.min(HIGHEST_LANE, Math.floor(free / shares)));
  }

  #laneCount() {
    return this.lanes.reduce((sum, lanes) => sum + lanes, 0);
  }

  #shareCount() {
    return this.lanes.reduce((sum, _, row) => sum + this.#sharesIn(row), 0);
  }

  /** @param {number} lane */
  #height(lane) {
    return this.#shareCount() * lane + this.#laneCount() * STRIP + this.rowCount * ROW_GAP;
  }

  /** @param {number} row */
  rowStart(row) {
    return this.#starts[row];
  }

  /** @param {number} row */
  rowEnd(row) {
    return Math.min(this.timeline.frames, this.rowReach(row));
  }

  /** Up to where a row has room, also behind the end of the episode. @param {number} row */
  rowReach(row) {
    return this.#starts[row + 1] ?? this.rowStart(row) + this.rowFrames;
  }

  /** @param {number} frame */
  rowOf(frame) {
    return lastUpTo(this.#starts, this.rowCount, frame);
  }

  /** How far down the page a frame stands, in pixels. @param {number} frame */
  y(frame) {
    const row = this.rowOf(frame);
    return this.tops[row] + Math.min(1, this.part(row, frame)) * (this.tops[row + 1] - this.tops[row]);
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
