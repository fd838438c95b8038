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
  const commands = readingCommands({});
  const keys = commands.flatMap(command => command.keys);
  assert.equal(new Set(keys).size, keys.length);
  assert.ok(commands.every(command => command.shown.length === 0 || command.words));
  assert.ok(commands.every(command => typeof command.run === 'function'));
});
