// What of takes this laptop keeps until the server has it: in IndexedDB, so that it outlives the page. Where the storage
// fails, in memory, so that it is sent all the same.

import { openDB } from '../vendor/idb/build/index.js';

const DATABASE = 'mellow-takes';

/**
 * A take that is being recorded or waits to be sent.
 *
 * @typedef {{ takeId: number, uploadKey: string, rate: number, episodeId: string, note?: boolean, chunks: number,
 *   frames: number, flags: number[], stopped?: boolean, tooLate?: boolean, restAskedAt?: number }} Take
 */
/** A take of which nothing has been kept yet. @typedef {Omit<Take, 'chunks' | 'frames' | 'flags'>} BegunTake */
/** What is kept of a chunk is sealed, but where the page was not given a key. @typedef {{ takeId: number, number: number, firstFrame: number, pcm: ArrayBuffer, sealed?: boolean }} Chunk */

/** @param {number} takeId */
const ofTake = takeId => IDBKeyRange.bound([takeId, 0], [takeId, Infinity]);

export class KeptTakes {
  /** @type {import('../vendor/idb/build/index.js').IDBPDatabase<any> | null} */
  #database = null;
  /** @type {{ takes: Map<number, Take>, chunks: Map<string, Chunk> }} */
  #memory = { takes: new Map(), chunks: new Map() };

  static async open() {
    const kept = new KeptTakes();
    kept.#database = await openDB(DATABASE, 1, {
      upgrade(database) {
        database.createObjectStore('takes', { keyPath: 'takeId' });
        database.createObjectStore('chunks', { keyPath: ['takeId', 'number'] });
      },
    }).catch(() => null);
    return kept;
  }

  get storageWorks() {
    return this.#database !== null;
  }

  /** @returns {Promise<Take[]>} */
  takes() {
    return this.#read(database => database.getAll('takes'), () => [...this.#memory.takes.values()]);
  }

  /** @param {Take} take */
  putTake(take) {
    return this.#write(database => database.put('takes', take), () => this.#memory.takes.set(take.takeId, take));
  }

  /** @param {number} takeId */
  async forget(takeId) {
    await this.#write(database => database.delete('chunks', ofTake(takeId)), () => {});
    await this.#write(database => database.delete('takes', takeId), () => {});
    this.#memory.takes.delete(takeId);
    this.#memory.chunks.clear();
  }

  /** The chunks of a take that the server does not have, in order. @param {number} takeId @returns {Promise<Chunk[]>} */
  chunks(takeId) {
    return this.#read(database => database.getAll('chunks', ofTake(takeId)),
      () => [...this.#memory.chunks.values()].filter(chunk => chunk.takeId === takeId));
  }

  /** Keeps a chunk; one that grows is kept again under its number. @param {Chunk} chunk */
  putChunk(chunk) {
    return this.#write(database => database.put('chunks', chunk),
      () => this.#memory.chunks.set(`${chunk.takeId}/${chunk.number}`, chunk));
  }

  /** @param {number} takeId @param {number} number */
  async dropChunk(takeId, number) {
    this.#memory.chunks.delete(`${takeId}/${number}`);
    await this.#write(database => database.delete('chunks', [takeId, number]), () => {});
  }

  /**
   * @template T
   * @param {(database: import('../vendor/idb/build/index.js').IDBPDatabase<any>) => Promise<T>} act
   * @param {() => T} instead in memory, where the storage does not work
   */
  async #read(act, instead) {
    return this.#database ? act(this.#database) : instead();
  }

  /**
   * @param {(database: import('../vendor/idb/build/index.js').IDBPDatabase<any>) => Promise<unknown>} act
   * @param {() => void} instead in memory, where the storage does not work
   */
  async #write(act, instead) {
    if (this.#database) {
      try {
        await act(this.#database);
        return;
      } catch {
        // a full disk: from now on in memory
        this.#database = null;
      }
    }
    instead();
  }
}
