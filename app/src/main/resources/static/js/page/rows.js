// The rows of the page: makes their elements, draws those that can be seen, and knows which frame is under the pointer.
import { onScale } from '../shared/level-scale.js';
import { clock } from '../shared/time.js';
import { columns, drawLane, inkOf } from './lanes.js';
import { shortName } from './names.js';

/** @typedef {import('./layout.js').Layout} Layout */
/** @typedef {import('./types.js').TrackView} TrackView */
/** @typedef {{ track: TrackView, index: number, lane: HTMLElement }} Lane */
/**
 * @typedef {{ number: number, element: HTMLElement, sound: HTMLElement, play: HTMLButtonElement, words: HTMLElement, lanes: Lane[],
 *   drawn: number, says: string }} Row
 */

/**
 * All that a row's drawing depends on: a row of which this is the same is left as it is.
 *
 * @param {Layout} layout @param {number} number @param {number} laneHeight
 */
function signature(layout, number, laneHeight) {
  const { timeline } = layout;
  const here = layout.tracksIn(number).map(track => [track.id, track.name, timeline.tracks.indexOf(track), track.gainDb,
    track.clips.filter(clip => clip.startFrame < layout.rowEnd(number) && clip.startFrame + clip.frames > layout.rowStart(number) - layout.leadFrames)
      .map(clip => [clip.source, clip.startFrame, clip.sourceFrame, clip.frames, clip.gainDb, clip.fadeIn, clip.fadeOut,
        timeline.takes[clip.source.takeId]?.clipped?.length])]);
  return JSON.stringify([layout.rowFrames, layout.rowEnd(number), laneHeight, here]);
}

/** A row that is left as it is, with its tracks as they are now. @param {Row} row @param {import('./types.js').TimelineView} timeline */
function renewed(row, timeline) {
  row.lanes.forEach(lane => { lane.track = timeline.tracks.find(({ id }) => id === lane.track.id) ?? lane.track; });
  return row;
}

export class Rows {
  #element;
  #icons;
  #band;
  /** @type {Layout | null} */
  #layout = null;
  /** @type {Row[]} */
  #rows = [];
  #watcher;
  #generation = 0;

  /** @param {HTMLElement} element @param {string} icons where they are @param {{ low: number, high: number }} band of good levels, in dBFS */
  constructor(element, icons, band) {
    this.#element = element;
    this.#icons = icons;
    this.#band = band;
    this.#watcher = new IntersectionObserver(entries => entries.forEach(entry => this.#seen(entry)), { rootMargin: '200px' });
    new ResizeObserver(() => this.#layout && this.redraw()).observe(element);
  }

  /** @param {Layout} layout @param {number} laneHeight in pixels */
  show(layout, laneHeight) {
    this.#layout = layout;
    this.#element.style.setProperty('--lane-height', `${laneHeight}px`);
    const before = this.#rows;
    this.#rows = Array.from({ length: layout.rowCount }, (_, number) => {
      const says = signature(layout, number, laneHeight);
      return before[number]?.says === says ? renewed(before[number], layout.timeline) : { ...this.#make(layout, number), says };
    });
    before.filter(row => !this.#rows.includes(row)).forEach(row => {
      this.#watcher.unobserve(row.element);
      row.element.remove();
    });
    this.#rows.forEach((row, number) => {
      if (this.#element.children[number] !== row.element) {
        this.#element.insertBefore(row.element, this.#element.children[number] ?? null);
        this.#watcher.observe(row.element);
      }
    });
  }

  /** Forgets what is drawn and draws what can be seen anew. */
  redraw() {
    this.#generation++;
    this.#watcher.disconnect();
    this.#rows.forEach(row => this.#watcher.observe(row.element));
  }

  get all() {
    return this.#rows;
  }

  /** @param {number} number @returns {Row | undefined} */
  row(number) {
    return this.#rows[number];
  }

  /** The row and frame under a pointer; the nearest row where it is between or beside them. @param {number} clientX @param {number} clientY */
  at(clientX, clientY) {
    /** @type {{ row: Row, box: DOMRect } | null} */
    let nearest = null;
    let distance = Infinity;
    for (const row of this.#rows) {
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

  /** @param {Layout} layout @param {number} number */
  #make(layout, number) {
    const tracks = layout.tracksIn(number);
    const element = document.createElement('section');
    element.className = number === 0 ? 'row first' : 'row';
    element.dataset.row = String(number);
    const times = `${clock(layout.rowStart(number))} to ${clock(layout.rowEnd(number))}`;
    element.setAttribute('aria-label', `Row ${times}`);

    const play = document.createElement('button');
    play.type = 'button';
    play.className = 'row-play';
    play.setAttribute('aria-label', `Play from ${clock(layout.rowStart(number))}`);
    play.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${this.#icons}#play"></use></svg>`;
    const start = document.createElement('span');
    start.textContent = clock(layout.rowStart(number));
    const head = document.createElement('div');
    head.className = 'row-head';
    head.append(start, play);

    const names = document.createElement('div');
    names.className = 'row-names';
    const sound = document.createElement('div');
    sound.className = 'row-sound';
    const lanes = tracks.map(track => {
      const index = layout.timeline.tracks.indexOf(track);
      const name = document.createElement('span');
      name.className = 'lane-name';
      name.style.color = inkOf(index);
      name.title = track.name;
      name.textContent = number === 0 ? track.name : shortName(track.name);
      names.append(name);
      const lane = document.createElement('div');
      lane.className = 'lane';
      lane.dataset.track = String(track.id);
      sound.append(lane);
      return { track, index, lane };
    });
    const words = document.createElement('p');
    words.className = 'visually-hidden';
    words.textContent = `${times}. ${lanes.map(({ track }) => this.#spans(layout, track, number)).join(' ')}`;
    const left = document.createElement('div');
    left.className = 'contents';
    left.append(head, names);
    element.append(left, sound, words);
    return { number, element, sound, play, words, lanes, drawn: -1 };
  }

  /** When a track has sound in a row, in words. @param {Layout} layout @param {TrackView} track @param {number} row */
  #spans(layout, track, row) {
    const spans = track.clips
      .map(clip => [Math.max(clip.startFrame, layout.rowStart(row)),
        Math.min(clip.startFrame + clip.frames, layout.rowEnd(row))])
      .filter(([start, end]) => start < end).map(([start, end]) => `${clock(start)} to ${clock(end)}`);
    return `${track.name}: ${spans.join(', ')}.`;
  }

  /** @param {IntersectionObserverEntry} entry */
  #seen(entry) {
    const row = this.#rows.find(({ element }) => element === entry.target);
    if (!row || !this.#layout) {
      return;
    }
    const layout = this.#layout;
    if (!entry.isIntersecting) {
      row.lanes.forEach(({ lane }) => lane.querySelector('canvas')?.remove());
      row.drawn = -1;
    } else if (row.drawn !== this.#generation) {
      row.drawn = this.#generation;
      row.lanes.forEach(lane => this.#draw(layout, row, lane, this.#generation));
    }
  }

  /** @param {Layout} layout @param {Row} row @param {Lane} lane @param {number} generation */
  async #draw(layout, row, { track, index, lane }, generation) {
    const width = Math.floor(lane.clientWidth);
    if (width === 0) {
      return;
    }
    const from = layout.rowStart(row.number) - layout.leadFrames;
    const levels = await columns(track, layout.timeline.takes, from, from + layout.rowFrames + layout.leadFrames, width)
      .catch(() => null);
    if (!levels || generation !== this.#generation) {
      return;
    }
    const canvas = lane.querySelector('canvas') ?? lane.appendChild(document.createElement('canvas'));
    canvas.setAttribute('aria-hidden', 'true');
    drawLane(canvas, levels, index, Math.round(width * layout.part(row.number, layout.rowStart(row.number))), this.#band);
    this.#describe(row, track, levels);
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
