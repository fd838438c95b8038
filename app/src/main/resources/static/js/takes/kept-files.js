// Files that are being sent, kept in IndexedDB so that they go on after the page was loaded again. One that does not fit is
// not kept: it goes on when the same file is chosen again. One whose crew did not come back here in two weeks is let go: its
// owner has it.
import { openDB } from '../vendor/idb/build/index.js';

/** A file with where it goes. @typedef {{ id?: number, episodeId: string, file: File, trackName: string, placing: string, keptAt?: number }} KeptFile */

const DATABASE = 'mellow-files';
const KEPT_MS = 14 * 24 * 60 * 60 * 1000;

/**
 * What an act on the storage gives, or something else where there is none or it is full.
 *
 * @template T
 * @param {(database: import('../vendor/idb/build/index.js').IDBPDatabase<any>) => Promise<T>} act @param {T} otherwise
 */
async function tried(act, otherwise) {
  try {
    const database = await openDB(DATABASE, 1, { upgrade: fresh => { fresh.createObjectStore('files', { keyPath: 'id', autoIncrement: true }); } });
    return await act(database).finally(() => database.close());
  } catch {
    return otherwise;
  }
}

/** Keeps a file; resolves to its id, or null. @param {KeptFile} entry @returns {Promise<number | null>} */
export const keepFile = entry => tried(async database => Number(await database.put('files', { ...entry, keptAt: Date.now() })), /** @type {number | null} */ (null));

/** @param {number | null | undefined} id */
export async function forgetFile(id) {
  if (id !== null && id !== undefined) {
    await tried(database => database.delete('files', id), undefined);
  }
}

/** Lets go of all of them: whoever signs out leaves nothing of theirs on the laptop. Their owner has them. */
export const forgetFiles = () => tried(database => database.clear('files'), undefined);

/** What an earlier page did not finish sending to an episode. @param {string} episodeId @returns {Promise<KeptFile[]>} */
export async function keptFiles(episodeId) {
  const entries = await tried(database => database.getAll('files'), /** @type {KeptFile[]} */ ([]));
  const old = (/** @type {KeptFile} */ entry) => Date.now() - (entry.keptAt ?? 0) > KEPT_MS;
  await Promise.all(entries.filter(old).map(entry => forgetFile(entry.id)));
  return entries.filter(entry => !old(entry) && entry.episodeId === episodeId);
}
