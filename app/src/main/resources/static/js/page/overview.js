// The whole page, small, at the right edge, with what is in the window as a frame; a click goes there.
import { heightOf } from '../shared/level-scale.js';
import { clock } from '../shared/time.js';
import { whenIdle } from '../shared/when-idle.js';
import { columns, inkOf } from './lanes.js';

const WIDTH = 32;
/** Beyond so many rows one line of the picture stands for several. */
const MOST_LINES = 160;
const LEAST_LABEL_PIXELS = 34;

export class Overview {
  #element;
  #canvas = document.createElement('canvas');
  #frame = document.createElement('div');
  #marks = document.createElement('div');
  /** @type {{ start: number, end: number }[]} */
  #marked = [];
  #times = document.createElement('div');
  /** @type {import('./layout.js').Layout | null} */
  #layout = null;
  #drawing = 0;
  #rowsElement;

  /** @param {HTMLElement} element @param {HTMLElement} rowsElement @param {(y: number) => void} onClick with a place in pixels from the top of the page of rows */
  constructor(element, rowsElement, onClick) {
    this.#element = element;
    this.#rowsElement = rowsElement;
    this.#frame.className = 'overview-frame';
    this.#times.className = 'overview-times';
    this.#times.setAttribute('aria-hidden', 'true');
    this.#marks.className = 'overview-marks';
    element.append(this.#canvas, this.#times, this.#marks, this.#frame);
    element.addEventListener('click', event => onClick((event.clientY - element.getBoundingClientRect().top) / this.#scale()));
    window.addEventListener('scroll', () => this.#showFrame(), { passive: true });
    window.addEventListener('resize', () => this.#showFrame(), { passive: true });
  }

  /** Draws stretches beside the picture, as what is still to be heard. @param {{ start: number, end: number }[]} spans */
  mark(spans) {
    this.#marked = spans;
    const layout = this.#layout;
    if (!layout) {
      return;
    }
    const scale = this.#scale();
    this.#marks.replaceChildren(...spans.map(({ start, end }) => {
      const mark = document.createElement('i');
      const top = layout.y(start) * scale;
      mark.style.top = `${top}px`;
      mark.style.height = `${Math.max(3, layout.y(end) * scale - top)}px`;
      return mark;
    }));
  }

  /** Pixels of the picture a pixel of the page. */
  #scale() {
    const whole = this.#layout?.tops[this.#layout.rowCount] ?? 1;
    return Math.min(0.16, this.#element.clientHeight / Math.max(1, whole));
  }

  /** @param {import('./layout.js').Layout} layout */
  async show(layout) {
    this.#layout = layout;
    const drawing = ++this.#drawing;
    // the page itself comes first
    await whenIdle();
    if (drawing !== this.#drawing) {
      return;
    }
    this.#showFrame();
    this.#showTimes(layout);
    this.mark(this.#marked);
    const scale = this.#scale();
    const step = Math.ceil(layout.rowCount / MOST_LINES);
    /** @type {[number, number, import('./lanes.js').Column[], number][]} */
    const lines = [];
    for (let row = 0; row < layout.rowCount; row += step) {
      const tracks = layout.tracksIn(row);
      const height = (layout.tops[Math.min(layout.rowCount, row + step)] - layout.tops[row]) * scale / Math.max(1, tracks.length);
      for (const [place, track] of tracks.entries()) {
        const levels = await columns(track, layout.timeline.takes, layout.rowStart(row), layout.rowEnd(row), Math.max(1, Math.round(WIDTH * Math.min(1, layout.part(row, layout.rowEnd(row)))))).catch(() => []);
        lines.push([layout.tops[row] * scale + (place + 1) * height, height, levels, layout.timeline.tracks.indexOf(track)]);
      }
      if (drawing !== this.#drawing) {
        return;
      }
    }
    this.#draw(lines);
  }

  /** @param {[number, number, import('./lanes.js').Column[], number][]} lines */
  #draw(lines) {
    const ratio = window.devicePixelRatio || 1;
    this.#canvas.width = WIDTH * ratio;
    this.#canvas.height = Math.max(1, this.#element.clientHeight * ratio);
    const pen = /** @type {CanvasRenderingContext2D} */ (this.#canvas.getContext('2d'));
    pen.scale(ratio, ratio);
    for (const [bottom, height, levels, index] of lines) {
      pen.fillStyle = inkOf(index);
      levels.forEach((level, x) => {
        if (level) {
          const tall = Math.max(0.5, 0.85 * height * heightOf(level.average));
          pen.fillRect(x, bottom - tall, 1, tall);
        }
      });
    }
  }

  /** @param {import('./layout.js').Layout} layout */
  #showTimes(layout) {
    const scale = this.#scale();
    let last = -Infinity;
    const labels = [];
    for (let row = 0; row < layout.rowCount; row++) {
      const y = layout.tops[row] * scale;
      if (y - last >= LEAST_LABEL_PIXELS) {
        last = y;
        const label = document.createElement('span');
        label.textContent = clock(layout.rowStart(row));
        label.style.top = `${y}px`;
        labels.push(label);
      }
    }
    this.#times.replaceChildren(...labels);
  }

  #showFrame() {
    const layout = this.#layout;
    if (layout) {
      const top = -this.#rowsElement.getBoundingClientRect().top;
      const from = Math.max(0, top);
      const to = Math.min(layout.tops[layout.rowCount] ?? 0, top + window.innerHeight);
      this.#frame.style.top = `${from * this.#scale()}px`;
      this.#frame.style.height = `${Math.max(4, (to - from) * this.#scale())}px`;
    }
  }
}
