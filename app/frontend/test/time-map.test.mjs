import assert from 'node:assert/strict';
import { test } from 'node:test';
import { closest, closestEnd, mapAt } from '../../src/main/resources/static/js/page/time-map.js';

const FOREVER = 2 ** 61;
/** 10,000 to 106,000 taken out. */
const removed = [[0, 10_000, 0], [106_000, FOREVER, 10_000]];
/** And put in again. */
const restored = [[0, 10_000, 0], [10_000, FOREVER, 106_000]];

test('a position goes where its time has gone', () => {
  assert.equal(closest(removed, 5_000), 5_000);
  assert.equal(closest(removed, 192_000), 96_000);
  assert.equal(closest(removed, 50_000), 10_000, 'what is gone moves to where the gap has closed');
  assert.equal(closest(restored, 96_000), 192_000);
  assert.equal(closest(undefined, 77), 77, 'a track that is missing has kept its time');
});

test('the end of a span stays behind its last frame that is left', () => {
  assert.equal(closestEnd(removed, 10_000), 10_000);
  assert.equal(closestEnd(removed, 106_000), 10_000);
  assert.equal(closestEnd(removed, 200_000), 104_000);
  assert.equal(closestEnd(restored, 10_000), 10_000, 'what comes back behind it does not come into it');
});

test('what belongs to no track moves with the first track that is heard there', () => {
  const tracks = [{ id: 1, clips: [{ startFrame: 0, frames: 100 }] }, { id: 2, clips: [{ startFrame: 100, frames: 100 }] }];
  const maps = { 1: 'of one', 2: 'of two' };
  assert.equal(mapAt(maps, tracks, 50), 'of one');
  assert.equal(mapAt(maps, tracks, 150), 'of two');
  assert.equal(mapAt(maps, tracks, 500), 'of one');
});
