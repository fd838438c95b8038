// Plays the mix as it would be finished, rendered by the server in chunks that join without a gap.
import { NotYet, getBytes } from '../shared/http.js';
import { RATE } from '../shared/time.js';
import { levelDbfs } from './level.js';

const CHUNK_FRAMES = 2 * RATE;
const FIRST_FRAMES = RATE / 2;
const AHEAD_SECONDS = 4;
const START_DELAY_SECONDS = 0.06;
const MOST_CACHED = 60;
const ASK_AGAIN_MS = 300;
/** @type {import('./playing.js').Ear} */
const AS_IT_IS = { without: [], percent: 100 };

/**
 * What is being played; `origin` is when its first frame was heard, by the clock of the sound, `played` how many frames of output it has up to `next`.
 *
 * @typedef {{ context: AudioContext, analyser: AnalyserNode, sound: string, ear: import('./playing.js').Ear, from: number, to: number, next: number, played: number,
 *   origin: number | null, sources: Set<AudioBufferSourceNode>, onEnd: (frame: number) => void, timer?: number }} Run
 */

export class Preview {
  #address;
  #onWaiting;
  /** Made when something is played for the first time, as browsers ask. @type {{ context: AudioContext, analyser: AnalyserNode } | null} */
  #output = null;
  /** @type {Map<string, AudioBuffer>} */
  #cache = new Map();
  /** @type {Run | null} */
  #run = null;

  /**
   * @param {(sound: string, from: number, to: number, ear: import('./playing.js').Ear) => string} address where a span of a sound is
   * @param {() => void} onWaiting called when what shall be played is still being made
   */
  constructor(address, onWaiting = () => {}) {
    this.#address = address;
    this.#onWaiting = onWaiting;
  }

  get playing() {
    return this.#run !== null;
  }

  /** The frame that can be heard now. */
  get position() {
    const run = this.#run;
    if (!run) {
      return null;
    }
    if (run.origin === null) {
      return run.from;
    }
    const frame = run.from + Math.max(0, Math.round((run.context.currentTime - run.origin) * RATE * run.ear.percent / 100));
    return Math.min(run.to, frame);
  }

  /** The highest level of the last moment, in dBFS; -Infinity for silence. */
  get levelDbfs() {
    return this.#run ? levelDbfs(this.#run.analyser) : -Infinity;
  }

  /** Plays frames from … to of a revision through a finish, and calls back when they have ended; both stay as they are while it plays. @param {string} sound names both @param {number} from @param {number} to @param {(frame: number) => void} onEnd @param {import('./playing.js').Ear} [ear] */
  async play(sound, from, to, onEnd, ear = AS_IT_IS) {
    this.stop();
    /** @type {Run} */
    const run = { ...this.#prepare(), sound, ear, from, to, next: from, played: 0, origin: null, sources: new Set(), onEnd };
    this.#run = run;
    await run.context.resume();
    await this.#feed(run);
  }

  stop() {
    const run = this.#run;
    this.#run = null;
    run?.sources.forEach(source => {
      source.onended = null;
      source.stop();
    });
    clearTimeout(run?.timer);
  }

  #prepare() {
    if (!this.#output) {
      const context = new AudioContext({ sampleRate: RATE });
      const analyser = context.createAnalyser();
      analyser.connect(context.destination);
      this.#output = { context, analyser };
    }
    return this.#output;
  }

  /** Schedules chunks until enough is ahead, then looks again when some of it has been heard. @param {Run} run */
  async #feed(run) {
    while (this.#run === run && run.next < run.to && this.#aheadSeconds(run) < AHEAD_SECONDS) {
      // chunks end on multiples of their length, so that they can be kept; the first is short, to be heard soon
      const first = run.next === run.from ? run.next + FIRST_FRAMES : Infinity;
      const end = Math.min(run.to, first, (Math.floor(run.next / CHUNK_FRAMES) + 1) * CHUNK_FRAMES);
      const buffer = await this.#chunk(run, run.next, end);
      if (this.#run !== run) {
        return;
      }
      this.#schedule(run, buffer);
      run.played += buffer.length;
      run.next = end;
    }
    if (this.#run === run && run.next < run.to) {
      run.timer = window.setTimeout(() => this.#feed(run).catch(() => this.#end(run)), 500);
    }
  }

  /** @param {Run} run */
  #aheadSeconds(run) {
    return run.origin === null ? 0 : run.origin + run.played / RATE - run.context.currentTime;
  }

  /** @param {Run} run @param {AudioBuffer} buffer */
  #schedule(run, buffer) {
    const soonest = Math.ceil((run.context.currentTime + START_DELAY_SECONDS) * RATE) / RATE;
    const wanted = run.origin === null ? soonest : run.origin + run.played / RATE;
    if (run.origin === null || wanted < run.context.currentTime) {
      // the first chunk, or one that came late: the clock goes on from here
      run.origin = soonest - run.played / RATE;
    }
    const source = run.context.createBufferSource();
    source.buffer = buffer;
    source.connect(run.analyser);
    source.start(run.origin + run.played / RATE);
    run.sources.add(source);
    source.onended = () => {
      run.sources.delete(source);
      if (run.sources.size === 0 && run.next >= run.to) {
        this.#end(run);
      }
    };
  }

  /** @param {Run} run */
  #end(run) {
    if (this.#run === run) {
      this.stop();
      run.onEnd(run.to);
    }
  }

  /** The bytes of a span, waited for as long as they are being made and somebody wants to hear them. @param {Run} run @param {number} from @param {number} to */
  async #bytes(run, from, to) {
    for (;;) {
      try {
        return await getBytes(this.#address(run.sound, from, to, run.ear));
      } catch (problem) {
        if (!(problem instanceof NotYet) || this.#run !== run) {
          throw problem;
        }
        this.#onWaiting();
        await new Promise(done => { setTimeout(done, ASK_AGAIN_MS); });
      }
    }
  }

  /** @param {Run} run @param {number} from @param {number} to @returns {Promise<AudioBuffer>} */
  async #chunk(run, from, to) {
    const key = this.#address(run.sound, from, to, run.ear);
    let buffer = this.#cache.get(key);
    if (!buffer) {
      const bytes = new DataView(await this.#bytes(run, from, to));
      buffer = run.context.createBuffer(2, bytes.byteLength / 8, RATE);
      for (let channel = 0; channel < 2; channel++) {
        const samples = buffer.getChannelData(channel);
        for (let i = 0; i < samples.length; i++) {
          samples[i] = bytes.getFloat32(8 * i + 4 * channel, true);
        }
      }
      this.#cache.set(key, buffer);
      if (this.#cache.size > MOST_CACHED) {
        this.#cache.delete([...this.#cache.keys()][0]);
      }
    }
    return buffer;
  }
}
