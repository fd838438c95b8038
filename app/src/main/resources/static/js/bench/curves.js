// The volume curves of tracks: a line over the lanes, with points that are dragged, moved by arrows, and taken away.
import { lowestCurveDb, highestCurveDb } from '../page/laws.js';
import { curveDbAt } from '../page/lanes.js';
import { LONG_STEP, STEP } from '../page/steps.js';
import { fineClock } from '../shared/time.js';

/** @typedef {import('../page/types.js').CurvePoint} CurvePoint */
/** @typedef {import('./types.js').TrackView} TrackView */
/** A point that is being moved, until the pointer or the key is up. @typedef {{ track: TrackView, was: CurvePoint, now: CurvePoint, gesture: import('./types.js').Gesture }} Drag */

/** What the height of a lane stands for, in dB. */
const TOP_DB = 12;
const BOTTOM_DB = -48;
const NEAREST_FRAMES = 48;
/** Presses that follow each other so quickly are one. */
const TOGETHER_MS = 250;

/** @param {number} gainDb how far from the top, from 0 to 1 */
const down = gainDb => Math.max(0, Math.min(1, (TOP_DB - gainDb) / (TOP_DB - BOTTOM_DB)));

/** @param {number} gainDb */
const inWords = gainDb => (gainDb <= lowestCurveDb ? 'silent' : `${gainDb.toFixed(1)} dB`);

export class Curves {
  #bench;
  #own;
  /** @type {Drag | null} */
  #drag = null;
  /** @type {number | undefined} */
  #waiting;

  /** @param {boolean} own whether the page may be changed @param {import('./types.js').Bench} bench */
  constructor(own, bench) {
    this.#bench = bench;
    this.#own = own;
    bench.rows.onRow(row => this.#draw(row));
  }

  /** Adds a point at the position, as loud as it is there. @param {number} trackId @param {number} frame */
  add(trackId, frame) {
    const track = this.#bench.timeline().tracks.find(({ id }) => id === trackId);
    if (track) {
      const added = { frame, gainDb: Math.round(2 * curveDbAt(track.curve, frame)) / 2 };
      this.#send(track, [...track.curve.filter(point => point.frame !== frame), added], this.#bench.gesture(), 'A point is set. Drag it up or down.', added);
    }
  }

  /** @param {import('../page/rows.js').Row} row */
  #draw(row) {
    const layout = this.#bench.layout();
    for (const { track, lane } of row.lanes) {
      lane.querySelectorAll('.curve, .curve-point').forEach(old => old.remove());
      const curve = this.#drag?.track.id === track.id ? changed(track.curve, this.#drag.was, this.#drag.now) : track.curve;
      if (curve.length === 0) {
        continue;
      }
      const from = layout.rowStart(row.number);
      const to = layout.rowEnd(row.number);
      const here = curve.filter(({ frame }) => frame >= from && frame < to);
      const line = [{ frame: from, gainDb: curveDbAt(curve, from) }, ...here, { frame: to, gainDb: curveDbAt(curve, to) }];
      const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
      svg.setAttribute('class', 'curve');
      svg.setAttribute('viewBox', '0 0 1000 100');
      svg.setAttribute('preserveAspectRatio', 'none');
      svg.setAttribute('aria-hidden', 'true');
      const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
      path.setAttribute('d', line.map(({ frame, gainDb }, i) => `${i === 0 ? 'M' : 'L'}${1000 * layout.part(row.number, frame)} ${100 * down(gainDb)}`).join(''));
      svg.append(path);
      lane.append(svg);
      if (this.#own) {
        lane.append(...here.map(point => this.#point(track, point, row.number)));
      }
    }
  }

  /** @param {TrackView} track @param {CurvePoint} point @param {number} row */
  #point(track, point, row) {
    const button = document.createElement('button');
    button.type = 'button';
    button.className = 'curve-point';
    button.dataset.track = String(track.id);
    button.dataset.frame = String(point.frame);
    button.style.left = `${100 * this.#bench.layout().part(row, point.frame)}%`;
    button.style.top = `${100 * down(point.gainDb)}%`;
    button.setAttribute('aria-label', `Volume point of ${track.name}, ${fineClock(point.frame, 2)}, ${inWords(point.gainDb)}. Arrows move it, Delete takes it away.`);
    button.title = inWords(point.gainDb);
    button.addEventListener('pointerdown', event => {
      event.stopPropagation();
      button.setPointerCapture(event.pointerId);
      this.#drag = { track, was: point, now: point, gesture: this.#bench.gesture() };
    });
    button.addEventListener('pointermove', event => this.#to(event, button));
    button.addEventListener('pointerup', () => this.#end());
    button.addEventListener('pointercancel', () => { this.#drag = null; });
    button.addEventListener('keydown', event => this.#key(event, track, point, button));
    button.addEventListener('keyup', () => {
      clearTimeout(this.#waiting);
      this.#waiting = window.setTimeout(() => this.#end(), TOGETHER_MS);
    });
    button.addEventListener('blur', () => this.#end());
    return button;
  }

  /** @param {PointerEvent} event @param {HTMLElement} button */
  #to(event, button) {
    const place = this.#bench.rows.at(event.clientX, event.clientY);
    const lane = button.closest('.lane')?.getBoundingClientRect();
    if (this.#drag && place && lane) {
      const gainDb = TOP_DB - (event.clientY - lane.top) / lane.height * (TOP_DB - BOTTOM_DB);
      this.#move({ frame: Math.round(place.frame / STEP) * STEP, gainDb: event.clientY > lane.bottom ? lowestCurveDb : Math.round(2 * gainDb) / 2 }, button);
    }
  }

  /** @param {KeyboardEvent} event @param {TrackView} track @param {CurvePoint} point @param {HTMLElement} button */
  #key(event, track, point, button) {
    const sideways = { ArrowLeft: -1, ArrowRight: 1 }[event.key] ?? 0;
    const up = { ArrowUp: 1, ArrowDown: -1 }[event.key] ?? 0;
    if (event.key === 'Delete' || event.key === 'Backspace') {
      this.#send(track, track.curve.filter(other => other.frame !== point.frame), this.#bench.gesture(), 'The point is gone. Undo brings it back.', null);
    } else if (sideways || up) {
      clearTimeout(this.#waiting);
      this.#drag ??= { track, was: point, now: point, gesture: this.#bench.gesture() };
      this.#move({ frame: this.#drag.now.frame + sideways * (event.shiftKey ? LONG_STEP : STEP), gainDb: this.#drag.now.gainDb + up * (event.shiftKey ? 3 : 0.5) }, button);
    } else {
      return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  /** @param {CurvePoint} wanted @param {HTMLElement} button */
  #move({ frame, gainDb }, button) {
    const drag = this.#drag;
    if (!drag) {
      return;
    }
    // between its neighbours
    const earlier = drag.track.curve.filter(point => point.frame < drag.was.frame).map(point => point.frame + NEAREST_FRAMES);
    const later = drag.track.curve.filter(point => point.frame > drag.was.frame).map(point => point.frame - NEAREST_FRAMES);
    drag.now = { frame: Math.max(0, ...earlier, Math.min(frame, ...later)), gainDb: Math.max(lowestCurveDb, Math.min(highestCurveDb, gainDb)) };
    this.#bench.page.say(`${drag.track.name}: ${inWords(drag.now.gainDb)} at ${fineClock(drag.now.frame, 2)}`);
    const layout = this.#bench.layout();
    button.style.left = `${100 * layout.part(layout.rowOf(drag.now.frame), drag.now.frame)}%`;
    button.style.top = `${100 * down(drag.now.gainDb)}%`;
  }

  #end() {
    clearTimeout(this.#waiting);
    const drag = this.#drag;
    this.#drag = null;
    if (drag && (drag.now.frame !== drag.was.frame || drag.now.gainDb !== drag.was.gainDb)) {
      this.#send(drag.track, changed(drag.track.curve, drag.was, drag.now), drag.gesture,
        `${drag.track.name}: ${inWords(drag.now.gainDb)} at ${fineClock(drag.now.frame, 2)}.`, drag.now);
    }
  }

  /** @param {TrackView} track @param {CurvePoint[]} points @param {import('./types.js').Gesture} gesture @param {string} said @param {CurvePoint | null} focus */
  async #send(track, points, gesture, said, focus) {
    await this.#bench.edit({ type: 'draw-curve', trackId: track.id, points }, gesture, said);
    if (focus) {
      /** @type {HTMLElement | null} */ (document.querySelector(`.curve-point[data-track="${track.id}"][data-frame="${focus.frame}"]`))?.focus({ preventScroll: true });
    }
  }
}

/** @param {CurvePoint[]} points @param {CurvePoint} was @param {CurvePoint} now */
const changed = (points, was, now) => points.map(point => (point.frame === was.frame ? now : point));
