import assert from 'node:assert/strict';
import { test } from 'node:test';
import { written } from '../../src/main/resources/static/js/cleanup/steps.js';

/** A step's card as far as it is read. */
const card = (kind, values, { on = true, percent = 100 } = {}) => ({
  dataset: { kind },
  querySelector: selector => (selector === '[data-on]' ? { checked: on } : { value: String(percent) }),
  querySelectorAll: () => values.map(value => ({ value })),
});

test('a step is written as the server reads it', () => {
  assert.equal(written(card('hum-out', [])), 'hum-out');
  assert.equal(written(card('noise-down', ['12.0'])), 'noise-down:12');
  assert.equal(written(card('tone', ['-1', '0.50', '3'], { percent: 40 })), 'tone:-1/0.5/3@40');
  assert.equal(written(card('low-cut', ['100'], { on: false })), '-low-cut:100');
});
