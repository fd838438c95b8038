// Sends a take while it is being recorded: numbered chunks of one second, each kept until the server has it.
import { postJson, putBytes } from '../shared/http.js';

const RETRY_MS = [500, 1000, 2000, 4000];

export class TakeUpload {
  #takeId;
  #rate;
  #waiting = new Float32Array(0);
  #unsent = new Map();
  #sending = Promise.resolve();
  #next = 0;
  #frames = 0;

  static async begin(episodeId, trackName, rate) {
    const upload = new TakeUpload();
    upload.#rate = rate;
    upload.#takeId = (await postJson(`/episodes/${episodeId}/recordings`, { trackName, sampleRate: rate })).takeId;
    return upload;
  }

  get frames() {
    return this.#frames + this.#waiting.length;
  }

  /** Seconds that the server does not have yet. */
  get unsentSeconds() {
    let frames = 0;
    this.#unsent.forEach(chunk => { frames += chunk.pcm.length; });
    return frames / this.#rate;
  }

  add(samples) {
    const joined = new Float32Array(this.#waiting.length + samples.length);
    joined.set(this.#waiting);
    joined.set(samples, this.#waiting.length);
    this.#waiting = joined;
    while (this.#waiting.length >= this.#rate) {
      this.#cut(this.#rate);
    }
  }

  /** Sends the rest and ends the take; resolves when the server has every chunk. */
  async end() {
    if (this.#waiting.length > 0) {
      this.#cut(this.#waiting.length);
    }
    await this.#sending;
    const { missing } = await postJson(`/takes/${this.#takeId}/end`, { chunks: this.#next });
    if (missing.length > 0) {
      throw new Error(`${missing.length} s of the take did not arrive.`);
    }
  }

  #cut(frames) {
    const pcm = Int16Array.from(this.#waiting.subarray(0, frames),
      sample => Math.max(-32768, Math.min(32767, Math.round(sample * 32768))));
    const number = this.#next++;
    this.#unsent.set(number, { pcm, firstFrame: this.#frames });
    this.#frames += frames;
    this.#waiting = this.#waiting.slice(frames);
    this.#sending = this.#sending.then(() => this.#send(number));
  }

  async #send(number) {
    const { pcm, firstFrame } = this.#unsent.get(number);
    for (let attempt = 0; ; attempt++) {
      try {
        await putBytes(`/takes/${this.#takeId}/chunks/${number}?firstFrame=${firstFrame}`, pcm);
        this.#unsent.delete(number);
        return;
      } catch (problem) {
        // only a lost network is worth another try; a refusal will be one again
        if (problem.status !== 0 && problem.status < 500) {
          throw problem;
        }
        await new Promise(resolve => setTimeout(resolve, RETRY_MS[Math.min(attempt, RETRY_MS.length - 1)]));
      }
    }
  }
}
