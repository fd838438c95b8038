// Frames snap to what is near on the screen: edges of clips, flags and the position. Otherwise they go in steps of 10 ms.
import { RATE } from '../shared/time.js';

const STEP = RATE / 100;
const NEAR_PIXELS = 7;

/**
 * @param {number} frame
 * @param {{ rows: any, layout(): import('./layout.js').Layout, timeline(): import('./types.js').TimelineView, position(): number }} bench
 * @param {{ id: number } | null} moving a clip whose own edges do not count
 */
export function snapped(frame, bench, moving = null) {
  const layout = bench.layout();
  const width = bench.rows.all[0]?.sound.clientWidth ?? 1;
  const near = NEAR_PIXELS * layout.rowFrames / width;
  const places = [0, bench.position(), ...bench.timeline().flags.map(flag => flag.frame)];
  for (const track of bench.timeline().tracks) {
    for (const clip of track.clips) {
      if (clip.id !== moving?.id) {
        places.push(clip.startFrame, clip.startFrame + clip.frames);
      }
    }
  }
  const nearest = places.reduce((best, place) => (Math.abs(place - frame) < Math.abs(best - frame) ? place : best), Infinity);
  return Math.abs(nearest - frame) <= near ? nearest : Math.round(frame / STEP) * STEP;
}
