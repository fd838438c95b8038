// Brings a take's kept chunks to the server, one after the other, however long the network is gone, and ends the take.
import { crc32 } from './crc32.js';

const RETRY_MS = [500, 1000, 2000, 4000];
const PATIENCE_MS = 20_000;
const NOT_ANY_MORE = [404, 409];

/** @typedef {import('./kept-takes.js').Take} Take */
/** @typedef {import('./kept-takes.js').Chunk} Chunk */
/** @typedef {import('./kept-takes.js').KeptTakes} KeptTakes */
/** @typedef {(trouble: boolean) => void} OnTrouble */

/** A refusal that no other try will change. */
export class Ended extends Error {}

/** @param {string} address @param {RequestInit} options */
async function ask(address, options) {
  const response = await fetch(address, { ...options, redirect: 'error', credentials: 'omit', signal: AbortSignal.timeout(PATIENCE_MS) });
  if (NOT_ANY_MORE.includes(response.status)) {
    throw new Ended();
  }
  if (!response.ok) {
    throw new Error(`answer ${response.status}`);
  }
  return response;
}

/**
 * Tries until it works: a lost network, a server that is starting, a chunk that was damaged on its way.
 *
 * @template T
 * @param {() => Promise<T>} act
 * @param {OnTrouble} onTrouble
 * @returns {Promise<T>}
 */
async function untilItWorks(act, onTrouble) {
  for (let attempt = 0; ; attempt++) {
    try {
      const result = await act();
      onTrouble(false);
      return result;
    } catch (problem) {
      if (problem instanceof Ended) {
        throw problem;
      }
      onTrouble(true);
      await new Promise(resolve => { setTimeout(resolve, RETRY_MS[Math.min(attempt, RETRY_MS.length - 1)]); });
    }
  }
}

/** Sends a chunk until the server has it, then drops it here. @param {KeptTakes} kept @param {Take} take @param {Chunk} chunk @param {OnTrouble} onTrouble */
export async function sendChunk(kept, take, chunk, onTrouble) {
  const bytes = new Uint8Array(chunk.pcm);
  const address = `/uploads/${take.uploadKey}/chunks/${chunk.number}?firstFrame=${chunk.firstFrame}&crc32=${crc32(bytes)}${chunk.sealed ? '&sealed=true' : ''}`;
  const headers = { 'Content-Type': 'application/octet-stream' };
  await untilItWorks(async () => {
    const response = await ask(address, { method: 'PUT', headers, body: bytes });
    // any page can say that all is well; who has stored the chunk knows what is in it
    if (response.headers.get('Stored-CRC32') !== String(crc32(bytes))) {
      throw new Error('not stored');
    }
  }, onTrouble);
  await kept.dropChunk(take.takeId, chunk.number);
}

/** Sends the flags of a take that the server does not have, the oldest first; fails while the network is gone. @param {Take} take */
export async function sendFlags(take) {
  while (take.flags && take.flags.length > 0) {
    await ask(`/uploads/${take.uploadKey}/flags/${take.flags[0]}`, { method: 'PUT' });
    take.flags.shift();
  }
}

/** A sign of life, as long as there is nothing to send. Not worth a second try. @param {Take} take */
export function sign(take) {
  return ask(`/uploads/${take.uploadKey}/sign`, { method: 'POST' }).catch(() => {});
}

/**
 * Sends what is kept of a take that is recorded to its end, ends it, and forgets it. If somebody of the crew has ended it
 * before everything had come, the rest stays here until it has become a take of its own; returns whether that is so.
 *
 * @param {KeptTakes} kept @param {Take} take @param {OnTrouble} onTrouble
 */
export async function finish(kept, take, onTrouble) {
  /** @param {boolean} evenWithGaps */
  const body = evenWithGaps => JSON.stringify({ chunks: take.chunks, frames: take.frames, evenWithGaps });
  /** @param {boolean} evenWithGaps */
  const end = evenWithGaps => untilItWorks(() => ask(`/uploads/${take.uploadKey}/end`,
    { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: body(evenWithGaps) }), onTrouble);
  let sent = false;
  try {
    for (const chunk of await kept.chunks(take.takeId)) {
      await sendChunk(kept, take, chunk, onTrouble);
    }
    await untilItWorks(() => sendFlags(take), onTrouble);
    sent = true;
    const { missing } = await (await end(false)).json();
    if (missing.length > 0) {
      // what this laptop does not have any more will not come
      await end(true);
    }
  } catch (problem) {
    if (!(problem instanceof Ended)) {
      throw problem;
    }
    if (!sent) {
      await kept.putTake({ ...take, tooLate: true, restAskedAt: Date.now() });
      return true;
    }
    // the server has ended it already: by this very call, whose answer was lost
  }
  await kept.forget(take.takeId);
  return false;
}
