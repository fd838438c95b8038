import assert from 'node:assert/strict';
import { test } from 'node:test';
import { byKeys, keyOf, readingCommands } from '../../src/main/resources/static/js/page/commands.js';

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

test('a key that a person has chosen takes the place of the command’s own', () => {
  const commands = [{ name: 'remove', keys: ['4'] }, { name: 'blank', keys: ['5', 'b'] }];
  const keys = byKeys(commands, { blank: 'x' });
  assert.equal(keys.get('4').name, 'remove');
  assert.equal(keys.get('x').name, 'blank');
  assert.equal(keys.has('5'), false);
  assert.equal(keys.has('b'), false);
});
