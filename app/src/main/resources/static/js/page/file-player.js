// Plays a finished sound from its file, with the same questions and answers as the preview.
import { RATE } from '../shared/time.js';
import { levelDbfs } from './level.js';

export class FilePlayer {
  #audio;
  /** @type {AudioContext | null} */
  #context = null;
  /** @type {AnalyserNode | null} */
  #analyser = null;
  /** @type {{ to: number, onEnd: (frame: number) => void } | null} */
  #run = null;

  /** @param {HTMLAudioElement} audio the element that holds the file */
  constructor(audio) {
    this.#audio = audio;
    audio.addEventListener('ended', () => this.#end());
  }

  get playing() {
    return this.#run !== null;
  }

  /** The frame that can be heard now. */
  get position() {
    return this.#run ? Math.min(this.#run.to, Math.round(this.#audio.currentTime * RATE)) : null;
  }

  /** The highest level of the last moment, in dBFS; -Infinity for silence. */
  get levelDbfs() {
    return this.#analyser && this.#run ? levelDbfs(this.#analyser) : -Infinity;
  }

  /** Plays frames from … to, and calls back when they have ended. @param {string} _sound @param {number} from @param {number} to @param {(frame: number) => void} onEnd @param {import('./playing.js').Ear} ear */
  async play(_sound, from, to, onEnd, ear) {
    this.stop();
    const context = this.#prepare();
    const run = { to, onEnd };
    this.#run = run;
    this.#audio.playbackRate = ear.percent / 100;
    this.#audio.currentTime = from / RATE;
    await context.resume();
    await this.#audio.play();
    this.#watch(run);
  }

  stop() {
    this.#run = null;
    this.#audio.pause();
  }

  #prepare() {
    if (!this.#context) {
      this.#context = new AudioContext();
      this.#analyser = this.#context.createAnalyser();
      this.#context.createMediaElementSource(this.#audio).connect(this.#analyser);
      this.#analyser.connect(this.#context.destination);
    }
    return this.#context;
  }

  /** @param {{ to: number }} run */
  #watch(run) {
    if (this.#run !== run) {
      return;
    }
    if (this.#audio.currentTime * RATE >= run.to) {
      this.#end();
    } else {
      requestAnimationFrame(() => this.#watch(run));
    }
  }

  #end() {
    const run = this.#run;
    if (run) {
      this.stop();
      run.onEnd(run.to);
    }
  }
}
