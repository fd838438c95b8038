import assert from 'node:assert/strict';
import test from 'node:test';
import { nextReading } from '../../src/main/resources/static/js/shared/level-scale.js';

test('the highest level is held for a second and a half, then falls to what is heard', () => {
  let reading = nextReading(undefined, -12, 0);
  reading = nextReading(reading, -30, 1000);
  assert.deepEqual([reading.level, reading.held, reading.over], [-30, -12, false]);
  reading = nextReading(reading, -30, 1600);
  assert.equal(reading.held, -30);
  assert.equal(nextReading(reading, -6, 1700).held, -6);
});

test('what went over full scale stays said until it is forgotten', () => {
  const over = nextReading(nextReading(undefined, 0.5, 0), -40, 9000);
  assert.equal(over.over, true);
  assert.equal(nextReading(undefined, -40, 9100).over, false);
});
