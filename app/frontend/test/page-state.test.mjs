import assert from 'node:assert/strict';
import { test } from 'node:test';
import {
  beginning, choose, chosen, closer, everyTrack, further, goTo, letGo, markEnd, markStart, moveBy, moveEdge, nudge, nudgeEdge, play, select, selectAll, show, tick, tiedTracks, whole,
} from '../../src/main/resources/static/js/page/state.js';

const FOREVER = 2 ** 61;
const clip = (id, startFrame, frames) => ({ id, startFrame, frames });
const tracks = [
  { id: 7, group: 1, clips: [clip(70, 0, 300_000), clip(71, 300_000, 180_000)] },
  { id: 8, group: 1, clips: [clip(80, 0, 480_000)] },
  { id: 9, group: 2, clips: [] },
];
const timeline = { revision: 5, frames: 480_000, tracks, flags: [] };
const page = show(timeline)(beginning(null));
/** One change after the other. */
const after = (...changes) => changes.reduce((state, change) => change(state), page);
const span = ({ selection }) => selection && [selection.start, selection.end];

test('no change touches the state that it is made of', () => {
  const frozen = Object.freeze({ ...after(select(1_000, 2_000, [7])) });
  Object.freeze(frozen.selection);
  for (const change of [letGo, selectAll, choose(70), nudge(1_000, 480), tick(8, true), goTo(5), play(0, 9), show(timeline), whole, moveBy({}, tracks, 0)]) {
    assert.doesNotThrow(() => change(frozen));
  }
});

test('what is selected runs from its anchor in either direction, inside the episode', () => {
  assert.deepEqual(after(select(96_000, 48_000, [7])).selection, { anchor: 96_000, start: 48_000, end: 96_000, trackIds: [7] });
  assert.deepEqual(span(after(select(400_000, 900_000, [7]))), [400_000, 480_000]);
  assert.equal(after(select(48_000, 48_000, [7])).selection, null, 'what is empty is none');
  assert.deepEqual(after(selectAll).selection, { anchor: 0, start: 0, end: 480_000, trackIds: [7, 8, 9] });
});

test('a clip is never chosen together with a selection', () => {
  const clipChosen = after(select(0, 100, [7]), choose(71));
  assert.equal(clipChosen.selection, null);
  assert.equal(chosen(clipChosen).track.id, 7);
  assert.equal(chosen(clipChosen).clip.startFrame, 300_000);
  assert.equal(select(0, 100, [7])(clipChosen).chosenClip, null);
  assert.equal(letGo(clipChosen).chosenClip, null);
  assert.deepEqual(span(after(select(0, 100, [7]), choose(null))), [0, 100], 'choosing none keeps what is selected');
});

test('a selection means the same words after somebody else has cut before it', () => {
  /** 10,000 to 106,000 taken out. */
  const removed = [[0, 10_000, 0], [106_000, FOREVER, 10_000]];
  const moved = after(select(192_000, 240_000, [7]), moveBy({ 7: removed }, tracks, 0));
  assert.deepEqual(moved.selection, { anchor: 96_000, start: 96_000, end: 144_000, trackIds: [7] });
  assert.deepEqual(span(moveBy({ 8: removed }, tracks, 0)(moved)), [96_000, 144_000], 'another track is not its own');
  assert.equal(after(select(20_000, 30_000, [7]), moveBy({ 7: removed }, tracks, 0)).selection, null, 'its words are gone');
});

test('position and the end of what plays move with what is heard', () => {
  const restored = [[0, 10_000, 0], [10_000, FOREVER, 106_000]];
  const moved = after(play(20_000, 480_000), moveBy({ 7: restored, 8: restored }, tracks, 30_000));
  assert.equal(moved.position, 126_000, 'from what can be heard now');
  assert.equal(moved.playingTo, 576_000);
});

test('a shorter timeline lets go of what lies outside it', () => {
  const shorter = { ...timeline, frames: 200_000, tracks: [{ ...tracks[0], clips: [clip(70, 0, 200_000)] }] };
  const shown = after(goTo(400_000), select(150_000, 250_000, [7]), show(shorter));
  assert.equal(shown.position, 200_000);
  assert.equal(shown.selection, null);
  assert.equal(after(choose(71), show(shorter)).chosenClip, null);
  assert.equal(after(choose(70), show(shorter)).chosenClip, 70);
});

test('an edge moves on its own, up to the other one, and the ribbon does not', () => {
  const selected = after(goTo(5), select(48_000, 96_000, [7]));
  assert.deepEqual(span(nudgeEdge('start', -480)(selected)), [47_520, 96_000]);
  assert.deepEqual(span(nudgeEdge('end', 480)(selected)), [48_000, 96_480]);
  assert.equal(nudgeEdge('end', 480)(selected).position, 5);
  assert.deepEqual(span(nudgeEdge('start', 60_000)(selected)), [48_000, 96_000], 'never over the other');
  assert.deepEqual(span(nudgeEdge('end', 1_000_000)(selected)), [48_000, 480_000], 'held at the end');
  assert.deepEqual(span(moveEdge('end', 60_000)(selected)), [48_000, 60_000]);
  assert.equal(after(nudgeEdge('end', 480)).selection, null);
});

test('the arrows move the ribbon, whether something is selected or not', () => {
  assert.equal(after(nudge(9_600, 480)).position, 10_080);
  assert.equal(after(nudge(200, -480)).position, 0);
  const selected = after(select(48_000, 96_000, [7]), nudge(9_600, 480));
  assert.equal(selected.position, 10_080);
  assert.deepEqual(span(selected), [48_000, 96_000]);
});

test('marking while listening takes in a second at first, and then what is marked', () => {
  assert.deepEqual(span(after(markStart(96_000))), [96_000, 144_000]);
  assert.deepEqual(span(after(markEnd(96_000))), [48_000, 96_000]);
  assert.deepEqual(after(markStart(96_000)).selection.trackIds, [7, 8, 9], 'on every track');
  const marked = after(select(48_000, 240_000, [8]));
  assert.deepEqual(span(markStart(96_000)(marked)), [96_000, 240_000]);
  assert.deepEqual(span(markEnd(96_000)(marked)), [48_000, 96_000]);
  assert.deepEqual(span(markStart(300_000)(marked)), [300_000, 348_000], 'behind its end another one begins');
  assert.deepEqual(markStart(96_000)(marked).selection.trackIds, [8]);
});

test('tracks come into a selection and leave it', () => {
  const selected = after(select(0, 100, [7]));
  assert.deepEqual(tick(8, true)(selected).selection.trackIds, [7, 8]);
  assert.deepEqual(tick(7, true)(selected).selection.trackIds, [7], 'once');
  assert.deepEqual(tick(7, false)(selected).selection.trackIds, []);
  assert.equal(tick(8, true)(page), page, 'without a selection there is nothing to come into');
});

test('tracks of one group are cut as one', () => {
  assert.deepEqual(tiedTracks(page, 8), [7, 8]);
  assert.deepEqual(tiedTracks(page, 9), [9]);
  assert.deepEqual(everyTrack(beginning(null)), []);
});

test('closer and further go from what is shown to the next length of row, and stop at the last', () => {
  assert.equal(closer(8)(page).rowSeconds < 8, true);
  assert.equal(further(8)(page).rowSeconds > 8, true);
  const ends = [closer(0.001)(page).rowSeconds, further(10_000)(page).rowSeconds];
  assert.equal(ends[0] < ends[1], true);
  assert.equal(whole(further(8)(page)).rowSeconds, null);
});
