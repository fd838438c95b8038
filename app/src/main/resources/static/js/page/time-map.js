// Where times have gone: for each track that has moved, pieces [fromFrame, toFrame, newFrame] of old frames that are still there.
// A track that is missing has kept its time. The server alone makes these maps.

/** @typedef {import('./types.js').Pieces} Pieces */

/** @param {Pieces} pieces @param {number} frame */
const pieceWith = (pieces, frame) => pieces.find(([from, to]) => frame >= from && frame < to);

/** Where an old position is now; one that is gone moves to where the gap has closed. @param {Pieces | undefined} pieces @param {number} frame */
export function closest(pieces, frame) {
  if (!pieces) {
    return frame;
  }
  const next = pieces.find(([, to]) => frame < to);
  return next ? Math.max(frame, next[0]) - next[0] + next[2] : 0;
}

/** Where the end of an old span is now: behind its last frame that is left. @param {Pieces | undefined} pieces @param {number} frame */
export function closestEnd(pieces, frame) {
  const last = pieces && frame > 0 ? pieceWith(pieces, frame - 1) : null;
  return last ? frame - last[0] + last[2] : closest(pieces, frame);
}

/**
 * The map that moves what belongs to no track: that of the first track with sound at a frame, else that of any that moved.
 *
 * @param {import('./types.js').Maps} maps
 * @param {{ id: number, clips: { startFrame: number, frames: number }[] }[]} tracks
 * @param {number} frame
 */
export function mapAt(maps, tracks, frame) {
  const heard = tracks.find(({ clips }) => clips.some(clip => clip.startFrame <= frame && frame < clip.startFrame + clip.frames));
  return heard ? maps[heard.id] : Object.values(maps)[0];
}
