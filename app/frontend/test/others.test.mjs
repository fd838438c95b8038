import assert from 'node:assert/strict';
import test from 'node:test';
import { othersInWords } from '../../src/main/resources/static/js/bench/others.js';

test('who is here is said with the first name and the time of the row', () => {
  assert.equal(othersInWords([]), '');
  assert.equal(othersInWords([{ personId: 1, name: 'Noor', frame: 12 * 48_000 }, { personId: 2, name: 'Bartholomew Quicksilver', frame: 60 * 48_000 }]),
    'Noor is here too, at 0:12. Bartholomew is here too, at 1:00.');
});
