// A take that is being recorded: cut into chunks of a second, which are kept until the server has them.
import { Ended, sendChunk, sendFlags, sign } from './delivery.js';

export const GROWING_MS = 250;
const SIGN_MS = 20_000;

/** @typedef {import('./kept-takes.js').Take} Take */
/** @typedef {import('./kept-takes.js').Chunk} Chunk */
/** @typedef {import('./kept-takes.js').KeptTakes} KeptTakes */

export class RecordingTake {
  #kept;
  #sealed;
  #tell;
  /** @type {Float32Array[]} */
  #samples = [];
  #waiting = 0;
  #keptAt = 0;
  /** @type {Set<number>} */
  #unsent = new Set();
  /** @type {Promise<unknown>} */
  #keeping = Promise.resolve();
  /** @type {Promise<unknown>} */
  #sending = Promise.resolve();

  /**
   * @param {import('./kept-takes.js').BegunTake} take @param {KeptTakes} kept @param {(chunk: Chunk) => Promise<Chunk>} sealed seals what is kept
   * @param {(message: import('./sending.js').Message) => void} tell
   */
  constructor(take, kept, sealed, tell) {
    this.#kept = kept;
    this.#sealed = sealed;
    this.#tell = tell;
    /** @type {Take} */
    this.take = { ...take, chunks: 0, frames: 0, flags: [] };
    this.#keeping = this.#kept.putTake(this.take);
    this.signing = setInterval(() => this.#unsent.size === 0 && sign(this.take), SIGN_MS);
  }

  get unsentSeconds() {
    return this.#unsent.size + this.#waiting / this.take.rate;
  }

  /** @param {Float32Array} samples */
  add(samples) {
    this.#samples.push(samples);
    this.#waiting += samples.length;
    const now = performance.now();
    if (this.#waiting >= this.take.rate) {
      this.#cut();
    } else if (this.#waiting > 0 && now - this.#keptAt > GROWING_MS) {
      this.#keptAt = now;
      this.#keep(this.#sealed(this.#chunk()), this.take.frames + this.#waiting, this.take.chunks + 1);
    }
    this.#tellState();
  }

  /** Keeps a flag; it is sent now, or with what follows. @param {number} frame */
  flag(frame) {
    this.take.flags.push(frame);
    this.#keeping = this.#keeping.then(() => this.#kept.putTake({ ...this.take }));
    this.#sending = this.#sending.then(() => sendFlags(this.take)).catch(() => {});
  }

  /** Cuts what is left; resolves when everything has been kept. */
  async last() {
    if (this.#waiting > 0) {
      this.#cut();
    }
    clearInterval(this.signing);
    await this.#keeping;
    await this.#sending;
    return { ...this.take };
  }

  #chunk() {
    const pcm = new Int16Array(this.#waiting);
    let at = 0;
    for (const samples of this.#samples) {
      for (const sample of samples) {
        pcm[at++] = Math.max(-32768, Math.min(32767, Math.round(sample * 32768)));
      }
    }
    return { takeId: this.take.takeId, number: this.take.chunks, firstFrame: this.take.frames, pcm: pcm.buffer };
  }

  #cut() {
    const open = this.#chunk();
    const chunk = this.#sealed(open);
    this.take.frames += this.#waiting;
    this.take.chunks++;
    this.#samples = [];
    this.#waiting = 0;
    this.#unsent.add(open.number);
    this.#keep(chunk, this.take.frames, this.take.chunks);
    this.#sending = this.#sending.then(() => this.#keeping).then(async () => sendChunk(this.#kept, this.take, await chunk, trouble => this.#tell({ type: 'trouble', trouble }))).catch(problem => {
      // a take that was ended elsewhere: what is left stays kept here, and finish() says so
      if (!(problem instanceof Ended)) {
        throw problem;
      }
    }).then(() => {
      this.#unsent.delete(open.number);
      this.#tellState();
    });
  }

  /** Keeps a chunk, and with it how long the take is by now. @param {Promise<Chunk>} chunk @param {number} frames @param {number} chunks */
  #keep(chunk, frames, chunks) {
    const take = { ...this.take, frames, chunks };
    this.#keeping = this.#keeping.then(async () => this.#kept.putChunk(await chunk)).then(() => this.#kept.putTake(take));
  }

  #tellState() {
    this.#tell({ type: 'state', frames: this.take.frames + this.#waiting, unsentSeconds: this.unsentSeconds,
      storageWorks: this.#kept.storageWorks });
  }
}
