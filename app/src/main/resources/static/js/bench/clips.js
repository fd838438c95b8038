// The clips on the page: where they start and end, and the grips by which one that is pointed at or focused is moved and
// trimmed, by pointer or by arrows. What a drag will do is outlined before it happens.
import { RATE, fineClock } from '../shared/time.js';
import { snapped } from '../page/snapping.js';

/** @typedef {import('./types.js').ClipView} ClipView */
/** @typedef {import('./types.js').TrackView} TrackView */
/** @typedef {import('./types.js').Wish} Wish */
/** @typedef {keyof GRIPS} Grip */
/**
 * @typedef {{ grip: Grip, clip: ClipView, track: TrackView, anchor: number, gesture: import('./types.js').Gesture, wish: Wish | null,
 *   outlines: HTMLElement[] }} Drag
 */

const STEP = RATE / 100;
const LONG_STEP = RATE / 10;
const GRIPS = {
  move: { icon: 'move-horizontal', words: 'Move' },
  start: { icon: 'chevrons-right', words: 'Trim the start of' },
  end: { icon: 'chevrons-left', words: 'Trim the end of' },
};

export class Clips {
  #bench;
  #icons;
  /** @type {Drag | null} */
  #drag = null;

  /** @param {HTMLElement} element that holds the rows @param {string} icons where they are @param {import('./types.js').Bench} bench */
  constructor(element, icons, bench) {
    this.#bench = bench;
    this.#icons = icons;
    element.addEventListener('pointermove', event => this.#pointed(event));
    element.addEventListener('pointerleave', () => this.#point(null));
  }

  /** Lays frames over the lanes; with grips where the page may be changed. @param {boolean} own */
  draw(own) {
    const layout = this.#bench.layout();
    for (const row of this.#bench.rows.all) {
      for (const { track, lane } of row.lanes) {
        lane.querySelectorAll('.clip-frame').forEach(old => old.remove());
        for (const clip of track.clips) {
          const start = Math.max(clip.startFrame, layout.rowStart(row.number));
          const end = Math.min(clip.startFrame + clip.frames, layout.rowEnd(row.number));
          if (start < end) {
            lane.append(this.#frame(clip, track, row.number, start, end, own));
          }
        }
      }
    }
  }

  /** Puts the focus back on a grip after the page was drawn anew. @param {number} clipId @param {Grip} grip */
  focus(clipId, grip) {
    const shown = document.querySelector(`.clip-grip[data-clip="${clipId}"][data-grip="${grip}"]`);
    /** @type {HTMLElement | null} */ (shown)?.focus({ preventScroll: true });
  }

  /** @param {ClipView} clip @param {TrackView} track @param {number} row @param {number} start @param {number} end @param {boolean} own */
  #frame(clip, track, row, start, end, own) {
    const layout = this.#bench.layout();
    const frame = document.createElement('div');
    frame.className = 'clip-frame';
    frame.dataset.clip = String(clip.id);
    frame.style.left = `${100 * layout.part(row, start)}%`;
    frame.style.width = `${100 * (layout.part(row, end) - layout.part(row, start))}%`;
    const starts = start === clip.startFrame;
    const ends = end === clip.startFrame + clip.frames;
    frame.classList.toggle('starts', starts);
    frame.classList.toggle('ends', ends);
    if (own) {
      /** @type {[Grip, boolean][]} */
      const grips = [['move', true], ['start', starts], ['end', ends]];
      frame.append(...grips.filter(([, here]) => here).map(([grip]) => this.#grip(grip, clip, track)));
    }
    return frame;
  }

  /** @param {Grip} grip @param {ClipView} clip @param {TrackView} track */
  #grip(grip, clip, track) {
    const button = document.createElement('button');
    button.type = 'button';
    button.className = `clip-grip clip-grip-${grip}`;
    button.dataset.clip = String(clip.id);
    button.dataset.grip = grip;
    const where = `${track.name}, ${fineClock(clip.startFrame)} to ${fineClock(clip.startFrame + clip.frames)}`;
    button.setAttribute('aria-label', `${GRIPS[grip].words} the clip of ${where}`);
    button.title = grip === 'move' ? 'move' : 'trim';
    button.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${this.#icons}#${GRIPS[grip].icon}"></use></svg>`;
    button.addEventListener('focus', () => this.#bench.onChosen(clip.id));
    button.addEventListener('click', () => this.#bench.onChosen(clip.id));
    button.addEventListener('pointerdown', event => this.#begin(event, grip, clip, track));
    button.addEventListener('pointermove', event => this.#to(event));
    button.addEventListener('pointerup', () => this.#end());
    button.addEventListener('pointercancel', () => this.#forget());
    button.addEventListener('keydown', event => this.#key(event, grip, clip, track));
    return button;
  }

  // ---- by pointer

  /** @param {PointerEvent} event @param {Grip} grip @param {ClipView} clip @param {TrackView} track */
  #begin(event, grip, clip, track) {
    event.stopPropagation();
    /** @type {HTMLElement} */ (event.currentTarget).setPointerCapture(event.pointerId);
    const anchor = this.#bench.rows.at(event.clientX, event.clientY)?.frame ?? clip.startFrame;
    this.#drag = { grip, clip, track, anchor, gesture: this.#bench.gesture(), wish: null, outlines: [] };
  }

  /** @param {PointerEvent} event */
  #to(event) {
    const drag = this.#drag;
    const place = this.#bench.rows.at(event.clientX, event.clientY);
    if (!drag || !place) {
      return;
    }
    const { clip, grip } = drag;
    const by = place.frame - drag.anchor;
    const lane = /** @type {HTMLElement | undefined} */ (document.elementsFromPoint(event.clientX, event.clientY).find(element => element.matches('.lane')));
    const trackId = grip === 'move' && lane ? Number(lane.dataset.track) : drag.track.id;
    const own = grip === 'end' ? clip.startFrame + clip.frames : clip.startFrame;
    const frame = event.altKey ? own + by : snapped(own + by, this.#bench, clip);
    drag.wish = frame === own && trackId === drag.track.id ? null : wishFor(grip, clip, trackId, frame);
    this.#outline(drag, trackId, frame);
  }

  /** @param {Drag} drag @param {number} trackId @param {number} frame */
  #outline(drag, trackId, frame) {
    drag.outlines.forEach(outline => outline.remove());
    const { clip, grip } = drag;
    const start = grip === 'end' ? clip.startFrame : Math.max(0, frame);
    const end = grip === 'end' ? frame : grip === 'start' ? clip.startFrame + clip.frames : start + clip.frames;
    const layout = this.#bench.layout();
    drag.outlines = this.#bench.rows.all.flatMap(row => {
      const from = Math.max(start, layout.rowStart(row.number));
      const to = Math.min(end, layout.rowStart(row.number) + layout.rowFrames);
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

  #end() {
    const drag = this.#drag;
    this.#forget();
    if (drag?.wish) {
      this.#bench.edit(drag.wish, drag.gesture).then(() => this.focus(drag.clip.id, drag.grip));
    }
  }

  #forget() {
    this.#drag?.outlines.forEach(outline => outline.remove());
    this.#drag = null;
  }

  // ---- by keyboard

  /** @param {KeyboardEvent} event @param {Grip} grip @param {ClipView} clip @param {TrackView} track */
  #key(event, grip, clip, track) {
    const tracks = this.#bench.timeline().tracks;
    const index = tracks.findIndex(each => each.id === track.id);
    const own = grip === 'end' ? clip.startFrame + clip.frames : clip.startFrame;
    const step = event.shiftKey ? LONG_STEP : STEP;
    let wish = null;
    if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
      wish = wishFor(grip, clip, track.id, own + (event.key === 'ArrowLeft' ? -step : step));
    } else if (grip === 'move' && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      const other = tracks[index + (event.key === 'ArrowUp' ? -1 : 1)];
      wish = other ? wishFor(grip, clip, other.id, clip.startFrame) : null;
    } else {
      return;
    }
    event.preventDefault();
    event.stopPropagation();
    if (wish) {
      this.#bench.edit(wish).then(() => this.focus(clip.id, grip));
    }
  }

  // ---- pointing

  /** @param {PointerEvent} event */
  #pointed(event) {
    if (!this.#drag) {
      const frames = document.elementsFromPoint(event.clientX, event.clientY).filter(each => each.matches('.lane, .clip-frame'));
      const lane = frames.find(each => each.matches('.lane'));
      const at = lane ? [...lane.querySelectorAll('.clip-frame')].find(each => {
        const box = each.getBoundingClientRect();
        return event.clientX >= box.left && event.clientX <= box.right;
      }) : undefined;
      this.#point(/** @type {HTMLElement | undefined} */ (at)?.dataset.clip ?? null);
    }
  }

  /** @param {string | null} clipId */
  #point(clipId) {
    document.querySelectorAll('.clip-frame.pointed').forEach(frame => frame.classList.remove('pointed'));
    document.querySelectorAll(`.clip-frame[data-clip="${clipId}"]`).forEach(frame => frame.classList.add('pointed'));
  }
}

/** @param {Grip} grip @param {ClipView} clip @param {number} trackId @param {number} frame @returns {Wish} */
function wishFor(grip, clip, trackId, frame) {
  return grip === 'move' ? { type: 'move', clipId: clip.id, trackId, startFrame: Math.max(0, frame) }
    : { type: 'trim', clipId: clip.id, edge: grip === 'start' ? 'START' : 'END', frame: Math.max(0, frame) };
}
