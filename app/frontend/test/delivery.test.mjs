import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import 'fake-indexeddb/auto';
import { crc32 } from '../../src/main/resources/static/js/takes/crc32.js';
import { finish, sendFlags } from '../../src/main/resources/static/js/takes/delivery.js';
import { KeptTakes } from '../../src/main/resources/static/js/takes/kept-takes.js';

const take = { takeId: 1, uploadKey: 'k', chunks: 2, frames: 9600 };
const chunk = number => ({ takeId: 1, number, firstFrame: number * 4800, pcm: new Uint8Array([number, 2, 3, 4]).buffer });
const ok = body => ({ ok: true, status: 200, json: async () => body });

let asked;
let answers;
beforeEach(() => {
  asked = [];
  globalThis.fetch = async (address, options) => {
    asked.push(`${options.method} ${address.replace(/&crc32=\d+/, '')}`);
    // as the server does, which has stored what it was sent
    const stored = new Headers({ 'Stored-CRC32': /crc32=(\d+)/.exec(address)?.[1] ?? '' });
    return { headers: stored, ...await answers(address, options) };
  };
});

async function keptWithTwo() {
  const kept = await KeptTakes.open();
  await kept.forget(1);
  await kept.putTake(take);
  await kept.putChunk(chunk(1));
  await kept.putChunk(chunk(0));
  return kept;
}

test('the checksum is that of the standard: its check value for 123456789', () => {
  assert.equal(crc32(new TextEncoder().encode('123456789')), 0xcbf43926);
});

test('what is kept is there again in order when the page is opened anew', async () => {
  await keptWithTwo();
  const again = await KeptTakes.open();
  assert.deepEqual((await again.chunks(1)).map(({ number }) => number), [0, 1]);
  assert.equal((await again.takes()).length, 1);
});

test('a take is sent in order, ended, and only then forgotten', async () => {
  const kept = await keptWithTwo();
  answers = async address => ok(address.endsWith('/end') ? { missing: [] } : {});
  assert.equal(await finish(kept, take, () => {}), false);
  assert.deepEqual(asked, ['PUT /uploads/k/chunks/0?firstFrame=0', 'PUT /uploads/k/chunks/1?firstFrame=4800', 'POST /uploads/k/end']);
  assert.deepEqual(await kept.takes(), []);
});

test('a chunk is dropped here when the server has it, and not before', async () => {
  const kept = await keptWithTwo();
  const left = [];
  let attempts = 0;
  answers = async address => {
    left.push((await kept.chunks(1)).length);
    attempts++;
    if (attempts === 1) {
      throw new TypeError('network');
    }
    return ok(address.endsWith('/end') ? { missing: [] } : {});
  };
  const trouble = [];
  await finish(kept, take, now => trouble.push(now));
  assert.deepEqual(left, [2, 2, 1, 0]);
  assert.equal(trouble[0], true);
  assert.equal(trouble.at(-1), false);
});

test('an answer that is not of who stores chunks is none: a page that says that all is well, or another checksum', async () => {
  const kept = await keptWithTwo();
  const lies = [{ headers: new Headers() }, { headers: new Headers({ 'Stored-CRC32': '1' }) }];
  const left = [];
  answers = async (address, options) => {
    left.push((await kept.chunks(1)).length);
    assert.equal(options.redirect, 'error');
    return { ...ok(address.endsWith('/end') ? { missing: [] } : {}), ...lies.shift() };
  };
  await finish(kept, take, () => {});
  assert.deepEqual(left, [2, 2, 2, 1, 0]);
});

test('what comes too late for a take that its crew has ended stays here', async () => {
  const kept = await keptWithTwo();
  answers = async () => ({ ok: false, status: 409 });
  assert.equal(await finish(kept, take, () => {}), true);
  const [late] = await kept.takes();
  assert.equal(late.tooLate, true);
  assert.equal((await kept.chunks(1)).length, 2);
});

test('of flags only those that the server has are let go', async () => {
  const flagged = { uploadKey: 'k', flags: [10, 20, 30] };
  let count = 0;
  answers = async () => {
    count++;
    return count < 3 ? ok({}) : { ok: false, status: 503 };
  };
  await assert.rejects(sendFlags(flagged));
  assert.deepEqual(flagged.flags, [30]);
});
