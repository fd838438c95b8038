// Skyline data of takes, fetched in tiles and kept: for every bin its peak and its average level, both in dB.
import { getBytes } from '../shared/http.js';

const FRAMES_A_BIN = [256, 1024, 4096, 16384];
const TILE_BINS = 4096;
const LOWEST_DBFS = -96;
const STEPS_A_DB = 254 / 96;

/** @type {Map<string, Promise<Uint8Array>>} */
const tiles = new Map();

/** @param {number} soundId @param {number} level @param {number} number */
function tile(soundId, level, number) {
  const key = `${soundId}/${level}/${number}`;
  if (!tiles.has(key)) {
    const loading = getBytes(`/sounds/${soundId}/skyline/${level}/${number}`).then(bytes => new Uint8Array(bytes));
    loading.catch(() => tiles.delete(key));
    tiles.set(key, loading);
  }
  return /** @type {Promise<Uint8Array>} */ (tiles.get(key));
}

/** @param {number} step */
const dbfs = step => LOWEST_DBFS + Math.max(0, step - 1) / STEPS_A_DB;
/** @param {number} step */
const power = step => (step === 0 ? 0 : 10 ** (dbfs(step) / 10));

/** The coarsest level that still has a bin for every column. @param {number} framesAColumn */
function levelFor(framesAColumn) {
  let level = 0;
  while (level + 1 < FRAMES_A_BIN.length && FRAMES_A_BIN[level + 1] <= framesAColumn) {
    level++;
  }
  return level;
}

/**
 * Loads what is needed to draw frames of a sound, and returns a function (from, to) ▸ {peak, average} in dBFS.
 *
 * @param {number} soundId @param {number} fromFrame @param {number} toFrame @param {number} framesAColumn
 * @returns {Promise<(from: number, to: number) => { peak: number, average: number }>}
 */
export async function loadSkyline(soundId, fromFrame, toFrame, framesAColumn) {
  const level = levelFor(framesAColumn);
  const binFrames = FRAMES_A_BIN[level];
  const first = Math.floor(fromFrame / binFrames / TILE_BINS);
  const last = Math.floor(Math.max(fromFrame, toFrame - 1) / binFrames / TILE_BINS);
  const loaded = await Promise.all(Array.from({ length: last - first + 1 }, (_, i) => tile(soundId, level, first + i)));
  return (from, to) => {
    let peak = 0;
    let sum = 0;
    let count = 0;
    const end = Math.max(Math.floor(from / binFrames) + 1, Math.ceil(to / binFrames));
    for (let bin = Math.floor(from / binFrames); bin < end; bin++) {
      const bytes = loaded[Math.floor(bin / TILE_BINS) - first];
      const at = 2 * (bin % TILE_BINS);
      if (bytes && at + 1 < bytes.length) {
        peak = Math.max(peak, bytes[at]);
        sum += power(bytes[at + 1]);
        count++;
      }
    }
    return { peak: dbfs(peak), average: count && sum ? 10 * Math.log10(sum / count) : LOWEST_DBFS };
  };
}
