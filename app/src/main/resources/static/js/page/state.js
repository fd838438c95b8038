// What the page of rows knows: what it shows, where the position is, what is selected or chosen. One value, which never changes:
// each function here gives the next one.
import { RATE } from '../shared/time.js';
import { ROW_SECONDS } from './layout.js';
import { closest, closestEnd, mapAt } from './time-map.js';

/** A span, from its anchor in either direction, and the tracks it is on. @typedef {{ anchor: number, start: number, end: number, trackIds: readonly number[] }} Selection */
/**
 * @typedef {object} State
 * @property {import('./types.js').TimelineView | null} timeline what is shown; null until it is there
 * @property {number} position  a frame
 * @property {number} playingTo where what plays, or played last, ends
 * @property {Selection | null} selection
 * @property {number | null} chosenClip never together with a selection
 * @property {number | null} rowSeconds chosen by hand; null for as the window wants
 */
/** @typedef {(state: State) => State} Change */

/** @param {number | null} rowSeconds @returns {State} */
export const beginning = rowSeconds => ({ timeline: null, position: 0, playingTo: 0, selection: null, chosenClip: null, rowSeconds });

/** @param {State} state */
const length = ({ timeline }) => timeline?.frames ?? 0;

/** @param {State} state @param {number} frame */
const inside = (state, frame) => Math.max(0, Math.min(length(state), frame));

/** @param {State} state */
export const everyTrack = ({ timeline }) => timeline?.tracks.map(track => track.id) ?? [];

/** The tracks that are cut as one with a track. @param {State} state @param {number} trackId */
export function tiedTracks({ timeline }, trackId) {
  const tracks = timeline?.tracks ?? [];
  const group = tracks.find(track => track.id === trackId)?.group;
  return tracks.filter(track => group === undefined || track.group === group).map(track => track.id);
}

/** The chosen clip and its track. @param {State} state */
export function chosen({ timeline, chosenClip }) {
  for (const track of timeline?.tracks ?? []) {
    const clip = track.clips.find(each => each.id === chosenClip);
    if (clip) {
      return { track, clip };
    }
  }
  return null;
}

/** Another timeline is shown: what stood outside it comes inside or is let go. @param {import('./types.js').TimelineView} timeline @returns {Change} */
export const show = timeline => state => {
  const next = { ...state, timeline };
  return {
    ...next,
    position: inside(next, state.position),
    selection: state.selection && state.selection.end <= timeline.frames ? state.selection : null,
    chosenClip: chosen(next) ? state.chosenClip : null,
  };
};

/**
 * Everything that stands at a time goes where that time has gone: the selection by its first track, so that it means the same words.
 *
 * @param {import('./types.js').Maps} maps @param {import('./types.js').TrackView[]} tracks as they were @param {number} now what can be heard
 * @returns {Change}
 */
export const moveBy = (maps, tracks, now) => state => {
  const map = mapAt(maps, tracks, now);
  return { ...state, position: closest(map, now), playingTo: closestEnd(map, state.playingTo), selection: state.selection && moved(state.selection, maps) };
};

/** @param {Selection} selection @param {import('./types.js').Maps} maps @returns {Selection | null} */
function moved(selection, maps) {
  const map = maps[selection.trackIds[0]];
  const start = closest(map, selection.start);
  const end = closestEnd(map, selection.end);
  return end > start ? { ...selection, start, end, anchor: closest(map, selection.anchor) } : null;
}

/** @param {number} position @returns {Change} */
export const goTo = position => state => ({ ...state, position: inside(state, position) });

/** @param {number} position @param {number} playingTo @returns {Change} */
export const play = (position, playingTo) => state => ({ ...state, position, playingTo });

// ---- selecting

/** From an anchor to a frame, in either direction; what is empty is let go. @param {number} anchor @param {number} frame @param {Iterable<number>} trackIds @returns {Change} */
export const select = (anchor, frame, trackIds) => state => {
  const start = inside(state, Math.min(anchor, frame));
  const end = inside(state, Math.max(anchor, frame));
  return { ...state, selection: end > start ? { anchor, start, end, trackIds: [...trackIds] } : null, chosenClip: null };
};

/** @type {Change} */
export const selectAll = state => select(0, length(state), everyTrack(state))(state);

/** @type {Change} */
export const letGo = state => ({ ...state, selection: null, chosenClip: null });

/** Lets a selection go, unless another has been made since. @param {Selection | null} selection @returns {Change} */
export const letGoOf = selection => state => (state.selection === selection ? letGo(state) : state);

/** A clip is chosen, or none. @param {number | null} clipId @returns {Change} */
export const choose = clipId => state => ({ ...state, selection: clipId === null ? state.selection : null, chosenClip: clipId });

/** A second from here on, until its end is marked too. @param {number} now @returns {Change} */
export const markStart = now => state => {
  const { selection } = state;
  return select(now, selection && selection.end > now ? selection.end : now + RATE, selection?.trackIds ?? everyTrack(state))(state);
};

/** @param {number} now @returns {Change} */
export const markEnd = now => state => {
  const { selection } = state;
  return select(selection && selection.start < now ? selection.start : now - RATE, now, selection?.trackIds ?? everyTrack(state))(state);
};

/** Moves the position. @param {number} now @param {number} frames @returns {Change} */
export const nudge = (now, frames) => state => goTo(now + frames)(state);

/** Moves one edge of the selection, up to the other one. @param {'start' | 'end'} edge @param {number} frames @returns {Change} */
export const nudgeEdge = (edge, frames) => state => (state.selection ? moveEdge(edge, state.selection[edge] + frames)(state) : state);

/** @param {'start' | 'end'} edge @param {number} frame @returns {Change} */
export const moveEdge = (edge, frame) => state => {
  const { selection } = state;
  const next = selection && { ...selection, [edge]: inside(state, frame) };
  return next && next.end > next.start ? { ...state, selection: { ...next, anchor: edge === 'start' ? next.end : next.start } } : state;
};

/** A track comes into the selection or leaves it. @param {number} trackId @param {boolean} on @returns {Change} */
export const tick = (trackId, on) => state => {
  const { selection } = state;
  const others = selection?.trackIds.filter(each => each !== trackId) ?? [];
  return selection ? { ...state, selection: { ...selection, trackIds: on ? [...others, trackId] : others } } : state;
};

// ---- looking

/** @param {number} shown seconds a row that are shown now @returns {Change} */
export const closer = shown => state => ({ ...state, rowSeconds: ROW_SECONDS.filter(seconds => seconds < shown).pop() ?? ROW_SECONDS[0] });

/** @param {number} shown seconds a row that are shown now @returns {Change} */
export const further = shown => state => ({ ...state, rowSeconds: ROW_SECONDS.find(seconds => seconds > shown) ?? ROW_SECONDS[ROW_SECONDS.length - 1] });

/** As the window wants: the whole episode, as close as it fits. @type {Change} */
export const whole = state => ({ ...state, rowSeconds: null });
