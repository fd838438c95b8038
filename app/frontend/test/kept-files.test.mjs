import assert from 'node:assert/strict';
import { afterEach, test } from 'node:test';
import 'fake-indexeddb/auto';
import { forgetFile, keepFile, keptFiles } from '../../src/main/resources/static/js/takes/kept-files.js';

const DAY_MS = 24 * 60 * 60 * 1000;
const { now } = Date;
const file = words => ({ episodeId: '3', file: new Blob([words]), trackName: 'Noor', placing: 'START' });
afterEach(async () => {
  Date.now = now;
  await Promise.all((await keptFiles('3')).map(({ id }) => forgetFile(id)));
});

test('a file that is being sent is there again for its own episode, until it is forgotten', async () => {
  const id = await keepFile(file('one'));
  await keepFile({ ...file('two'), episodeId: '4' });
  assert.deepEqual((await keptFiles('3')).map(entry => [entry.id, entry.trackName]), [[id, 'Noor']]);
  await forgetFile(id);
  assert.deepEqual(await keptFiles('3'), []);
});

test('one that nobody came back for in two weeks is let go', async () => {
  await keepFile(file('old'));
  Date.now = () => now() + 13 * DAY_MS;
  assert.equal((await keptFiles('3')).length, 1);
  Date.now = () => now() + 15 * DAY_MS;
  assert.equal((await keptFiles('3')).length, 0);
  Date.now = now;
  assert.equal((await keptFiles('3')).length, 0, 'it is really gone');
});

test('where there is no storage nothing is kept, and nothing fails', async () => {
  const { indexedDB } = globalThis;
  globalThis.indexedDB = { open() { throw new Error('no storage'); } };
  try {
    assert.equal(await keepFile(file('lost')), null);
    assert.deepEqual(await keptFiles('3'), []);
    await forgetFile(7);
    await forgetFile(null);
  } finally {
    globalThis.indexedDB = indexedDB;
  }
});
