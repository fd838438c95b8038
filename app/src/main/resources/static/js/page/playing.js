// Playing on the page of rows: what can be heard, where it is on the page, and what is only for the ear. Nothing of that is
// part of the episode.
import { byId } from '../shared/elements.js';

/** @typedef {import('./preview.js').Preview | import('./file-player.js').FilePlayer} Player */
/** What is only for the ear: tracks that are left out, and how fast it is played. @typedef {{ without: readonly number[], percent: number }} Ear */
/** A stretch that is played. @typedef {{ sound: string, from: number, to: number, again: boolean, onPage: (frame: number) => number }} Stretch */

/** @param {number} frame */
const asItIs = frame => frame;

export class Playing {
  #player;
  #gauge;
  #icons;
  #onPlace;
  #onProblem;
  /** What is played, or was last. @type {Stretch | null} */
  #stretch = null;
  /** @type {Ear} */
  ear = { without: [], percent: 100 };

  /**
   * @param {Player} player @param {import('./gauge.js').Gauge} gauge @param {string} icons where they are
   * @param {(frame: number) => void} onPlace called with where on the page the sound is @param {(words: string) => void} onProblem
   */
  constructor(player, gauge, icons, onPlace, onProblem) {
    this.#player = player;
    this.#gauge = gauge;
    this.#icons = icons;
    this.#onPlace = onPlace;
    this.#onProblem = onProblem;
  }

  get playing() {
    return this.#player.playing;
  }

  /** Where on the page what can be heard now is; null while nothing plays. */
  get place() {
    const { position } = this.#player;
    return position === null || !this.#stretch ? null : this.#stretch.onPage(position);
  }

  /** Whether it begins again when it ends. */
  get again() {
    return this.#stretch?.again === true && this.playing;
  }

  /**
   * @param {string} sound names a revision and its finish @param {number} from @param {number} to
   * @param {{ again?: boolean, then?: () => void, onPage?: (frame: number) => number }} [how] whether it begins again when it ends; what comes when it has ended; where on the page a frame of the sound is
   */
  play(sound, from, to, { again = false, then, onPage = asItIs } = {}) {
    const stretch = { sound, from, to, again, onPage };
    this.#stretch = stretch;
    this.#player.play(sound, from, to, end => {
      this.#onPlace(onPage(end));
      if (again && this.#stretch === stretch) {
        this.play(sound, from, to, { again, onPage });
      } else {
        this.#show();
        then?.();
      }
    }, this.ear).catch(problem => {
      this.#player.stop();
      this.#onProblem(problem.message);
      this.#show();
    });
    this.#show();
    requestAnimationFrame(() => this.#follow());
  }

  stop() {
    this.#player.stop();
    this.#stretch = null;
    this.#show();
  }

  #follow() {
    this.#gauge.show(this.#player.levelDbfs);
    const { place } = this;
    if (place !== null) {
      this.#onPlace(place);
      requestAnimationFrame(() => this.#follow());
    }
  }

  #show() {
    byId('play').setAttribute('aria-label', this.playing ? 'Pause' : 'Play');
    byId('play').querySelector('use')?.setAttribute('href', `${this.#icons}#${this.playing ? 'pause' : 'play'}`);
  }
}

/** What is different for the ear, in words; nothing if nothing is. @param {Ear} ear @param {import('./types.js').TrackView[]} tracks */
export function earInWords({ without, percent }, tracks) {
  const heard = tracks.filter(track => !without.includes(track.id));
  const parts = [
    without.length === 0 ? '' : heard.length === 1 ? `only ${heard[0].name}` : `without ${tracks.filter(track => without.includes(track.id)).map(track => track.name).join(', ')}`,
    percent === 100 ? '' : percent < 100 ? 'slower' : 'faster',
  ].filter(Boolean);
  return parts.length === 0 ? '' : `You hear it ${parts.join(' and ')}. Only for your ear.`;
}
