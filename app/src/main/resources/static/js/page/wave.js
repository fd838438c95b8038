// Draws one track of one row as the true wave around zero, where a row is so short that single vibrations can be seen.
import { getBytes } from '../shared/http.js';
import { RATE } from '../shared/time.js';
import { colour } from './colours.js';
import { curveDbAt, fadeDb, inkOf } from './lanes.js';

/** Rows of fewer seconds show the wave. */
export const WAVE_BELOW = 2;
/** At most so many frames are asked for at once, as the server says. */
const MOST_FRAMES = 4 * RATE;

/** A gain is drawn from so many frames to the next: half a millisecond. */
const GAIN_STEP = 24;

/** Rows of fractions of a second share what is asked for at once. */
const TILE_FRAMES = RATE;
const MOST_TILES = 60;
/** The last that were asked for, the oldest first. @type {Map<string, Promise<Int16Array>>} */
const tiles = new Map();

/** @param {number} soundId @param {number} number */
function tile(soundId, number) {
  const key = `${soundId}/${number}`;
  const known = tiles.get(key);
  const loading = known ?? getBytes(`/sounds/${soundId}/samples/${number * TILE_FRAMES}-${(number + 1) * TILE_FRAMES}`).then(bytes => new Int16Array(bytes));
  tiles.delete(key);
  tiles.set(key, loading);
  if (!known) {
    loading.catch(() => tiles.delete(key));
    if (tiles.size > MOST_TILES) {
      tiles.delete([...tiles.keys()][0]);
    }
  }
  return loading;
}

/** The samples of a sound, as 16-bit numbers. @param {number} soundId @param {number} from @param {number} to */
async function samples(soundId, from, to) {
  const first = Math.floor(from / TILE_FRAMES);
  const last = Math.floor((to - 1) / TILE_FRAMES);
  const loaded = await Promise.all(Array.from({ length: last - first + 1 }, (_, i) => tile(soundId, first + i)));
  const found = new Int16Array(to - from);
  loaded.forEach((part, i) => {
    const start = (first + i) * TILE_FRAMES;
    found.set(part.subarray(Math.max(0, from - start), Math.max(0, to - start)), Math.max(0, start - from));
  });
  return found;
}

/**
 * What a track plays between two frames, as amplitudes.
 *
 * @param {import('./types.js').TrackView} track @param {number} fromFrame @param {number} toFrame
 */
export async function samplesOf(track, fromFrame, toFrame) {
  const wave = new Float32Array(Math.min(MOST_FRAMES, toFrame - fromFrame));
  await Promise.all(track.clips.map(async clip => {
    const start = Math.max(fromFrame, clip.startFrame);
    const end = Math.min(toFrame, clip.startFrame + clip.frames);
    const { soundId, roomFrame } = clip.source;
    if (start >= end || soundId === null) {
      return;
    }
    const offset = (roomFrame ?? 0) + clip.sourceFrame - clip.startFrame;
    const played = await samples(soundId, start + offset, end + offset);
    for (let step = 0; step < played.length; step += GAIN_STEP) {
      const frame = start + step;
      const db = track.gainDb + clip.gainDb + fadeDb(clip, frame - clip.startFrame) + curveDbAt(track.curve, frame);
      const gain = 10 ** (db / 20) / 32768;
      for (let i = step; i < Math.min(played.length, step + GAIN_STEP); i++) {
        wave[start + i - fromFrame] += gain * played[i];
      }
    }
  }));
  return wave;
}

/** @param {HTMLCanvasElement} canvas @param {Float32Array} wave @param {{ width: number, height: number }} size @param {number} drawn how much of it the wave has @param {number} index of the track @param {number} greyed */
export function drawWave(canvas, wave, { width, height }, drawn, index, greyed) {
  const ratio = window.devicePixelRatio || 1;
  canvas.width = width * ratio;
  canvas.height = height * ratio;
  const pen = /** @type {CanvasRenderingContext2D} */ (canvas.getContext('2d'));
  pen.scale(ratio, ratio);
  pen.strokeStyle = colour('--color-line');
  pen.strokeRect(0, height / 2, width, 0);
  pen.strokeStyle = inkOf(index);
  pen.lineWidth = 1;
  pen.beginPath();
  for (let x = 0; x < drawn; x++) {
    const from = Math.floor(x * wave.length / drawn);
    const to = Math.max(from + 1, Math.ceil((x + 1) * wave.length / drawn));
    let low = Infinity;
    let high = -Infinity;
    for (let i = from; i < to && i < wave.length; i++) {
      low = Math.min(low, wave[i]);
      high = Math.max(high, wave[i]);
    }
    pen.lineTo(x + 0.5, height / 2 * (1 - high));
    pen.lineTo(x + 0.5, height / 2 * (1 - low));
  }
  pen.stroke();
  pen.globalAlpha = 0.72;
  pen.fillStyle = colour('--color-oat');
  pen.fillRect(0, 0, greyed, height);
  pen.globalAlpha = 1;
}
