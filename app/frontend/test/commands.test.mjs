import assert from 'node:assert/strict';
import { test } from 'node:test';
import { keyOf, readingCommands } from '../../src/main/resources/static/js/page/commands.js';

const press = (key, { ctrlKey = false, shiftKey = false, metaKey = false } = {}) => ({ key, ctrlKey, shiftKey, metaKey });

test('a key has one name, however its sign is reached', () => {
  assert.equal(keyOf(press('N', { shiftKey: true })), 'n');
  assert.equal(keyOf(press('?', { shiftKey: true })), '?');
  assert.equal(keyOf(press(' ', { shiftKey: true })), 'Shift+ ');
  assert.equal(keyOf(press('Z', { ctrlKey: true, shiftKey: true })), 'Control+Shift+z');
  assert.equal(keyOf(press('z', { metaKey: true })), 'Control+z');
  assert.equal(keyOf(press('ArrowLeft', { shiftKey: true })), 'Shift+ArrowLeft');
});

test('no two commands share a key, and every key of the dialog does something', () => {
  const commands = readingCommands({ selection: {} });
  const keys = commands.flatMap(command => command.keys);
  assert.equal(new Set(keys).size, keys.length);
  assert.ok(commands.every(command => command.shown.length === 0 || command.words));
  assert.ok(commands.every(command => typeof command.run === 'function'));
});

test('marking while listening takes in a second at first, and then what is marked', () => {
  const marked = [];
  const selection = { present: false, start: 0, end: 0, trackIds: new Set([1]), set: (...span) => marked.push(span.slice(0, 2)) };
  const page = { selection, now: () => 96_000, timeline: { frames: 480_000 }, everyTrack: () => [1] };
  const run = name => readingCommands(page).find(command => command.name === name).run();
  run('mark-start');
  run('mark-end');
  Object.assign(selection, { present: true, start: 48_000, end: 240_000 });
  run('mark-start');
  run('mark-end');
  assert.deepEqual(marked, [[96_000, 144_000], [48_000, 96_000], [96_000, 240_000], [48_000, 96_000]]);
});
