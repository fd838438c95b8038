import assert from 'node:assert/strict';
import { test } from 'node:test';
import { earlierFrame, equalVolumes } from '../../src/main/resources/static/js/review/earlier-one.js';

const STRETCHES = [{ startFrame: 0, endFrame: 100, wasFrame: 0 }, { startFrame: 100, endFrame: 200, wasFrame: 500 }, { startFrame: 300, endFrame: 400, wasFrame: 250 }];

test('a frame is led to where its words were said before, and to nowhere where they were not', () => {
  assert.equal(earlierFrame(STRETCHES, 0), 0);
  assert.equal(earlierFrame(STRETCHES, 99), 99);
  assert.equal(earlierFrame(STRETCHES, 100), 500);
  assert.equal(earlierFrame(STRETCHES, 250), null);
  assert.equal(earlierFrame(STRETCHES, 399), 349);
  assert.equal(earlierFrame(STRETCHES, 400), null);
});

test('both are as loud as the softer one: 6.02 dB are half the amplitude', () => {
  const louder = equalVolumes(-16, -22.0206);
  assert.ok(Math.abs(louder.now - 0.5) < 1e-4);
  assert.equal(louder.earlier, 1);
  const softer = equalVolumes(-22.0206, -16);
  assert.equal(softer.now, 1);
  assert.ok(Math.abs(softer.earlier - 0.5) < 1e-4);
  assert.deepEqual(equalVolumes(null, -16), { now: 1, earlier: 1 });
});
