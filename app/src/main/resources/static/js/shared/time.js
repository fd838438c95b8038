// Frames at 48 kHz and how they are written. Positions are whole frames everywhere.

export const RATE = 48000;

/** 0:05 @param {number} frames */
export function clock(frames) {
  const seconds = Math.floor(frames / RATE);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

/**
 * The frames of a time as people write it (1:05.32, 65.3); null if it is none.
 *
 * @param {string} text
 */
export function framesOf(text) {
  const parts = /^\s*(?:(\d+):)?(\d+)(?:[.,](\d{1,3}))?\s*$/.exec(text);
  if (!parts) {
    return null;
  }
  const millis = Number((parts[3] ?? '0').padEnd(3, '0'));
  return (Number(parts[1] ?? 0) * 60 + Number(parts[2])) * RATE + millis * RATE / 1000;
}

/** How long something is: 3.25 s, or 12 ms @param {number} frames */
export function lasting(frames) {
  return frames < RATE / 10 ? `${Math.max(1, Math.round(frames * 1000 / RATE))} ms` : `${(frames / RATE).toFixed(2)} s`;
}

/** 0:05.3 or, with two digits, 0:05.32 @param {number} frames */
export function fineClock(frames, digits = 1) {
  const scale = 10 ** digits;
  const parts = Math.floor(frames * scale / RATE);
  return `${clock(frames)}.${String(parts % scale).padStart(digits, '0')}`;
}
