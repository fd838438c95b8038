import assert from 'node:assert/strict';
import { webcrypto } from 'node:crypto';
import { test } from 'node:test';
import 'fake-indexeddb/auto';
import { KeptTakes } from '../../src/main/resources/static/js/takes/kept-takes.js';
import { RecordingTake } from '../../src/main/resources/static/js/takes/recording-take.js';
import { sealedWith } from '../../src/main/resources/static/js/takes/seal.js';

globalThis.crypto ??= webcrypto;
const RATE = 8000;
const KEY = new Uint8Array(32).fill(7);

const begun = { takeId: 7, uploadKey: 'k', episodeId: '1', rate: RATE };
const refused = async () => ({ ok: false, status: 409 });

test('a take that ends where a second ends keeps no empty chunk, which no server would ever take', async context => {
  let now = 0;
  context.mock.method(performance, 'now', () => now);
  const kept = await KeptTakes.open();
  globalThis.fetch = refused;
  const take = new RecordingTake(begun, kept, async chunk => chunk, () => {});
  take.add(new Float32Array(RATE).fill(0.25));
  take.add(new Float32Array(RATE / 2).fill(0.25));
  take.add(new Float32Array(RATE / 2).fill(0.25));
  now += 300;
  take.add(new Float32Array(0));
  const { chunks, frames } = await take.last();
  assert.deepEqual({ chunks, frames }, { chunks: 2, frames: 2 * RATE });
  assert.deepEqual((await kept.chunks(7)).map(({ number, pcm }) => [number, pcm.byteLength]), [[0, 2 * RATE], [1, 2 * RATE]]);
});

test('what is kept of a take is sealed: with the key it is what was said, and without it nothing is known', async () => {
  const kept = await KeptTakes.open();
  await kept.forget(7);
  globalThis.fetch = refused;
  const take = new RecordingTake(begun, kept, await sealedWith(Buffer.from(KEY).toString('base64')), () => {});
  take.add(new Float32Array(RATE).fill(0.25));
  take.add(new Float32Array(100).fill(0.25));
  await take.last();
  const said = [RATE, 100].map(frames => Buffer.from(new Int16Array(frames).fill(8192).buffer));
  const secret = await crypto.subtle.importKey('raw', KEY, 'AES-GCM', false, ['decrypt']);
  const chunks = await kept.chunks(7);
  assert.equal(chunks.length, 2);
  for (const [number, { pcm, sealed }] of chunks.entries()) {
    const bytes = Buffer.from(pcm);
    assert.equal(sealed, true);
    assert.ok(!bytes.includes(said[number].subarray(0, 16)));
    assert.deepEqual(Buffer.from(await crypto.subtle.decrypt({ name: 'AES-GCM', iv: bytes.subarray(0, 12) }, secret, bytes.subarray(12))), said[number]);
  }
  assert.ok(!JSON.stringify(await kept.takes()).includes(Buffer.from(KEY).toString('base64')));
});
