// The scale on which every level is drawn, −48 to 0 dBFS, and how a working level is judged. The limits come from the page:
// the server knows them.

const LOWEST_DBFS = -48;
const HOLD_MS = 1500;

/** @typedef {{ lowCheck: number, lowGood: number, highGood: number, highCheck: number }} Limits in dBFS */

/** The level of an amplitude; -Infinity for silence. @param {number} amplitude */
export const dbfsOf = amplitude => 20 * Math.log10(amplitude);

/** How high a level stands on the scale, from 0 to 1. @param {number} dbfs */
export const heightOf = dbfs => 1 - Math.max(LOWEST_DBFS, Math.min(0, dbfs)) / LOWEST_DBFS;

/** @param {number} dbfs */
export const onScale = dbfs => dbfs >= LOWEST_DBFS;

/** The limits of the working level, from an element's data. @param {DOMStringMap} data @returns {Limits} */
export const limitsOf = ({ lowCheck, lowGood, highGood, highCheck }) =>
  ({ lowCheck: Number(lowCheck), lowGood: Number(lowGood), highGood: Number(highGood), highCheck: Number(highCheck) });

/** A level's verdict and on which side of the good band it lies. @param {number} dbfs @param {Limits} limits */
export function judge(dbfs, { lowCheck, lowGood, highGood, highCheck }) {
  const side = dbfs > highGood ? 'hot' : dbfs < lowGood ? 'quiet' : 'good';
  const verdict = side === 'good' ? 'good' : dbfs >= lowCheck && dbfs <= highCheck ? 'check' : 'fix';
  return { side, verdict };
}

/** @typedef {{ level: number, held: number, heldAt: number, over: boolean }} Reading in dBFS */

/** The next reading of a track: its highest level is held for a while, and what went over full scale stays said. @param {Reading | undefined} before @param {number} level @param {number} now in ms @returns {Reading} */
export function nextReading(before, level, now) {
  const holds = before !== undefined && before.held >= level && now - before.heldAt < HOLD_MS;
  return { level, held: holds ? before.held : level, heldAt: holds ? before.heldAt : now, over: level > 0 || before?.over === true };
}
