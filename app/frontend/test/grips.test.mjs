import assert from 'node:assert/strict';
import { test } from 'node:test';
import { placeOf, spanFor, wishFor } from '../../src/main/resources/static/js/bench/grips.js';

const clip = { id: 7, startFrame: 1_000, frames: 500, fadeIn: { frames: 100, shape: 'GENTLE' }, fadeOut: { frames: 50, shape: 'STRAIGHT' } };

test('each grip stands at what it moves', () => {
  assert.deepEqual(['start', 'fade-in', 'move', 'fade-out', 'end'].map(grip => placeOf(grip, clip)), [1_000, 1_100, 1_000, 1_450, 1_500]);
});

test('what a grip asks for is the edit of its clip, and never before the start of the page', () => {
  assert.deepEqual(wishFor('move', clip, 3, -5), { type: 'move', clipId: 7, trackId: 3, startFrame: 0 });
  assert.deepEqual(wishFor('end', clip, 3, 1_400), { type: 'trim', clipId: 7, edge: 'END', frame: 1_400 });
  assert.deepEqual(wishFor('fade-in', clip, 3, 1_250), { type: 'set-fade', clipId: 7, edge: 'START', frames: 250, shape: 'GENTLE' });
  assert.equal(wishFor('fade-in', clip, 3, 900).frames, 0);
  assert.equal(wishFor('fade-out', clip, 3, 1_300).frames, 200);
});

test('what is outlined is what the clip, or its fade, would cover', () => {
  assert.deepEqual(spanFor('move', clip, 2_000), [2_000, 2_500]);
  assert.deepEqual(spanFor('start', clip, 1_200), [1_200, 1_500]);
  assert.deepEqual(spanFor('fade-out', clip, 1_300), [1_300, 1_500]);
});
