// Frames at 48 kHz and how they are written. Positions are whole frames everywhere.

export const RATE = 48000;

/** 0:05 */
export function clock(frames) {
  const seconds = Math.floor(frames / RATE);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

/** 0:05.3 or, with two digits, 0:05.32 */
export function fineClock(frames, digits = 1) {
  const scale = 10 ** digits;
  const parts = Math.floor(frames * scale / RATE);
  return `${clock(frames)}.${String(parts % scale).padStart(digits, '0')}`;
}
