// Sends a file in parts by the open protocol tus: after a lost network or another start of the page it goes on where it stopped.
import { csrfHeaders, wordsFor } from '../shared/http.js';

const PART_BYTES = 8 * 1024 ** 2;
const RETRY_MS = [500, 1000, 2000, 4000, 8000, 8000, 8000, 8000];

/** @param {import('tus-js-client').HttpResponse} response */
const body = response => {
  try {
    return JSON.parse(response.getBody());
  } catch {
    return null;
  }
};

/**
 * Resolves to null when it is there, or to what stands against it: words, and whether a later try may work. Never gives up
 * because of the network.
 *
 * @param {string} episodeId
 * @param {{ file: File, trackName: string, placing: string }} wish
 * @param {(part: number) => void} onProgress @param {(trouble: boolean) => void} onTrouble @param {() => Promise<unknown>} onHere once all of it has arrived
 * @returns {Promise<{ words: string, later: boolean } | null>}
 */
export function sendFile(episodeId, { file, trackName, placing }, onProgress, onTrouble, onHere) {
  return new Promise(resolve => {
    const upload = new window.tus.Upload(file, {
      endpoint: `/episodes/${episodeId}/files`,
      chunkSize: PART_BYTES,
      retryDelays: RETRY_MS,
      // the same file for another track or place is another upload
      fingerprint: async () => ['mellow', episodeId, file.name, file.size, file.lastModified, trackName, placing].join('/'),
      metadata: { filename: file.name, trackName, placing },
      headers: { ...csrfHeaders(), Accept: 'application/json' },
      onProgress: (sent, whole) => {
        onTrouble(false);
        onProgress(sent / (whole ?? file.size));
      },
      onShouldRetry: problem => {
        const status = problem.originalResponse?.getStatus() ?? 0;
        onTrouble(status === 0);
        return status === 0 || status >= 500 || status === 409 || status === 423;
      },
      onError: problem => {
        const answer = 'originalResponse' in problem ? problem.originalResponse : null;
        if (!answer) {
          onTrouble(true);
          window.addEventListener('online', go, { once: true });
          return;
        }
        const status = answer.getStatus();
        resolve({ words: wordsFor(status, body(answer)), later: status === 401 || status === 403 || status >= 500 });
      },
      // first let go of by the laptop, then by the storage of uploads: a page that is left in between does not begin it again
      onSuccess: async () => {
        await onHere();
        const [here] = await upload.findPreviousUploads();
        if (here) {
          await upload.options.urlStorage?.removeUpload(here.urlStorageKey);
        }
        resolve(null);
      },
    });
    async function go() {
      const [earlier] = await upload.findPreviousUploads();
      if (earlier) {
        upload.resumeFromPreviousUpload(earlier);
      }
      upload.start();
    }
    go();
  });
}
