// The elements of a clip in a row: its frame, its name and the grips above it. Of many clips on the page only those that are pointed at have
// all their grips.
import { fineClock } from '../shared/time.js';
import { GRIPS, endOf, gripButton, showIcon } from './grips.js';

/** @typedef {import('./types.js').ClipView} ClipView */
/** @typedef {import('./types.js').TrackView} TrackView */
/** @typedef {import('./grips.js').Grip} Grip */
/** @typedef {{ grip: Grip, clip: ClipView, track: TrackView }} GripOf */

/** How a trick is told on its clip. @type {Record<string, string>} */
const TRICKS = { PACE: 'at another pace', TAPE: 'at another speed', PITCH: 'higher or lower', BACKWARDS: 'backwards', ECHO: 'with an echo', TELEPHONE: 'on the telephone', HALL: 'in a hall' };
const LEAST_NAMED = 0.06;
/** As in the styles. */
const GRIP_WIDTH = 26;

export class ClipElements {
  #bench;
  #icons;
  #own;
  #templates;
  /** What each grip is of. @type {WeakMap<Element, GripOf>} */
  #grips = new WeakMap();
  /** Makes the grips beside the one that moves, where many clips lie on the page. @type {WeakMap<Element, () => void>} */
  #rest = new WeakMap();

  /** @param {string} icons where they are @param {boolean} own whether the page may be changed @param {import('./types.js').Bench} bench */
  constructor(icons, own, bench) {
    this.#bench = bench;
    this.#icons = icons;
    this.#own = own;
    this.#templates = /** @type {Record<Grip, HTMLButtonElement>} */ (Object.fromEntries(Object.keys(GRIPS).map(grip => [grip, gripButton(/** @type {Grip} */ (grip), icons)])));
  }

  /** What a grip is of. @param {Element} button */
  of(button) {
    return this.#grips.get(button);
  }

  /**
   * A part of a clip in a row: its frame, its name, its grips.
   *
   * @param {ClipView} clip @param {TrackView} track @param {HTMLElement} lane @param {HTMLElement} strip
   * @param {number} left @param {number} width both from 0 to 1 @param {boolean} starts @param {boolean} ends @param {boolean} crowded whether there are many on the page
   */
  lay(clip, track, lane, strip, left, width, starts, ends, crowded) {
    const frame = document.createElement('div');
    frame.className = 'clip-frame';
    frame.classList.toggle('starts', starts);
    frame.classList.toggle('ends', ends);
    const name = document.createElement('span');
    name.className = 'clip-name';
    name.textContent = width < LEAST_NAMED ? '' : this.#nameOf(clip, starts);
    lane.append(frame);
    strip.append(name);
    const parts = [frame, name];
    if (this.#own) {
      const grips = document.createElement('div');
      grips.className = 'clip-grips';
      const here = /** @type {Grip[]} */ ([...(starts ? ['start', 'fade-in'] : []), 'move', ...(ends ? ['fade-out', 'end'] : [])]);
      const move = this.#grip('move', clip, track, crowded);
      grips.append(move);
      const rest = () => {
        showIcon(move, this.#icons);
        const at = here.indexOf('move');
        move.before(...here.slice(0, at).map(grip => this.#grip(grip, clip, track)));
        move.after(...here.slice(at + 1).map(grip => this.#grip(grip, clip, track)));
      };
      if (crowded) {
        this.#rest.set(grips, rest);
      } else {
        rest();
      }
      strip.append(grips);
      parts.push(grips);
    }
    for (const part of parts) {
      part.dataset.clip = String(clip.id);
      part.style.left = `${100 * left}%`;
      part.style.width = `${100 * width}%`;
    }
  }

  /** @param {ClipView} clip @param {boolean} starts */
  #nameOf(clip, starts) {
    const read = this.#bench.readLines()[clip.source.takeId];
    const name = clip.source.roomFrame !== null ? 'room' : read ? `“${read}”` : this.#bench.timeline().takes[clip.source.takeId]?.name ?? 'a take';
    const played = clip.source.trick ? `${name}, ${TRICKS[clip.source.trick]}` : name;
    return starts ? played : `${played}, continued`;
  }

  /** @param {Grip} grip @param {ClipView} clip @param {TrackView} track @param {boolean} [bare] without its icon, which costs as much as all the rest */
  #grip(grip, clip, track, bare = false) {
    const button = /** @type {HTMLButtonElement} */ (this.#templates[grip].cloneNode(!bare));
    button.dataset.clip = String(clip.id);
    button.setAttribute('aria-label', `${GRIPS[grip].words} the clip of ${track.name}, ${fineClock(clip.startFrame)} to ${fineClock(endOf(clip))}`);
    this.#grips.set(button, { grip, clip, track });
    return button;
  }

  /** Makes the grips that wait until their clip is pointed at or focused. @param {Element | null} grips */
  complete(grips) {
    const rest = grips && this.#rest.get(grips);
    if (rest) {
      this.#rest.delete(grips);
      rest();
    }
    if (grips instanceof HTMLElement) {
      besideFlag(grips);
    }
  }
}

/** Lets the first grip stand behind a flag at the clip's start, so that both can be pressed. @param {HTMLElement} grips */
function besideFlag(grips) {
  const flags = /** @type {NodeListOf<HTMLElement> | undefined} */ (grips.parentElement?.querySelectorAll('.flag')) ?? [];
  const start = grips.offsetLeft;
  const covered = [...flags].map(flag => ({ from: flag.offsetLeft, to: flag.offsetLeft + flag.offsetWidth }))
    .filter(({ from, to }) => from < start + GRIP_WIDTH && to > start).map(({ to }) => to - start);
  grips.style.paddingLeft = `${Math.max(0, ...covered)}px`;
}
