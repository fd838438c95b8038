// The rows of the page: only those near the window exist. Makes and draws them, and knows which frame is under the pointer.
import { onScale } from '../shared/level-scale.js';
import { whenIdle } from '../shared/when-idle.js';
import { columns, drawLane } from './lanes.js';
import { makeRow } from './row-elements.js';
import { drawSpectrum, spectrumOf } from './spectrum.js';
import { WAVE_BELOW, drawWave, samplesOf } from './wave.js';

/** @typedef {import('./layout.js').Layout} Layout */
/** @typedef {import('./types.js').TrackView} TrackView */
/** A track in a row, with the strip above it for names, flags and grips. @typedef {{ track: TrackView, index: number, lane: HTMLElement, strip: HTMLElement }} Lane */
/**
 * @typedef {{ number: number, element: HTMLElement, sound: HTMLElement, play: HTMLButtonElement, words: HTMLElement, lanes: Lane[],
 *   says: string }} Row
 */

/**
 * All that a row's drawing depends on: a row of which this is the same is left as it is.
 *
 * @param {Layout} layout @param {number} number @param {number} laneHeight
 */
function signature(layout, number, laneHeight) {
  const { timeline } = layout;
  const here = layout.tracksIn(number).map(track => [track.id, layout.share(track.id), track.name, timeline.tracks.indexOf(track), track.gainDb, track.curve,
    track.clips.filter(clip => clip.startFrame < layout.rowEnd(number) && clip.startFrame + clip.frames > layout.rowStart(number) - layout.leadFrames)
      .map(clip => [clip.source, clip.startFrame, clip.sourceFrame, clip.frames, clip.gainDb, clip.fadeIn, clip.fadeOut,
        timeline.takes[clip.source.takeId]?.clipped?.length])]);
  return JSON.stringify([layout.rowFrames, layout.rowStart(number), layout.rowEnd(number), laneHeight, here]);
}

/** A row that is left as it is, with its tracks as they are now. @param {Row} row @param {import('./types.js').TimelineView} timeline */
function renewed(row, timeline) {
  row.lanes.forEach(lane => { lane.track = timeline.tracks.find(({ id }) => id === lane.track.id) ?? lane.track; });
  return row;
}

/** Does work on rows unseen by Alpine, which would walk through all that comes and goes. @param {() => void} work */
const apart = work => window.Alpine.mutateDom(work);

/** So much above and below the window there are rows too, in windows. */
const AROUND = 0.5;
/** Rows that are not seen yet are made for so long in each frame. */
const FRAME_MS = 4;

export class Rows {
  #element;
  #icons;
  #band;
  /** @type {Layout | null} */
  #layout = null;
  #laneHeight = 0;
  /** Of every lane; 0 until it is measured, which makes the browser lay out the page. */
  #width = 0;
  /** Those near the window, by their numbers. @type {Map<number, Row>} */
  #rows = new Map();
  /** @type {((row: Row) => void)[]} */
  #decorators = [];
  #generation = 0;
  /** Whether the window is met in the next frame. */
  #waiting = false;
  /** Whether the window is met once nothing presses. */
  #idle = false;
  /** Whether frequencies are drawn behind levels. */
  spectrum = false;

  /** @param {HTMLElement} element @param {string} icons where they are @param {{ low: number, high: number }} band of good levels, in dBFS */
  constructor(element, icons, band) {
    this.#element = element;
    this.#icons = icons;
    this.#band = band;
    let width = 0;
    new ResizeObserver(() => {
      if (this.#layout && element.clientWidth !== width) {
        width = element.clientWidth;
        this.redraw();
      }
    }).observe(element);
    for (const event of ['scroll', 'resize']) {
      window.addEventListener(event, () => this.#meetLater(), { passive: true });
    }
  }

  /** In the next frame. */
  #meetLater() {
    if (!this.#waiting) {
      this.#waiting = true;
      requestAnimationFrame(() => {
        this.#waiting = false;
        apart(() => this.#meetWindow());
      });
    }
  }

  async #meetWhenIdle() {
    if (!this.#idle) {
      this.#idle = true;
      await whenIdle();
      this.#idle = false;
      apart(() => this.#meetWindow());
    }
  }

  /** Calls with every row that is there, whenever it is made or what it shows has changed. @param {(row: Row) => void} decorate */
  onRow(decorate) {
    this.#decorators.push(decorate);
  }

  /** @param {Layout} layout @param {number} laneHeight in pixels */
  show(layout, laneHeight) {
    this.#layout = layout;
    this.#laneHeight = laneHeight;
    layout.place(laneHeight);
    this.#element.style.setProperty('--lane-height', `${laneHeight}px`);
    this.#element.style.height = `${layout.tops[layout.rowCount] ?? 0}px`;
    apart(() => this.#renew(layout));
  }

  /** Keeps the rows that are as they were, and makes the others. @param {Layout} layout */
  #renew(layout) {
    for (const [number, row] of this.#rows) {
      if (number >= layout.rowCount || row.says !== signature(layout, number, this.#laneHeight)) {
        this.#drop(number, row);
      } else {
        renewed(row, layout.timeline);
        row.element.style.top = `${layout.tops[number]}px`;
      }
    }
    const kept = this.all;
    this.#meetWindow();
    kept.forEach(row => this.#decorate(row));
  }

  /** Makes the rows that are near the window, and drops the others but one with the focus. */
  #meetWindow() {
    const layout = this.#layout;
    if (!layout || layout.rowCount === 0) {
      this.#rows.forEach((row, number) => this.#drop(number, row));
      return;
    }
    const top = this.#element.getBoundingClientRect().top;
    const height = window.innerHeight;
    const [first, last] = layout.rowsBetween(-top - AROUND * height, -top + (1 + AROUND) * height);
    for (const [number, row] of this.#rows) {
      if ((number < first || number > last) && !row.element.contains(document.activeElement)) {
        this.#drop(number, row);
      }
    }
    const [firstSeen, lastSeen] = layout.rowsBetween(-top, -top + height);
    const until = performance.now() + FRAME_MS;
    /** @type {Row[]} */
    const added = [];
    /** @param {number} number whether it is made now: what is seen at once, the rest in the frames that follow */
    const add = number => {
      const now = (number >= firstSeen && number <= lastSeen) || performance.now() < until;
      if (now) {
        added.push(this.#add(layout, number));
      }
      return now;
    };
    const missing = Array.from({ length: last - first + 1 }, (_, i) => first + i).filter(number => !this.#rows.has(number));
    if (!missing.map(add).every(Boolean)) {
      // what is there already is seen first
      this.#meetWhenIdle();
    }
    // all are there before the first is measured, so that the page is laid out once
    added.forEach(row => row.lanes.forEach(lane => this.#draw(layout, row, lane, this.#generation)));
  }

  /** @param {Layout} layout @param {number} number */
  #add(layout, number) {
    const row = { ...makeRow(layout, number, this.#icons), says: signature(layout, number, this.#laneHeight) };
    row.element.style.top = `${layout.tops[number]}px`;
    const later = [...this.#rows.values()].filter(other => other.number > number).sort((a, b) => a.number - b.number)[0];
    this.#rows.set(number, row);
    // one change of the document, not one for each clip
    this.#decorate(row);
    this.#element.insertBefore(row.element, later?.element ?? null);
    return row;
  }

  /** @param {Row} row */
  #decorate(row) {
    this.#decorators.forEach(decorate => decorate(row));
  }

  /** @param {number} number @param {Row} row */
  #drop(number, row) {
    row.element.remove();
    this.#rows.delete(number);
  }

  /** Draws everything anew. */
  redraw() {
    this.#generation++;
    this.#width = 0;
    const layout = this.#layout;
    if (layout) {
      this.#rows.forEach(row => row.lanes.forEach(lane => this.#draw(layout, row, lane, this.#generation)));
    }
  }

  /** Those near the window. */
  get all() {
    return [...this.#rows.values()];
  }

  /** A row, if it is near the window. @param {number} number @returns {Row | undefined} */
  row(number) {
    return this.#rows.get(number);
  }

  /** Where a row is on the screen, from the top of the window, whether it is there or not. @param {number} number */
  placeOf(number) {
    const top = this.#element.getBoundingClientRect().top + (this.#layout?.tops[number] ?? 0);
    return { top, bottom: top + (this.#layout ? this.#layout.tops[number + 1] - this.#layout.tops[number] : 0) };
  }

  /** Scrolls as little as is needed so that all of a row can be seen. @param {number} number @param {'nearest' | 'center'} [where] */
  bringIntoView(number, where = 'nearest') {
    const { top, bottom } = this.placeOf(number);
    const head = document.querySelector('header')?.getBoundingClientRect().bottom ?? 0;
    const foot = window.innerHeight - (document.getElementById('foot')?.offsetHeight ?? 0);
    const by = where === 'center' ? (top + bottom - head - foot) / 2
      : top < Math.max(0, head) ? top - Math.max(0, head) - 8 : bottom > foot ? bottom - foot + 8 : 0;
    if (by !== 0) {
      window.scrollBy(0, by);
      apart(() => this.#meetWindow());
    }
  }

  /** The row and frame under a pointer; the nearest row where it is between or beside them. @param {number} clientX @param {number} clientY */
  at(clientX, clientY) {
    /** @type {{ row: Row, box: DOMRect } | null} */
    let nearest = null;
    let distance = Infinity;
    for (const row of this.#rows.values()) {
      const box = row.sound.getBoundingClientRect();
      const away = Math.max(box.top - clientY, clientY - box.bottom, 0);
      if (away < distance) {
        distance = away;
        nearest = { row, box };
      }
    }
    if (!nearest || !this.#layout) {
      return null;
    }
    const part = (clientX - nearest.box.left) / nearest.box.width;
    return { row: nearest.row.number, frame: this.#layout.frameAt(nearest.row.number, part) };
  }

  /** @param {Layout} layout @param {Row} row @param {Lane} lane @param {number} generation */
  async #draw(layout, row, { track, index, lane }, generation) {
    this.#width ||= Math.floor(lane.clientWidth);
    const width = this.#width;
    const size = { width, height: Math.round(this.#laneHeight * layout.share(track.id)) };
    if (width === 0) {
      return;
    }
    const start = layout.rowStart(row.number);
    const from = start - layout.leadFrames;
    const end = layout.rowEnd(row.number);
    const greyed = Math.round(width * layout.part(row.number, start));
    const drawn = Math.max(1, Math.round(width * Math.min(1, layout.part(row.number, end))));
    const current = () => generation === this.#generation && lane.isConnected;
    if (layout.rowSeconds < WAVE_BELOW) {
      const wave = await samplesOf(track, from, end).catch(() => null);
      if (wave && current()) {
        drawWave(this.#canvas(lane), wave, size, drawn, index, greyed);
      }
      return;
    }
    const levels = await columns(track, layout.timeline.takes, from, end, drawn).catch(() => null);
    if (!levels || !current()) {
      return;
    }
    const canvas = this.#canvas(lane);
    drawLane(canvas, levels, size, index, greyed, this.#band, this.spectrum);
    this.#describe(row, track, levels);
    const steps = this.spectrum ? await spectrumOf(track, from, end, drawn).catch(() => null) : null;
    if (steps && current()) {
      drawSpectrum(canvas, steps, drawn);
    }
  }

  /** @param {HTMLElement} lane */
  #canvas(lane) {
    const canvas = lane.querySelector('canvas') ?? lane.appendChild(document.createElement('canvas'));
    canvas.setAttribute('aria-hidden', 'true');
    return canvas;
  }

  /** Adds the measured level to the row's words, once it is known. @param {Row} row @param {TrackView} track @param {import('./lanes.js').Column[]} levels */
  #describe(row, track, levels) {
    const heard = levels.flatMap(level => (level && onScale(level.average) ? [level] : []));
    if (heard.length === 0) {
      return;
    }
    const mean = heard.reduce((sum, level) => sum + level.average, 0) / heard.length;
    const clipped = levels.some(level => level?.clipped) ? ', clipped in places' : '';
    row.words.textContent += ` ${track.name}: about ${Math.round(mean)} dB${clipped}.`;
  }
}
