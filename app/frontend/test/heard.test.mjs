import assert from 'node:assert/strict';
import { test } from 'node:test';
import { union, unheard } from '../../src/main/resources/static/js/review/heard.js';

const span = (start, end) => ({ start, end });

test('what was heard twice or in pieces is one stretch', () => {
  assert.deepEqual(union([span(48000, 96000), span(0, 50000), span(200000, 200000), span(150000, 160000)]), [span(0, 96000), span(150000, 160000)]);
});

test('what is left of a sound is told, but not the seams', () => {
  assert.deepEqual(unheard([], 480000), [span(0, 480000)]);
  assert.deepEqual(unheard([span(0, 100000), span(110000, 300000)], 480000), [span(300000, 480000)]);
  assert.deepEqual(unheard([span(10000, 470000)], 480000), []);
  assert.deepEqual(unheard([span(0, 500000)], 480000), [], 'a player that counts a little further');
});
