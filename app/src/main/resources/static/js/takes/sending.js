// The page's side of the worker that keeps and sends takes. One worker a page.
import { postJson } from '../shared/http.js';

/**
 * What the worker says.
 *
 * @typedef {{ type: 'trouble' | 'state' | 'recording' | 'finished' | 'leftover' | 'ended-elsewhere' | 'idle' | 'failed', trouble?: boolean, frames?: number,
 *   unsentSeconds?: number, storageWorks?: boolean, takeId?: number, take?: any, words?: string }} Message
 */

const ERASED = 'take.ERASED';
/** @type {Set<(message: Message) => void>} */
const listeners = new Set();
/** @type {Worker | null} */
let worker = null;
let unsent = 0;

function start() {
  if (!worker) {
    worker = new Worker(new URL('./recorder-worker.js', import.meta.url), { type: 'module' });
    worker.onmessage = (/** @type {MessageEvent<Message>} */ { data }) => {
      if (data.unsentSeconds !== undefined) {
        unsent = data.unsentSeconds;
      } else if (data.type === 'finished' || data.type === 'idle') {
        unsent = 0;
      }
      if (data.type === 'ended-elsewhere') {
        sendRest(data.take);
      }
      listeners.forEach(listener => listener(data));
    };
  }
  return worker;
}

/**
 * What came too late for a take becomes a take of its own, as soon as somebody of its crew is signed in here; that of an erased one is
 * forgotten, and of a note, which somebody has ended or taken back.
 *
 * @param {import('./kept-takes.js').Take} take
 */
async function sendRest({ takeId, episodeId, rate, note }) {
  const begun = note ? ERASED : await postJson(`/episodes/${episodeId}/recordings`, { sampleRate: rate, restOf: takeId }).catch(problem => (problem.code === ERASED ? ERASED : null));
  if (begun === ERASED) {
    start().postMessage({ type: 'forget', takeId });
  } else if (begun) {
    start().postMessage({ type: 'rest', takeId, begun });
  }
}

/** @param {(message: Message) => void} listener */
export const onSending = listener => listeners.add(listener);

/** Seconds of takes that the server does not have yet. */
export const unsentSeconds = () => unsent;

/**
 * Begins to keep and send a take whose samples come through a port.
 *
 * @param {import('./kept-takes.js').BegunTake} take @param {string} seal the key of what is kept, in Base64: never kept itself @param {MessagePort} samples
 */
export function sendTake(take, seal, samples) {
  start().postMessage({ type: 'record', take, seal, samples }, [samples]);
}

/** Flags a moment of the take that is being recorded, in its frames. @param {number} frame */
export function flagTake(frame) {
  start().postMessage({ type: 'flag', frame });
}

/** Finishes what earlier pages could not finish. Resolves when nothing is left. */
export function sendLeftovers() {
  return new Promise(resolve => {
    /** @param {Message} data */
    const listener = data => {
      if (data.type === 'idle' || data.type === 'failed') {
        listeners.delete(listener);
        resolve(null);
      }
    };
    listeners.add(listener);
    start().postMessage({ type: 'leftovers' });
  });
}
