// Draws one track of one row: the level in dB, upward from a ruled baseline.
import { heightOf } from '../shared/level-scale.js';
import { colour, onTheme } from './colours.js';
import { fadeGain } from './laws.js';
import { loadSkyline } from './skyline.js';

const INKS = 5;
const SMOOTH_COLUMNS = 3;
/** What is drawn of a sound that is still being made: a low, even body. */
const BEING_MADE = { peak: -42, average: -42 };

/** @typedef {import('./types.js').TrackView} TrackView */
/** @typedef {import('./types.js').ClipView} ClipView */
/** @typedef {{ peak: number, average: number }} Level in dBFS */
/** What is drawn in one column, or nothing. @typedef {(Level & { clipped: boolean }) | null} Column */

/** @param {number} index of a track */
export const inkOf = index => colour(`--track-${index % INKS + 1}`);

/** Every track has a pattern of its own, so that colour is never the only sign. @type {((pen: OffscreenCanvasRenderingContext2D) => void)[]} */
const PATTERNS = [
  () => {},
  pen => { pen.arc(3, 3, 1.1, 0, 7); pen.fill(); },
  pen => { pen.moveTo(3, 0); pen.lineTo(3, 8); pen.stroke(); },
  pen => { pen.moveTo(0, 2); pen.quadraticCurveTo(2, 0, 4, 2); pen.quadraticCurveTo(6, 4, 8, 2); pen.stroke(); },
  pen => { pen.moveTo(0, 8); pen.lineTo(8, 0); pen.stroke(); },
];

/** One for each ink, as long as the theme stays. @type {Map<number, CanvasPattern | string>} */
const fills = new Map();
onTheme(() => fills.clear());

/** @param {CanvasRenderingContext2D} pen @param {number} index */
function bodyFill(pen, index) {
  const known = fills.get(index % INKS);
  if (known) {
    return known;
  }
  const size = 8;
  const cell = new OffscreenCanvas(size, size);
  const cellPen = /** @type {OffscreenCanvasRenderingContext2D} */ (cell.getContext('2d'));
  cellPen.fillStyle = inkOf(index);
  cellPen.fillRect(0, 0, size, size);
  cellPen.fillStyle = cellPen.strokeStyle = 'rgba(255, 255, 255, .38)';
  cellPen.beginPath();
  PATTERNS[index % INKS](cellPen);
  const fill = pen.createPattern(cell, 'repeat') ?? inkOf(index);
  fills.set(index % INKS, fill);
  return fill;
}

/** The gain of a fade so many frames from its edge. Edges of 5 ms are too short to be seen. @param {import('./types.js').Fade} fade @param {number} frame */
function fadeAt(fade, frame) {
  const into = frame + fade.skippedFrames;
  return into >= fade.frames ? 1 : fadeGain(fade.shape, Math.max(0, into) / fade.frames);
}

/** The gain of a clip's fades at one of its frames, in dB, as the mixer applies it. @param {ClipView} clip @param {number} frame */
export const fadeDb = (clip, frame) =>
  20 * Math.log10(Math.max(1e-4, fadeAt(clip.fadeIn, frame) * fadeAt(clip.fadeOut, clip.frames - frame)));

/** The gain of a track's curve at a frame in dB: straight between its points. @param {import('./types.js').CurvePoint[]} points @param {number} frame */
export function curveDbAt(points, frame) {
  const next = points.findIndex(point => point.frame > frame);
  if (points.length === 0) {
    return 0;
  } else if (next <= 0) {
    return points[next === 0 ? 0 : points.length - 1].gainDb;
  }
  const { frame: start, gainDb } = points[next - 1];
  return gainDb + (points[next].gainDb - gainDb) * (frame - start) / (points[next].frame - start);
}

/**
 * The levels of what a clip plays, by its source's frames. A repeated room has one level all along.
 *
 * @param {ClipView} clip @param {number} from @param {number} to @param {number} framesAColumn
 * @returns {Promise<(from: number, to: number) => Level>}
 */
async function levelsOf({ source }, from, to, framesAColumn) {
  if (source.soundId === null) {
    return () => BEING_MADE;
  }
  if (source.roomFrame === null || source.roomFrames === null) {
    return loadSkyline(source.soundId, from, to, framesAColumn);
  }
  const end = source.roomFrame + source.roomFrames;
  const room = await loadSkyline(source.soundId, source.roomFrame, end, framesAColumn);
  const level = room(source.roomFrame, end);
  return () => level;
}

/** Where a clip's source is clipped; where its clock was corrected the marks would stand a little beside, so that there are none.
 * @param {import('./types.js').SourceView} source @param {import('./types.js').TimelineView['takes']} takes */
const clippedOf = (source, takes) =>
  (source.roomFrame === null && source.keepsTime && !source.drawnAnew ? takes[source.takeId]?.clipped ?? [] : []);

/**
 * The columns of a track between two frames: peak and average level in dBFS, and whether it is clipped there.
 *
 * @param {TrackView} track @param {import('./types.js').TimelineView['takes']} takes
 * @param {number} fromFrame @param {number} toFrame @param {number} count
 */
export async function columns(track, takes, fromFrame, toFrame, count) {
  const framesAColumn = (toFrame - fromFrame) / count;
  /** @type {Column[]} */
  const result = new Array(count).fill(null);
  for (const clip of track.clips) {
    const start = Math.max(fromFrame, clip.startFrame);
    const end = Math.min(toFrame, clip.startFrame + clip.frames);
    if (start >= end) {
      continue;
    }
    const offset = clip.sourceFrame - clip.startFrame;
    const levels = await levelsOf(clip, start + offset, end + offset, framesAColumn);
    const clipped = clippedOf(clip.source, takes).filter(spot => spot.startFrame < end + offset && spot.endFrame > start + offset);
    const first = Math.floor((start - fromFrame) / framesAColumn);
    const last = Math.min(count, Math.ceil((end - fromFrame) / framesAColumn));
    for (let column = first; column < last; column++) {
      const from = Math.max(start, fromFrame + column * framesAColumn) + offset;
      const to = Math.min(end, fromFrame + (column + 1) * framesAColumn) + offset;
      const { peak, average } = levels(from, to);
      const gain = track.gainDb + clip.gainDb + fadeDb(clip, from - clip.sourceFrame) + curveDbAt(track.curve, from - offset);
      const hot = clipped.some(spot => spot.startFrame < to && spot.endFrame > from);
      result[column] = {
        peak: Math.max(peak + gain, result[column]?.peak ?? -Infinity),
        average: Math.max(average + gain, result[column]?.average ?? -Infinity),
        clipped: hot || Boolean(result[column]?.clipped),
      };
    }
  }
  return result;
}

/** The average level over a few columns, so that the body is continuous: speech has gaps of its own between syllables. @param {Column[]} levels @param {number} x */
function smoothed(levels, x) {
  let power = 0;
  let count = 0;
  for (let near = Math.max(0, x - SMOOTH_COLUMNS); near <= Math.min(levels.length - 1, x + SMOOTH_COLUMNS); near++) {
    const level = levels[near];
    if (level) {
      power += 10 ** (level.average / 10);
      count++;
    }
  }
  return 10 * Math.log10(power / count);
}

/**
 * Draws a lane. `greyed` columns at its start repeat the end of the row before.
 *
 * @param {HTMLCanvasElement} canvas @param {Column[]} levels @param {{ width: number, height: number }} size of the row, of which the levels may be less @param {number} index of the track
 * @param {number} greyed @param {{ low: number, high: number }} band of good levels, in dBFS @param {boolean} thin whether only lines are drawn, so that something can be seen behind
 */
export function drawLane(canvas, levels, { width, height }, index, greyed, band, thin) {
  const ratio = window.devicePixelRatio || 1;
  canvas.width = width * ratio;
  canvas.height = height * ratio;
  const pen = /** @type {CanvasRenderingContext2D} */ (canvas.getContext('2d'));
  pen.scale(ratio, ratio);
  /** @param {number} dbfs */
  const top = dbfs => height * (1 - heightOf(dbfs));

  if (!thin) {
    pen.fillStyle = colour('--color-band');
    pen.fillRect(0, top(band.high), width, top(band.low) - top(band.high));
  }

  pen.fillStyle = bodyFill(pen, index);
  levels.forEach((level, x) => {
    if (level && !thin) {
      const body = top(Math.min(level.peak, smoothed(levels, x)));
      pen.fillRect(x, body, 1, height - body);
    }
  });

  pen.strokeStyle = inkOf(index);
  pen.lineWidth = 1;
  pen.globalAlpha = thin ? 1 : 0.7;
  pen.beginPath();
  levels.forEach((level, x) => level && pen[x > 0 && levels[x - 1] ? 'lineTo' : 'moveTo'](x + 0.5, top(level.peak)));
  pen.stroke();
  pen.globalAlpha = 1;

  pen.fillStyle = colour('--color-persimmon');
  levels.forEach((level, x) => {
    if (level?.clipped) {
      pen.beginPath();
      pen.moveTo(x - 4, 0);
      pen.lineTo(x + 5, 0);
      pen.lineTo(x + 0.5, 7);
      pen.fill();
    }
  });

  pen.globalAlpha = 0.72;
  pen.fillStyle = colour('--color-oat');
  pen.fillRect(0, 0, greyed, height);
  pen.globalAlpha = 1;
}
