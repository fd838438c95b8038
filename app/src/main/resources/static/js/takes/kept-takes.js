// @ts-check
// What of takes this laptop keeps until the server has it: in IndexedDB, so that it outlives the page. Where the storage
// fails, in memory, so that it is sent all the same.

const DATABASE = 'mellow-takes';

/**
 * A take that is being recorded or waits to be sent.
 *
 * @typedef {{ takeId: number, uploadKey: string, chunks: number, frames: number, flags?: number[], tooLate?: boolean, restAskedAt?: number }} Take
 */
/** @typedef {{ takeId: number, number: number, firstFrame: number, pcm: ArrayBuffer }} Chunk */

/**
 * @template T
 * @param {IDBRequest<T>} request
 * @returns {Promise<T>}
 */
const done = request => new Promise((resolve, reject) => {
  request.onsuccess = () => resolve(request.result);
  request.onerror = () => reject(request.error);
});

/** @param {number} takeId */
const ofTake = takeId => IDBKeyRange.bound([takeId, 0], [takeId, Infinity]);

export class KeptTakes {
  /** @type {IDBDatabase | null} */
  #database = null;
  /** @type {{ takes: Map<number, Take>, chunks: Map<string, Chunk> }} */
  #memory = { takes: new Map(), chunks: new Map() };

  static async open() {
    const kept = new KeptTakes();
    const request = indexedDB.open(DATABASE, 1);
    request.onupgradeneeded = () => {
      request.result.createObjectStore('takes', { keyPath: 'takeId' });
      request.result.createObjectStore('chunks', { keyPath: ['takeId', 'number'] });
    };
    kept.#database = await done(request).catch(() => null);
    return kept;
  }

  get storageWorks() {
    return this.#database !== null;
  }

  /** @returns {Promise<Take[]>} */
  takes() {
    return this.#ask('takes', 'readonly', store => store.getAll(), () => [...this.#memory.takes.values()]);
  }

  /** @param {Take} take */
  putTake(take) {
    return this.#ask('takes', 'readwrite', store => store.put(take), () => this.#memory.takes.set(take.takeId, take));
  }

  /** @param {number} takeId */
  async forget(takeId) {
    await this.#ask('chunks', 'readwrite', store => store.delete(ofTake(takeId)), () => {});
    await this.#ask('takes', 'readwrite', store => store.delete(takeId), () => {});
    this.#memory.takes.delete(takeId);
    this.#memory.chunks.clear();
  }

  /** The chunks of a take that the server does not have, in order. @param {number} takeId @returns {Promise<Chunk[]>} */
  chunks(takeId) {
    return this.#ask('chunks', 'readonly', store => store.getAll(ofTake(takeId)),
      () => [...this.#memory.chunks.values()].filter(chunk => chunk.takeId === takeId));
  }

  /** Keeps a chunk; one that grows is kept again under its number. @param {Chunk} chunk */
  putChunk(chunk) {
    return this.#ask('chunks', 'readwrite', store => store.put(chunk),
      () => this.#memory.chunks.set(`${chunk.takeId}/${chunk.number}`, chunk));
  }

  /** @param {number} takeId @param {number} number */
  async dropChunk(takeId, number) {
    this.#memory.chunks.delete(`${takeId}/${number}`);
    await this.#ask('chunks', 'readwrite', store => store.delete([takeId, number]), () => {});
  }

  /**
   * @param {string} store @param {IDBTransactionMode} mode
   * @param {(store: IDBObjectStore) => IDBRequest} act
   * @param {() => any} instead in memory, where the storage does not work
   * @returns {Promise<any>}
   */
  async #ask(store, mode, act, instead) {
    if (this.#database) {
      try {
        return await done(act(this.#database.transaction(store, mode).objectStore(store)));
      } catch (problem) {
        if (mode === 'readonly') {
          throw problem;
        }
        // a full disk: from now on in memory
        this.#database = null;
      }
    }
    return instead();
  }
}
