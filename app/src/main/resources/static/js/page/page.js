// @ts-check
// The page of rows: shows a timeline, plays it, and knows what is selected. The bench edits with it, a review reads in it:
// what else may be done is given to it.
import { buttonById, byId, sourceOf } from '../shared/elements.js';
import { limitsOf } from '../shared/level-scale.js';
import { clock, fineClock } from '../shared/time.js';
import { attachDragSelect } from './drag-select.js';
import { Gauge } from './gauge.js';
import { Layout, ROW_SECONDS } from './layout.js';
import { drawOverview } from './overview.js';
import { Ribbon } from './ribbon.js';
import { Rows } from './rows.js';
import { Selection, drawMarker } from './selection.js';
import { closest, closestEnd, mapAt } from './time-map.js';

/** @typedef {import('./types.js').TimelineView} TimelineView */

/** Above and under the rows. */
const MARGINS = 36;
/** As in the styles. */
const NARROW = 900;

export class Page {
  #player;
  #onDraw;
  #gauge;
  #ribbon = new Ribbon();
  #keptAs;
  #playingTo = 0;
  #playsWhenShown = false;
  selection = new Selection();
  /** What is shown; null until it is there. @type {TimelineView | null} */
  timeline = null;
  /** @type {Layout | null} */
  layout = null;
  position = 0;
  /** Chosen by hand; null for as the window wants. @type {number | null} */
  #rowSeconds = null;

  /**
   * @param {HTMLElement} element carries icons, the limits of the working level, the person and the episode in its data
   * @param {import('./preview.js').Preview | import('./file-player.js').FilePlayer} player
   * @param {() => void} onDraw called when the rows are there anew
   */
  constructor(element, player, onDraw) {
    const { lowGood, highGood } = limitsOf(element.dataset);
    this.#player = player;
    this.#onDraw = onDraw;
    this.icons = element.dataset.icons ?? '';
    this.rows = new Rows(byId('rows'), this.icons, { low: lowGood, high: highGood });
    this.#gauge = new Gauge(element.dataset);
    this.#keptAs = `mellow-row-${element.dataset.person}-${element.dataset.episode}`;
    this.#rowSeconds = Number(localStorage.getItem(this.#keptAs)) || null;
    this.selection.onChange(() => this.layout && drawMarker(this.selection, this.rows, this.layout));
    this.#attach();
  }

  // ---- showing

  /** @param {TimelineView} timeline */
  show(timeline) {
    this.timeline = timeline;
    // where the margin goes below the rows, the page is scrolled anyway
    const height = window.innerWidth <= NARROW ? 2 * window.innerHeight : window.innerHeight - (byId('rows').getBoundingClientRect().top + window.scrollY) - MARGINS
      - (document.getElementById('below-rows')?.offsetHeight ?? 0) - (document.getElementById('foot')?.offsetHeight ?? 0);
    this.layout = this.#rowSeconds === null ? Layout.fitting(timeline, height) : new Layout(timeline, this.#rowSeconds);
    this.position = Math.min(this.position, timeline.frames);
    if (this.selection.present && this.selection.end > timeline.frames) {
      this.selection.letGo();
    }
    this.rows.show(this.layout, this.layout.laneHeight(height));
    byId('length').textContent = clock(timeline.frames);
    byId('row-length').innerText = `${this.layout.rowSeconds} s\na row`;
    buttonById('closer').disabled = this.layout.rowSeconds <= ROW_SECONDS[0];
    buttonById('further').disabled = this.layout.rowSeconds >= ROW_SECONDS[ROW_SECONDS.length - 1];
    drawMarker(this.selection, this.rows, this.layout);
    this.#showPosition();
    drawOverview(byId('overview'), this.layout, row => this.rows.row(row)?.element.scrollIntoView({ block: 'center' }));
    this.#onDraw();
    if (this.#playsWhenShown) {
      this.#playsWhenShown = false;
      this.playOrPause();
    }
  }

  /** @param {string | null} [words] nothing for no message */
  say(words) {
    byId('message').hidden = !words;
    byId('message').textContent = words ?? '';
  }

  #showPosition() {
    byId('clock').textContent = fineClock(this.position);
    if (this.layout) {
      this.#ribbon.show(this.rows, this.layout, this.position, this.#player.playing);
    }
  }

  /** Everything that stands at a time goes where that time has gone. @param {import('./types.js').Maps} maps @param {import('./types.js').TrackView[]} tracks */
  moveBy(maps, tracks) {
    this.selection.moveBy(maps);
    const map = mapAt(maps, tracks, this.now());
    this.position = closest(map, this.now());
    this.#playingTo = closestEnd(map, this.#playingTo);
  }

  // ---- playing

  get playing() {
    return this.#player.playing;
  }

  /** The position, or what can be heard now. */
  now() {
    return this.#player.position ?? this.position;
  }

  /** @param {number} from @param {number} [to] the end of the episode unless it is said */
  playFrom(from, to = this.timeline?.frames ?? 0) {
    if (!this.timeline || from >= to) {
      return;
    }
    this.position = from;
    this.#playingTo = to;
    this.#player.play(this.timeline.revision, from, to, end => {
      this.position = end;
      this.#showPosition();
      this.#showPlaying();
    }).catch(problem => {
      this.#player.stop();
      this.say(problem.message);
      this.#showPlaying();
    });
    this.#showPlaying();
    requestAnimationFrame(() => this.#follow());
  }

  /** Goes on playing what was playing, of the timeline as it is now. */
  playOn() {
    this.playFrom(this.position, this.#playingTo);
  }

  playOrPause() {
    if (!this.timeline) {
      // pressed before the page was there
      this.#playsWhenShown = true;
    } else if (this.playing) {
      this.stop();
    } else {
      this.playFrom(this.position >= this.timeline.frames ? 0 : this.position);
    }
  }

  playSelection() {
    if (this.selection.present) {
      this.playFrom(this.selection.start, this.selection.end);
    }
  }

  stop() {
    this.position = this.now();
    this.#player.stop();
    this.#showPosition();
    this.#showPlaying();
  }

  /** @param {number} frame */
  goTo(frame) {
    if (this.playing) {
      this.playFrom(frame);
    } else {
      this.position = frame;
      this.#showPosition();
    }
  }

  #follow() {
    this.#gauge.show(this.#player.levelDbfs);
    if (this.playing) {
      this.position = this.now();
      this.#showPosition();
      requestAnimationFrame(() => this.#follow());
    }
  }

  #showPlaying() {
    byId('play').setAttribute('aria-label', this.playing ? 'Pause' : 'Play');
    byId('play').querySelector('use')?.setAttribute('href', `${this.icons}#${this.playing ? 'pause' : 'play'}`);
  }

  // ---- looking

  closer() {
    const now = this.#shownRowSeconds();
    this.#setRowSeconds(ROW_SECONDS.filter(seconds => seconds < now).pop() ?? ROW_SECONDS[0]);
  }

  further() {
    const now = this.#shownRowSeconds();
    this.#setRowSeconds(ROW_SECONDS.find(seconds => seconds > now) ?? ROW_SECONDS[ROW_SECONDS.length - 1]);
  }

  /** As the window wants: the whole episode, as close as it fits. */
  whole() {
    this.#setRowSeconds(null);
  }

  #shownRowSeconds() {
    return this.layout?.rowSeconds ?? ROW_SECONDS[0];
  }

  /** The row with a frame; nothing where the page is empty. @param {number} frame */
  #rowOf(frame) {
    return this.layout ? this.rows.row(this.layout.rowOf(frame)) : undefined;
  }

  /** @param {number | null} seconds */
  #setRowSeconds(seconds) {
    if (!this.timeline) {
      return;
    }
    const wasAt = this.#rowOf(this.position)?.element.getBoundingClientRect().top;
    this.#rowSeconds = seconds;
    if (seconds === null) {
      localStorage.removeItem(this.#keptAs);
    } else {
      localStorage.setItem(this.#keptAs, String(seconds));
    }
    this.show(this.timeline);
    // the row with the position stays where it was on the screen
    const now = this.#rowOf(this.position)?.element;
    if (wasAt !== undefined && now) {
      window.scrollBy(0, now.getBoundingClientRect().top - wasAt);
    }
  }

  // ---- pointing

  /** The tracks that are cut as one with a track. @param {number} trackId */
  tiedTracks(trackId) {
    const tracks = this.timeline?.tracks ?? [];
    const group = tracks.find(track => track.id === trackId)?.group;
    return tracks.filter(track => group === undefined || track.group === group).map(track => track.id);
  }

  everyTrack() {
    return this.timeline?.tracks.map(track => track.id) ?? [];
  }

  /** Where a card stands in the margin so that it is beside the row of a frame, in pixels from the margin's top. @param {number} frame */
  besideRow(frame) {
    const row = this.#rowOf(frame);
    const margin = byId('margin').getBoundingClientRect();
    return row ? Math.max(8, row.element.getBoundingClientRect().top - margin.top) : 8;
  }

  focus() {
    byId('page').focus({ preventScroll: true });
  }

  #attach() {
    attachDragSelect(byId('rows'), {
      rows: this.rows,
      selection: this.selection,
      tiedTracks: trackId => this.tiedTracks(trackId),
      length: () => this.timeline?.frames ?? 0,
      onClick: frame => this.playFrom(frame),
      onEnd: () => this.focus(),
    });
    byId('rows').addEventListener('click', event => {
      const row = /** @type {HTMLElement | null} */ (sourceOf(event).closest('.row-play')?.closest('.row') ?? null);
      if (row && this.layout) {
        this.playFrom(this.layout.rowStart(Number(row.dataset.row)));
      }
    });
  }
}
