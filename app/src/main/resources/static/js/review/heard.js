// What somebody really hears of a hand-in: played at up to twice the speed, not muted, with the page in front. It is told to the server in
// stretches, which adds it to what was heard before; a stretch that could not be sent is sent again.
import { postJson } from '../shared/http.js';
import { RATE } from '../shared/time.js';

/** Told so often while it plays. */
const TELL_MS = 10_000;
const MOST_SPEED = 2;
/** Shorter is a slip of the finger. */
const LEAST_FRAMES = RATE / 10;
/** Seams of playing and stopping are no sound that was missed. */
const SEAM = RATE / 2;
/** The server says that so much cannot have been heard. */
const REFUSED = 422;

/** @typedef {{ start: number, end: number }} Span in frames */
/** @typedef {{ clientId: string, startFrame: number, endFrame: number, elapsedMs: number }} Told */

/** The union of spans, in order. @param {Span[]} spans @returns {Span[]} */
export function union(spans) {
  /** @type {Span[]} */
  const joined = [];
  for (const span of [...spans].sort((one, other) => one.start - other.start)) {
    const last = joined.at(-1);
    if (last && span.start <= last.end) {
      last.end = Math.max(last.end, span.end);
    } else if (span.end > span.start) {
      joined.push({ ...span });
    }
  }
  return joined;
}

/** What of some spans is in none of others. @param {Span[]} spans @param {Span[]} others */
export function without(spans, others) {
  /** @type {Span[]} */
  const left = [];
  const gone = union(others);
  for (const span of union(spans)) {
    let at = span.start;
    for (const other of gone) {
      if (other.end > at && other.start < span.end) {
        if (other.start > at) {
          left.push({ start: at, end: other.start });
        }
        at = other.end;
      }
    }
    if (at < span.end) {
      left.push({ start: at, end: span.end });
    }
  }
  return left;
}

export class Heard {
  #audio;
  #address;
  #onChange;
  /** @type {{ from: number, since: number, at: number } | null} */
  #stretch = null;
  /** What the server does not know yet. @type {Told[]} */
  #unsent = [];
  /** @type {Promise<void> | null} */
  #sending = null;
  /** @type {Span[]} */
  left = [];

  /** @param {HTMLAudioElement} audio @param {string} handInId @param {() => void} onChange */
  constructor(audio, handInId, onChange) {
    this.#audio = audio;
    this.#address = `/hand-ins/${handInId}/heard`;
    this.#onChange = onChange;
    audio.addEventListener('timeupdate', () => this.#tick());
    for (const event of ['play', 'playing', 'seeking', 'seeked', 'ratechange', 'volumechange']) {
      audio.addEventListener(event, () => this.#again());
    }
    for (const event of ['pause', 'ended', 'waiting']) {
      audio.addEventListener(event, () => this.#close(!audio.seeking));
    }
    document.addEventListener('visibilitychange', () => this.#again());
    addEventListener('pagehide', () => this.#close(true));
  }

  /** @param {Span[]} left what was not heard before */
  begin(left) {
    this.left = left;
    this.#onChange();
  }

  get #counts() {
    const { paused, muted, volume, playbackRate, seeking } = this.#audio;
    return !paused && !seeking && !muted && volume > 0 && playbackRate <= MOST_SPEED && document.visibilityState === 'visible';
  }

  get #frame() {
    return Math.round(this.#audio.currentTime * RATE);
  }

  /** Something else begins: what came before is one stretch. */
  #again() {
    this.#close(false);
    if (this.#counts) {
      this.#stretch = { from: this.#frame, since: performance.now(), at: this.#frame };
    }
  }

  #tick() {
    if (!this.#stretch || !this.#counts) {
      this.#again();
      return;
    }
    this.#stretch.at = this.#frame;
    if (performance.now() - this.#stretch.since >= TELL_MS) {
      this.#again();
    }
  }

  /** @param {boolean} here whether it was heard up to where the sound is now */
  #close(here) {
    const stretch = this.#stretch;
    this.#stretch = null;
    const end = stretch && here ? Math.max(stretch.at, this.#frame) : stretch?.at ?? 0;
    if (stretch && end - stretch.from >= LEAST_FRAMES) {
      this.#unsent.push({ clientId: crypto.randomUUID(), startFrame: stretch.from, endFrame: end, elapsedMs: Math.ceil(performance.now() - stretch.since) });
      this.left = without(this.left, [{ start: stretch.from, end }]).filter(span => span.end - span.start > SEAM);
      this.#onChange();
      this.#send();
    }
  }

  /** Tells what has been heard up to now, and waits until it is known. */
  async flush() {
    this.#close(true);
    if (this.#counts) {
      this.#again();
    }
    await this.#send();
  }

  #send() {
    this.#sending ??= this.#sendAll().finally(() => { this.#sending = null; });
    return this.#sending;
  }

  async #sendAll() {
    while (this.#unsent.length > 0) {
      const told = this.#unsent[0];
      try {
        await postJson(this.#address, told, { keepalive: true });
      } catch (problem) {
        if (/** @type {{ status?: number }} */ (problem).status !== REFUSED) {
          // the network or the server: it is told again with the next stretch
          return;
        }
        this.left = union([...this.left, { start: told.startFrame, end: told.endFrame }]);
        this.#onChange();
      }
      this.#unsent.shift();
    }
  }
}
