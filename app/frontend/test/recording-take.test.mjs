import assert from 'node:assert/strict';
import { test } from 'node:test';
import 'fake-indexeddb/auto';
import { KeptTakes } from '../../src/main/resources/static/js/takes/kept-takes.js';
import { RecordingTake } from '../../src/main/resources/static/js/takes/recording-take.js';

const RATE = 8000;

test('a take that ends where a second ends keeps no empty chunk, which no server would ever take', async context => {
  let now = 0;
  context.mock.method(performance, 'now', () => now);
  const kept = await KeptTakes.open();
  globalThis.fetch = async () => ({ ok: false, status: 409 });
  const take = new RecordingTake({ takeId: 7, uploadKey: 'k', episodeId: '1', trackName: 'Noor', rate: RATE }, kept, () => {});
  take.add(new Float32Array(RATE).fill(0.25));
  take.add(new Float32Array(RATE / 2).fill(0.25));
  take.add(new Float32Array(RATE / 2).fill(0.25));
  now += 300;
  take.add(new Float32Array(0));
  const { chunks, frames } = await take.last();
  assert.deepEqual({ chunks, frames }, { chunks: 2, frames: 2 * RATE });
  assert.deepEqual((await kept.chunks(7)).map(({ number, pcm }) => [number, pcm.byteLength]), [[0, 2 * RATE], [1, 2 * RATE]]);
});
