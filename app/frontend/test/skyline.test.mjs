import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { loadSkyline } from '../../src/main/resources/static/js/page/skyline.js';

const TILE_BINS = 4096;
/** As the server stores a level: 0 for silence, else one more than 254/96 steps a dB above −96 dBFS. */
const step = dbfs => Math.round(1 + (dbfs + 96) * 254 / 96);
let asked;
/** @type {(level: number, number: number, bin: number) => [number, number]} peak and average of a bin in steps */
let bins;
globalThis.document = { querySelector: () => null };
beforeEach(() => {
  asked = [];
  globalThis.fetch = async address => {
    asked.push(address);
    const [level, number] = address.split('/').slice(-2).map(Number);
    const bytes = Uint8Array.from({ length: 2 * TILE_BINS }, (_, i) => bins(level, number, i >> 1)[i % 2]);
    return { ok: true, status: 200, arrayBuffer: async () => bytes.buffer };
  };
});

test('a column shows the highest peak and the mean power of its bins', async () => {
  bins = (_level, _number, bin) => (bin === 2 ? [step(-6), step(-20)] : [step(-30), 0]);
  const at = await loadSkyline(1, 0, 1024, 256);
  const { peak, average } = at(0, 1024);
  assert.ok(Math.abs(peak + 6) < 0.4, `${peak}`);
  assert.ok(Math.abs(average - (-20 - 10 * Math.log10(4))) < 0.4, `a quarter of the power: ${average}`);
  assert.ok(Math.abs(at(0, 512).peak + 30) < 0.4, 'without the loud bin');
});

test('silence lies at the foot, and what was never sent is silence', async () => {
  bins = () => [0, 0];
  const at = await loadSkyline(2, 0, 1024, 256);
  assert.deepEqual(at(0, 1024), { peak: -96, average: -96 });
  assert.deepEqual(at(10_000_000, 10_001_000), { peak: -96, average: -96 });
});

test('the coarsest level with a bin for every column is asked for, and only the tiles of the span', async () => {
  bins = () => [1, 1];
  await loadSkyline(3, 0, 100, 255);
  await loadSkyline(3, 5_000_000, 9_000_000, 1024);
  await loadSkyline(3, 0, 100_000_000, 20_000);
  assert.deepEqual(asked, ['/sounds/3/skyline/0/0', '/sounds/3/skyline/1/1', '/sounds/3/skyline/1/2', '/sounds/3/skyline/3/0', '/sounds/3/skyline/3/1']);
});

test('a tile is fetched once, and again when it failed', async () => {
  bins = () => [1, 1];
  await loadSkyline(4, 0, 100, 256);
  await loadSkyline(4, 0, 100, 256);
  assert.equal(asked.length, 1);
  const { fetch } = globalThis;
  globalThis.fetch = async () => { throw new Error('gone'); };
  await assert.rejects(loadSkyline(5, 0, 100, 256));
  globalThis.fetch = fetch;
  await loadSkyline(5, 0, 100, 256);
  assert.equal(asked.length, 2);
});
