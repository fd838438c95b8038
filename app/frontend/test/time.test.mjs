import assert from 'node:assert/strict';
import { test } from 'node:test';
import { RATE, clock, fineClock, framesOf } from '../../src/main/resources/static/js/shared/time.js';
import { heightOf, judge } from '../../src/main/resources/static/js/shared/level-scale.js';

test('frames are written as minutes and seconds', () => {
  assert.equal(clock(0), '0:00');
  assert.equal(clock(65 * RATE + 47_999), '1:05');
  assert.equal(fineClock(18.35 * RATE, 2), '0:18.35');
  assert.equal(fineClock(RATE - 1), '0:00.9', 'never rounded up into a second that has not come');
});

test('times as people write them become frames, anything else becomes none', () => {
  assert.equal(framesOf('1:05.32'), 3_135_360);
  assert.equal(framesOf(' 65,3 '), 3_134_400);
  assert.equal(framesOf('0:00.001'), 48);
  for (const wrong of ['', '1:2:3', '-1', 'soon', '1.2345']) {
    assert.equal(framesOf(wrong), null, wrong);
  }
});

test('a level is judged at the exact limits', () => {
  const limits = { lowCheck: -36, lowGood: -24, highGood: -6, highCheck: -3 };
  assert.deepEqual(judge(-24, limits), { side: 'good', verdict: 'good' });
  assert.deepEqual(judge(-24.01, limits), { side: 'quiet', verdict: 'check' });
  assert.deepEqual(judge(-36, limits), { side: 'quiet', verdict: 'check' });
  assert.deepEqual(judge(-36.01, limits), { side: 'quiet', verdict: 'fix' });
  assert.deepEqual(judge(-6, limits), { side: 'good', verdict: 'good' });
  assert.deepEqual(judge(-3, limits), { side: 'hot', verdict: 'check' });
  assert.deepEqual(judge(-2.99, limits), { side: 'hot', verdict: 'fix' });
  assert.equal(heightOf(-48), 0);
  assert.equal(heightOf(-100), 0);
  assert.equal(heightOf(0), 1);
  assert.equal(heightOf(-24), 0.5);
});
