// What the server's core decides and the page must know to draw and to offer it: fade shapes and limits of gains.

/** @type {{ lowestGainDb: number, highestGainDb: number, lowestCurveDb: number, highestCurveDb: number, fades: { [shape: string]: number[] } }} */
const laws = JSON.parse(/** @type {HTMLElement} */ (document.querySelector('[data-laws]')).dataset.laws ?? '{}');

export const { lowestGainDb, highestGainDb, lowestCurveDb, highestCurveDb } = laws;
/** The shapes that fades have. */
export const fadeShapes = Object.keys(laws.fades);

/** The gain of a fade's shape at a part of it, from 0 (silent) to 1. @param {string} shape @param {number} part */
export function fadeGain(shape, part) {
  const gains = laws.fades[shape];
  return gains[Math.max(0, Math.min(gains.length - 1, Math.floor(part * gains.length)))];
}
