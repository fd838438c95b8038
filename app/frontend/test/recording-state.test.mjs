import assert from 'node:assert/strict';
import { test } from 'node:test';
import { TRANSITIONS, isBusy, isTaking, may, next } from '../../src/main/resources/static/js/takes/recording-state.js';

const after = (...events) => events.reduce(next, 'idle');

test('a take from the first look at the level to the last second on the server', () => {
  assert.equal(after('listen'), 'listening');
  assert.equal(after('listen', 'begin'), 'beginning');
  assert.equal(after('listen', 'begin', 'begun'), 'recording');
  assert.equal(after('listen', 'begin', 'begun', 'end'), 'ending');
  assert.equal(after('listen', 'begin', 'begun', 'end', 'last'), 'sending');
  assert.equal(after('listen', 'begin', 'begun', 'end', 'last', 'sent'), 'idle');
});

test('recording can begin from nothing: the microphone opens while the take begins', () => {
  assert.equal(after('begin', 'listen', 'begun'), 'recording');
});

test('a pause goes on, or ends the take', () => {
  assert.equal(after('begin', 'begun', 'pause'), 'paused');
  assert.equal(after('begin', 'begun', 'pause', 'goOn'), 'recording');
  assert.equal(after('begin', 'begun', 'pause', 'end', 'last'), 'sending');
});

test('a microphone that is gone ends a take, and is closed otherwise', () => {
  assert.equal(after('listen', 'lose'), 'idle');
  assert.equal(after('begin', 'begun', 'lose'), 'ending');
  assert.equal(after('begin', 'begun', 'pause', 'lose'), 'ending');
  assert.equal(after('begin', 'begun', 'last'), 'sending', 'sound that ends by itself');
});

test('what fails leaves the room usable', () => {
  assert.equal(after('listen', 'begin', 'fail'), 'listening');
  assert.equal(after('begin', 'begun', 'end', 'fail'), 'listening');
  assert.equal(after('begin', 'begun', 'last', 'fail'), 'idle');
});

test('a second press while something is on its way does nothing', () => {
  for (const state of ['beginning', 'ending', 'sending']) {
    assert.equal(isBusy(state), true);
    assert.equal(may(state, 'begin'), false);
    assert.equal(may(state, 'end'), false);
    assert.equal(next(state, 'begin'), state);
  }
  assert.equal(isBusy('recording'), false);
});

test('news of another take changes nothing while one is being recorded', () => {
  assert.equal(after('begin', 'begun', 'sent'), 'recording');
});

test('every state can be left, and every transition leads to a state', () => {
  for (const [state, events] of Object.entries(TRANSITIONS)) {
    assert.ok(Object.values(events).some(to => to !== state), state);
    Object.values(events).forEach(to => assert.ok(to in TRANSITIONS, to));
  }
  assert.deepEqual(Object.keys(TRANSITIONS).filter(isTaking), ['recording', 'paused', 'ending']);
});
