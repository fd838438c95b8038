// Files that are being sent, kept in IndexedDB so that they go on after the page was loaded again. One that does not fit is
// not kept: it goes on when the same file is chosen again. One whose crew did not come back here in two weeks is let go: its
// owner has it.

const DATABASE = 'mellow-files';
const KEPT_MS = 14 * 24 * 60 * 60 * 1000;

const done = request => new Promise((resolve, reject) => {
  request.onsuccess = () => resolve(request.result);
  request.onerror = () => reject(request.error);
});

async function store(mode) {
  const request = indexedDB.open(DATABASE, 1);
  request.onupgradeneeded = () => request.result.createObjectStore('files', { keyPath: 'id', autoIncrement: true });
  return (await done(request)).transaction('files', mode).objectStore('files');
}

/** What an act on the store gives, or something else where there is no storage or it is full. */
const tried = (mode, act, otherwise) => store(mode).then(files => done(act(files))).catch(() => otherwise);

/** Keeps a file with where it goes; resolves to its id, or null. */
export const keepFile = entry => tried('readwrite', files => files.put({ ...entry, keptAt: Date.now() }), null);

export const forgetFile = async id => id !== null && tried('readwrite', files => files.delete(id), null);

/** What an earlier page did not finish sending to an episode. */
export async function keptFiles(episodeId) {
  const entries = await tried('readonly', files => files.getAll(), []);
  const old = entry => Date.now() - entry.keptAt > KEPT_MS;
  await Promise.all(entries.filter(old).map(entry => forgetFile(entry.id)));
  return entries.filter(entry => !old(entry) && entry.episodeId === episodeId);
}
