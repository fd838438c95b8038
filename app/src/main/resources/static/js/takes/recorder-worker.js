// Alone does storage and network for takes, off the page's thread. Samples come straight from the audio thread; chunks of one
// second are kept in IndexedDB until the server has acknowledged them, and the second that is growing is kept too, so that a
// killed tab loses next to nothing. Takes that an earlier page could not finish are finished here, whoever is signed in.
import { finish } from './delivery.js';
import { KeptTakes } from './kept-takes.js';
import { GROWING_MS, RecordingTake } from './recording-take.js';
import { sealedWith } from './seal.js';

// one interval, one block of the audio thread, and the writing
const MOST_LOST_MS = 2 * GROWING_MS;
const ASK_FOR_REST_MS = 60_000;

/** @typedef {import('./kept-takes.js').Take} Take */

const opening = KeptTakes.open();
/** @type {KeptTakes} set before anything is done */
let kept = /** @type {any} */ (null);
/** @type {RecordingTake | null} */
let current = null;

/** @param {number} takeId */
const lockOf = takeId => `mellow-take-${takeId}`;
/** @param {import('./sending.js').Message} message */
const tell = message => postMessage(message);
/** @param {boolean} trouble */
const onTrouble = trouble => tell({ type: 'trouble', trouble });

/** A take whose page was killed: what was said since its growing second was last kept is missing, and told as missing. @param {Take} take */
const withItsEndMissing = take => ({ ...take, frames: take.frames + Math.round(take.rate * MOST_LOST_MS / 1000) });

/**
 * Takes that no page is recording or finishing any more. One that a page holds still, or has just been left with, is waited
 * for; by then it may be finished.
 */
async function finishLeftovers() {
  await Promise.all((await kept.takes()).map(({ takeId }) => navigator.locks.request(lockOf(takeId), async () => {
    const take = (await kept.takes()).find(each => each.takeId === takeId);
    if (!take) {
      return;
    }
    if (take.tooLate) {
      // one page at a time begins a take for the rest
      if (Math.abs(Date.now() - (take.restAskedAt ?? 0)) < ASK_FOR_REST_MS) {
        return;
      }
      await kept.putTake({ ...take, restAskedAt: Date.now() });
      tell({ type: 'ended-elsewhere', take });
      return;
    }
    const unsent = (await kept.chunks(takeId)).length;
    tell({ type: 'leftover', unsentSeconds: unsent });
    const tooLate = await finish(kept, take.stopped ? take : withItsEndMissing(take), onTrouble);
    tell({ type: tooLate ? 'ended-elsewhere' : 'leftover', unsentSeconds: 0, takeId, take });
  })));
  tell({ type: 'idle' });
}

/** @param {{ take: import('./kept-takes.js').BegunTake, seal: string, samples: MessagePort }} message */
async function record({ take, seal, samples }) {
  await navigator.locks.request(lockOf(take.takeId), async () => {
    current = new RecordingTake(take, kept, await sealedWith(seal), tell);
    const recording = current;
    const finished = new Promise(resolve => {
      samples.onmessage = ({ data }) => {
        recording.add(data.samples);
        if (data.last) {
          resolve(null);
        }
      };
    });
    tell({ type: 'recording' });
    await finished;
    const whole = await recording.last();
    whole.stopped = true;
    await kept.putTake(whole);
    const tooLate = await finish(kept, whole, onTrouble);
    current = null;
    tell({ type: tooLate ? 'ended-elsewhere' : 'finished', unsentSeconds: 0, takeId: take.takeId, take });
  });
}

/** Sends the chunks that came too late for a take as another one, which has just begun. @param {{ takeId: number, begun: { takeId: number, uploadKey: string } }} message */
async function sendRest({ takeId, begun }) {
  await navigator.locks.request(lockOf(takeId), async () => {
    const late = (await kept.takes()).find(each => each.takeId === takeId);
    const chunks = await kept.chunks(takeId);
    if (!late || chunks.length === 0) {
      return;
    }
    const [{ firstFrame }] = chunks;
    for (const [number, chunk] of chunks.entries()) {
      await kept.putChunk({ ...chunk, takeId: begun.takeId, number, firstFrame: chunk.firstFrame - firstFrame });
    }
    const rest = { ...late, ...begun, tooLate: false, stopped: true, flags: [], chunks: chunks.length, frames: late.frames - firstFrame };
    await kept.putTake(rest);
    await kept.forget(takeId);
    await finish(kept, rest, onTrouble);
    tell({ type: 'finished', unsentSeconds: 0, takeId: begun.takeId });
  });
}

onmessage = async ({ data }) => {
  kept ??= await opening;
  try {
    if (data.type === 'record') {
      await record(data);
    } else if (data.type === 'flag') {
      current?.flag(data.frame);
    } else if (data.type === 'rest') {
      await sendRest(data);
    } else if (data.type === 'forget') {
      await navigator.locks.request(lockOf(data.takeId), () => kept.forget(data.takeId));
    } else if (data.type === 'leftovers') {
      await finishLeftovers();
    }
  } catch (problem) {
    tell({ type: 'failed', words: /** @type {Error} */ (problem).message });
  }
};
