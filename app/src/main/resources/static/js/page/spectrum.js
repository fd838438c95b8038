// Draws which frequencies a track has when, behind its level: one hue, from the paper's to the ink's. For finding hums and clicks.
import { getBytes } from '../shared/http.js';
import { colour } from './colours.js';

/** As the server sends them: bands of equal ratio, the lowest first. */
const BANDS = 64;
const LOWEST_HZ = 40;
const HIGHEST_HZ = 16_000;
const MARKED = [[100, '100 Hz'], [1000, '1 kHz'], [10_000, '10 kHz']];
const STRONGEST = 1.3;

/** Where a frequency stands, from 0 at the foot to 1. @param {number} hertz */
export const heightOfHertz = hertz => Math.log(hertz / LOWEST_HZ) / Math.log(HIGHEST_HZ / LOWEST_HZ);

/** The strengths of a stretch of a sound. @param {string} soundId @param {number} from @param {number} to in its frames @param {number} columns */
export async function spectrumOfSound(soundId, from, to, columns) {
  return new Uint8Array(await getBytes(`/sounds/${soundId}/spectrum/${from}-${to}/${columns}`));
}

/**
 * The strengths of a track between two frames, 0 to 255 for every band of every column.
 *
 * @param {import('./types.js').TrackView} track @param {number} fromFrame @param {number} toFrame @param {number} count of columns
 */
export async function spectrumOf(track, fromFrame, toFrame, count) {
  const steps = new Uint8Array(count * BANDS);
  await Promise.all(track.clips.map(async clip => {
    const start = Math.max(fromFrame, clip.startFrame);
    const end = Math.min(toFrame, clip.startFrame + clip.frames);
    const { soundId, roomFrame } = clip.source;
    const first = Math.round((start - fromFrame) * count / (toFrame - fromFrame));
    const columns = Math.round((end - fromFrame) * count / (toFrame - fromFrame)) - first;
    if (start >= end || soundId === null || columns < 1) {
      return;
    }
    const offset = (roomFrame ?? 0) + clip.sourceFrame - clip.startFrame;
    const sent = await spectrumOfSound(String(soundId), start + offset, end + offset, columns);
    sent.forEach((step, i) => { steps[first * BANDS + i] = Math.max(step, steps[first * BANDS + i]); });
  }));
  return steps;
}

/** @param {HTMLCanvasElement} canvas @param {Uint8Array} steps @param {number} width of all columns */
export function drawSpectrum(canvas, steps, width) {
  const height = canvas.height / (window.devicePixelRatio || 1);
  const columns = steps.length / BANDS;
  const picture = new OffscreenCanvas(columns, BANDS);
  const picturePen = /** @type {OffscreenCanvasRenderingContext2D} */ (picture.getContext('2d'));
  const image = picturePen.createImageData(columns, BANDS);
  const [red, green, blue] = rgbOf(colour('--color-ink'));
  for (let column = 0; column < columns; column++) {
    for (let band = 0; band < BANDS; band++) {
      image.data.set([red, green, blue, STRONGEST * steps[column * BANDS + band] ** 2 / 255], 4 * ((BANDS - 1 - band) * columns + column));
    }
  }
  picturePen.putImageData(image, 0, 0);
  const pen = /** @type {CanvasRenderingContext2D} */ (canvas.getContext('2d'));
  pen.globalCompositeOperation = 'destination-over';
  pen.drawImage(picture, 0, 0, width, height);
  pen.globalCompositeOperation = 'source-over';
  pen.font = '11px "Atkinson Hyperlegible", sans-serif';
  pen.textBaseline = 'middle';
  for (const [hertz, label] of /** @type {[number, string][]} */ (MARKED)) {
    const y = height * (1 - heightOfHertz(hertz));
    pen.fillStyle = colour('--color-muted');
    pen.fillRect(0, y, 6, 1);
    pen.fillStyle = colour('--color-card');
    pen.fillRect(7, y - 6, pen.measureText(label).width + 4, 12);
    pen.fillStyle = colour('--color-ink');
    pen.fillText(label, 9, y);
  }
}

/** @param {string} hex @returns {[number, number, number]} */
function rgbOf(hex) {
  const number = parseInt(hex.slice(1), 16);
  return [number >> 16, number >> 8 & 255, number & 255];
}
