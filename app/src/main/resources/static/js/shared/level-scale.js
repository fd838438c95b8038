// The scale on which every level is drawn, −48 to 0 dBFS, and how a working level is judged. The limits come from the page:
// the server knows them.

const LOWEST_DBFS = -48;

/** The level of an amplitude; -Infinity for silence. */
export const dbfsOf = amplitude => 20 * Math.log10(amplitude);

/** How high a level stands on the scale, from 0 to 1. */
export const heightOf = dbfs => 1 - Math.max(LOWEST_DBFS, Math.min(0, dbfs)) / LOWEST_DBFS;

export const onScale = dbfs => dbfs >= LOWEST_DBFS;

/** The limits of the working level, in dBFS, from an element's data. */
export const limitsOf = ({ lowCheck, lowGood, highGood, highCheck }) =>
  ({ lowCheck: Number(lowCheck), lowGood: Number(lowGood), highGood: Number(highGood), highCheck: Number(highCheck) });

/** A level's verdict and on which side of the good band it lies. */
export function judge(dbfs, { lowCheck, lowGood, highGood, highCheck }) {
  const side = dbfs > highGood ? 'hot' : dbfs < lowGood ? 'quiet' : 'good';
  const verdict = side === 'good' ? 'good' : dbfs >= lowCheck && dbfs <= highCheck ? 'check' : 'fix';
  return { side, verdict };
}
