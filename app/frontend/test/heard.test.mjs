import assert from 'node:assert/strict';
import { test } from 'node:test';
import { union, without } from '../../src/main/resources/static/js/review/heard.js';

const span = (start, end) => ({ start, end });

test('what was heard twice or in pieces is one stretch', () => {
  assert.deepEqual(union([span(48000, 96000), span(0, 50000), span(200000, 200000), span(150000, 160000)]), [span(0, 96000), span(150000, 160000)]);
});

test('what is left is what was not played', () => {
  assert.deepEqual(without([span(0, 480000)], []), [span(0, 480000)]);
  assert.deepEqual(without([span(0, 480000)], [span(0, 100000), span(300000, 320000)]), [span(100000, 300000), span(320000, 480000)]);
  assert.deepEqual(without([span(0, 100), span(200, 300)], [span(50, 250)]), [span(0, 50), span(250, 300)]);
  assert.deepEqual(without([span(0, 480000)], [span(0, 500000)]), []);
});
