// The hand-in before, heard in place: it runs along silently at the same words, so that one goes over into the other without a gap,
// equally loud. Where its words are not, what is heard now stays.
import { RATE } from '../shared/time.js';

/** @typedef {{ startFrame: number, endFrame: number, wasFrame: number }} Stretch */

/** Sounds that have run further apart than this are set together. */
const APART_SECONDS = 0.05;

/** Where the words of a frame were said before; null where they were not. @param {Stretch[]} stretches in their order @param {number} frame */
export function earlierFrame(stretches, frame) {
  const stretch = stretches.find(({ startFrame, endFrame }) => frame >= startFrame && frame < endFrame);
  return stretch ? stretch.wasFrame + frame - stretch.startFrame : null;
}

/** How loud each is played so that both are as loud as the softer one. @param {number | null} nowLufs @param {number | null} earlierLufs */
export function equalVolumes(nowLufs, earlierLufs) {
  if (nowLufs === null || earlierLufs === null) {
    return { now: 1, earlier: 1 };
  }
  const least = Math.min(nowLufs, earlierLufs);
  return { now: 10 ** ((least - nowLufs) / 20), earlier: 10 ** ((least - earlierLufs) / 20) };
}

export class EarlierOne {
  #now;
  #earlier;
  #button;
  #say;
  /** @type {Stretch[]} */
  #stretches = [];
  #volumes = { now: 1, earlier: 1 };
  #wanted = false;
  /** Once somebody has compared, this one stays as loud as the other. */
  #compared = false;

  /** @param {HTMLAudioElement} now @param {HTMLAudioElement} earlier @param {HTMLElement} button @param {(words: string) => void} say */
  constructor(now, earlier, button, say) {
    this.#now = now;
    this.#earlier = earlier;
    this.#button = button;
    this.#say = say;
    for (const event of ['timeupdate', 'play', 'seeked', 'ratechange']) {
      now.addEventListener(event, () => this.#follow());
    }
    for (const event of ['pause', 'ended']) {
      now.addEventListener(event, () => earlier.pause());
    }
  }

  /** @param {{ stretches: Stretch[], lufs: number | null, earlierLufs: number | null }} known */
  begin({ stretches, lufs, earlierLufs }) {
    this.#stretches = stretches;
    this.#volumes = equalVolumes(lufs, earlierLufs);
    this.#button.hidden = stretches.length === 0;
    this.#follow();
  }

  toggle() {
    this.#wanted = !this.#wanted;
    this.#compared = true;
    this.#button.setAttribute('aria-pressed', String(this.#wanted));
    const words = this.#button.dataset.name;
    this.#say(!this.#wanted ? 'You hear this hand-in again.' : this.#place === null ? `${words} has no such words here.` : `You hear ${words}. It does not count as heard.`);
    this.#follow();
  }

  get #place() {
    return earlierFrame(this.#stretches, Math.round(this.#now.currentTime * RATE));
  }

  /** Only one is heard; both run. */
  #follow() {
    const place = this.#place;
    const there = this.#wanted && place !== null;
    this.#now.volume = there ? 0 : this.#compared ? this.#volumes.now : 1;
    this.#earlier.volume = there ? this.#volumes.earlier : 0;
    this.#earlier.playbackRate = this.#now.playbackRate;
    if (place !== null && Math.abs(this.#earlier.currentTime - place / RATE) > APART_SECONDS) {
      this.#earlier.currentTime = place / RATE;
    }
    if (place === null || this.#now.paused) {
      this.#earlier.pause();
    } else if (this.#earlier.paused) {
      this.#earlier.play().catch(() => {});
    }
  }
}
