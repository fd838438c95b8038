// The clips on the page: where they start and end, what they are called, and the grips in the strip above them by which one that is
// pointed at or focused is moved, trimmed and faded, by pointer or by arrows. What will be done is outlined before it happens.
import { RATE } from '../shared/time.js';
import { snapped } from '../page/snapping.js';
import { LONG_STEP, STEP } from '../page/steps.js';
import { ClipElements } from './clip-elements.js';
import { endOf, placeOf, spanFor, wishFor } from './grips.js';

/** @typedef {import('./types.js').ClipView} ClipView */
/** @typedef {import('./types.js').TrackView} TrackView */
/** @typedef {import('./types.js').Wish} Wish */
/** @typedef {import('./grips.js').Grip} Grip */
/** @typedef {import('./clip-elements.js').GripOf} GripOf */
/**
 * A clip that is being changed, until the pointer or the key is up.
 *
 * @typedef {{ grip: Grip, clip: ClipView, track: TrackView, anchor: number, by: number, gesture: import('./types.js').Gesture, wish: Wish | null, said: string | null, frame: number,
 *   outlines: HTMLElement[] }} Drag
 */

/** Of more clips on the page, only those that are pointed at or focused have all their grips. */
const CROWDED = 60;
/** Presses that follow each other so quickly are one. */
const TOGETHER_MS = 250;

export class Clips {
  #bench;
  #element;
  #elements;
  /** @type {Drag | null} */
  #drag = null;
  /** The strips that listen. @type {WeakSet<Element>} */
  #heard = new WeakSet();
  /** @type {number | undefined} */
  #waiting;
  /** Where what was moved will stand, of what is on its way, by clip and grip. @type {Map<string, number>} */
  #wished = new Map();

  /** @param {HTMLElement} element that holds the rows @param {string} icons where they are @param {boolean} own whether the page may be changed @param {import('./types.js').Bench} bench */
  constructor(element, icons, own, bench) {
    this.#element = element;
    this.#bench = bench;
    this.#elements = new ClipElements(icons, own, bench);
    bench.rows.onRow(row => this.#draw(row));
    element.addEventListener('pointermove', event => this.#pointed(event));
    // a finger points where it was lifted, until it points elsewhere
    element.addEventListener('pointerup', event => this.#pointed(event));
    element.addEventListener('pointerleave', event => event.pointerType !== 'touch' && this.#point(null));
  }

  /** Lays frames over the lanes of a row; with grips where the page may be changed. @param {import('../page/rows.js').Row} row */
  #draw(row) {
    const layout = this.#bench.layout();
    const focused = /** @type {HTMLElement | null} */ (document.activeElement)?.dataset;
    const { clip: focusedClip, grip } = row.element.contains(document.activeElement) && focused ? focused : {};
    const crowded = this.#bench.timeline().tracks.reduce((sum, { clips }) => sum + clips.length, 0) > CROWDED;
    for (const { track, lane, strip } of row.lanes) {
      if (!this.#heard.has(strip)) {
        this.#heard.add(strip);
        this.#listen(strip);
      }
      lane.querySelectorAll('.clip-frame, .clip-grips, .clip-name').forEach(old => old.remove());
      const clips = track.clips.filter(clip => clip.startFrame < layout.rowEnd(row.number) && endOf(clip) > layout.rowStart(row.number));
      for (const clip of clips) {
        const start = Math.max(clip.startFrame, layout.rowStart(row.number));
        const end = Math.min(endOf(clip), layout.rowEnd(row.number));
        const left = layout.part(row.number, start);
        this.#elements.lay(clip, track, lane, strip, left, layout.part(row.number, end) - left, start === clip.startFrame, end === endOf(clip), crowded);
      }
    }
    if (focusedClip && grip) {
      this.focus(Number(focusedClip), /** @type {Grip} */ (grip));
    }
  }

  /** Puts the focus back on a grip after the page was drawn anew. @param {number} clipId @param {Grip} grip */
  focus(clipId, grip) {
    this.#element.querySelectorAll(`.clip-grips[data-clip="${clipId}"]`).forEach(grips => this.#elements.complete(grips));
    const shown = this.#element.querySelector(`.clip-grip[data-clip="${clipId}"][data-grip="${grip}"]`);
    /** @type {HTMLElement | null} */ (shown)?.focus({ preventScroll: true });
  }

  /** @param {HTMLElement} strip */
  #listen(strip) {
    /** @param {string} type @param {(event: any, at: GripOf, button: HTMLElement) => void} react */
    const on = (type, react) => strip.addEventListener(type, event => {
      const button = /** @type {HTMLElement} */ (event.target).closest('.clip-grip');
      const at = button && this.#elements.of(button);
      if (at) {
        react(event, at, /** @type {HTMLElement} */ (button));
      }
    });
    on('focusin', (_, { clip }, button) => {
      this.#elements.complete(button.parentElement);
      if (this.#bench.marginFree()) {
        this.#bench.onChosen(clip.id);
      }
    });
    on('click', (_, { clip }) => this.#bench.onChosen(clip.id));
    on('pointerdown', (event, { grip, clip, track }, button) => {
      event.stopPropagation();
      button.setPointerCapture(event.pointerId);
      this.#begin(grip, clip, track, this.#bench.rows.at(event.clientX, event.clientY)?.frame ?? clip.startFrame);
    });
    on('pointermove', event => this.#to(event));
    on('pointerup', () => this.#end());
    on('pointercancel', () => this.#forget());
    on('keydown', (event, { grip, clip, track }) => this.#key(event, grip, clip, track));
    on('keyup', () => {
      clearTimeout(this.#waiting);
      this.#waiting = window.setTimeout(() => this.#end(), TOGETHER_MS);
    });
    on('focusout', () => this.#end());
  }

  /** @param {Grip} grip @param {ClipView} clip @param {TrackView} track @param {number} anchor */
  #begin(grip, clip, track, anchor) {
    this.#drag = { grip, clip, track, anchor, by: 0, gesture: this.#bench.gesture(), wish: null, said: null, frame: 0, outlines: [] };
    return this.#drag;
  }

  /** What the grip's edge would be at, that much later. @param {Drag} drag @param {number} trackId @param {number} frame */
  #want(drag, trackId, frame) {
    const { grip, clip } = drag;
    const stands = this.#standsAt(grip, clip);
    drag.frame = frame;
    drag.wish = frame === stands && trackId === drag.track.id ? null : wishFor(grip, clip, trackId, frame);
    this.#outline(drag, trackId, frame);
    drag.said = drag.wish ? this.#wordsFor(grip, clip, trackId === drag.track.id ? null : trackId, frame) : null;
    this.#bench.page.say(drag.said);
  }

  /** Where what a grip moves stands, or will in a moment. @param {Grip} grip @param {ClipView} clip */
  #standsAt(grip, clip) {
    return this.#wished.get(`${clip.id}/${grip}`) ?? placeOf(grip, clip);
  }

  // ---- by pointer

  /** @param {PointerEvent} event */
  #to(event) {
    const drag = this.#drag;
    const place = this.#bench.rows.at(event.clientX, event.clientY);
    if (!drag || !place) {
      return;
    }
    const lane = /** @type {HTMLElement | undefined} */ (document.elementsFromPoint(event.clientX, event.clientY).find(element => element.matches('.lane')));
    const trackId = drag.grip === 'move' && lane ? Number(lane.dataset.track) : drag.track.id;
    const frame = placeOf(drag.grip, drag.clip) + place.frame - drag.anchor;
    this.#want(drag, trackId, event.altKey ? frame : snapped(frame, this.#bench, drag.clip));
  }

  /** @param {Drag} drag @param {number} trackId @param {number} frame */
  #outline(drag, trackId, frame) {
    drag.outlines.forEach(outline => outline.remove());
    const [start, end] = spanFor(drag.grip, drag.clip, frame);
    const layout = this.#bench.layout();
    drag.outlines = this.#bench.rows.all.flatMap(row => {
      const from = Math.max(start, layout.rowStart(row.number));
      const to = Math.min(end, layout.rowReach(row.number));
      const lane = row.lanes.find(({ track }) => track.id === trackId)?.lane;
      if (from >= to || !lane) {
        return [];
      }
      const outline = document.createElement('div');
      outline.className = 'clip-outline';
      outline.style.left = `${100 * layout.part(row.number, from)}%`;
      outline.style.width = `${100 * (layout.part(row.number, to) - layout.part(row.number, from))}%`;
      lane.append(outline);
      return [outline];
    });
  }

  /** What has been done, in words. @param {Grip} grip @param {ClipView} clip @param {number | null} trackId if it is another one @param {number} frame */
  #wordsFor(grip, clip, trackId, frame) {
    const by = frame - this.#standsAt(grip, clip);
    const seconds = `${(Math.abs(by) / RATE).toFixed(2)} s`;
    switch (grip) {
      case 'start': return by > 0 ? `Trimmed ${seconds}.` : `Lengthened ${seconds}.`;
      case 'end': return by < 0 ? `Trimmed ${seconds}.` : `Lengthened ${seconds}.`;
      case 'fade-in': return `Fades in over ${(Math.max(0, frame - clip.startFrame) / RATE).toFixed(2)} s.`;
      case 'fade-out': return `Fades out over ${(Math.max(0, endOf(clip) - frame) / RATE).toFixed(2)} s.`;
      default: return trackId === null ? `Moved ${seconds} ${by > 0 ? 'later' : 'earlier'}.`
        : `Moved to ${this.#bench.timeline().tracks.find(({ id }) => id === trackId)?.name}.`;
    }
  }

  /** What was wished for is sent once the hand is off. */
  #end() {
    const drag = this.#drag;
    this.#forget();
    if (drag?.wish) {
      const key = `${drag.clip.id}/${drag.grip}`;
      this.#wished.set(key, drag.frame);
      this.#bench.edit(drag.wish, drag.gesture, `${drag.said} Undo takes it back.`).finally(() => {
        if (this.#wished.get(key) === drag.frame) {
          this.#wished.delete(key);
        }
        if (!this.#drag) {
          this.focus(drag.clip.id, drag.grip);
        }
      });
    }
  }

  #forget() {
    clearTimeout(this.#waiting);
    this.#drag?.outlines.forEach(outline => outline.remove());
    this.#drag = null;
  }

  // ---- by keyboard

  /** Presses of a held key are summed: the edit is sent when it is up. @param {KeyboardEvent} event @param {Grip} grip @param {ClipView} clip @param {TrackView} track */
  #key(event, grip, clip, track) {
    const tracks = this.#bench.timeline().tracks;
    const index = tracks.findIndex(each => each.id === track.id);
    const direction = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const other = grip === 'move' ? tracks[index + ({ ArrowUp: -1, ArrowDown: 1 }[event.key] ?? NaN)] : undefined;
    if (direction === undefined && !other) {
      return;
    }
    event.preventDefault();
    event.stopPropagation();
    clearTimeout(this.#waiting);
    if (this.#bench.page.selection) {
      this.#bench.onChosen(clip.id);
    }
    const drag = this.#drag ?? this.#begin(grip, clip, track, 0);
    drag.by += (direction ?? 0) * (event.shiftKey ? LONG_STEP : STEP);
    this.#want(drag, other?.id ?? track.id, this.#standsAt(grip, clip) + drag.by);
  }

  // ---- pointing

  /** @param {PointerEvent} event */
  #pointed(event) {
    if (!this.#drag && event.buttons === 0) {
      const over = document.elementsFromPoint(event.clientX, event.clientY);
      const grips = /** @type {HTMLElement | undefined} */ (over.find(each => each.matches('.clip-grips.pointed')));
      const lane = over.find(each => each.matches('.lane, .strip'))?.closest('.lane');
      const at = grips ?? (lane ? [...lane.querySelectorAll('.clip-frame')].find(each => {
        const box = each.getBoundingClientRect();
        return event.clientX >= box.left && event.clientX <= box.right;
      }) : undefined);
      this.#point(/** @type {HTMLElement | undefined} */ (at)?.dataset.clip ?? null);
    }
  }

  /** @param {string | null} clipId */
  #point(clipId) {
    document.querySelectorAll('[data-clip].pointed').forEach(part => part.classList.remove('pointed'));
    document.querySelectorAll(`.clip-frame[data-clip="${clipId}"], .clip-grips[data-clip="${clipId}"]`).forEach(part => {
      part.classList.add('pointed');
      this.#elements.complete(part);
    });
  }
}
