// The page of rows: shows a timeline, plays it, and knows what is selected. The bench edits with it, a review reads in it:
// what else may be done is given to it.
import { buttonById, byId, sourceOf } from '../shared/elements.js';
import { limitsOf } from '../shared/level-scale.js';
import { clock, fineClock } from '../shared/time.js';
import { attachDragSelect } from './drag-select.js';
import { Gauge } from './gauge.js';
import { Layout, ROW_SECONDS } from './layout.js';
import { drawMarker } from './marker.js';
import { drawOverview } from './overview.js';
import { Ribbon } from './ribbon.js';
import { Rows } from './rows.js';
import * as state from './state.js';

/** @typedef {import('./types.js').TimelineView} TimelineView */

/** Above and under the rows. */
const MARGINS = 48;
/** As in the styles. */
const NARROW = 900;

export class Page {
  #player;
  #onDraw;
  #gauge;
  #ribbon = new Ribbon();
  #keptAs;
  #playsWhenShown = false;
  /** @type {(() => void)[]} */
  #onSelected = [];
  /** Changed by {@link change} alone. @type {import('./state.js').State} */
  #state;
  /** @type {Layout | null} */
  layout = null;

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
    this.#state = state.beginning(Number(localStorage.getItem(this.#keptAs)) || null);
    this.#attach();
  }

  // ---- what it knows

  get state() {
    return this.#state;
  }

  get timeline() {
    return this.#state.timeline;
  }

  get selection() {
    return this.#state.selection;
  }

  get position() {
    return this.#state.position;
  }

  /** The one way in which anything that the page knows changes; draws what has. @param {import('./state.js').Change} change */
  change(change) {
    const before = this.#state;
    this.#state = change(before);
    const { selection, chosenClip, position } = this.#state;
    if (position !== before.position) {
      this.#showPosition();
    }
    if (this.layout && (selection !== before.selection || chosenClip !== before.chosenClip)) {
      drawMarker(selection, this.rows, this.layout);
      this.#onSelected.forEach(listener => listener());
    }
  }

  /** Calls back when something else is selected or chosen. @param {() => void} listener */
  onSelected(listener) {
    this.#onSelected.push(listener);
  }

  // ---- showing

  /** @param {TimelineView} timeline */
  show(timeline) {
    this.#state = state.show(timeline)(this.#state);
    const { rowSeconds } = this.#state;
    // where the margin goes below the rows, the page is scrolled anyway
    const height = window.innerWidth <= NARROW ? 2 * window.innerHeight : window.innerHeight - (byId('rows').getBoundingClientRect().top + window.scrollY) - MARGINS
      - (document.getElementById('below-rows')?.offsetHeight ?? 0) - (document.getElementById('foot')?.offsetHeight ?? 0);
    this.layout = rowSeconds === null ? Layout.fitting(timeline, height) : new Layout(timeline, rowSeconds);
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
    // what stands moved is drawn with the timeline that is shown next
    this.#state = state.moveBy(maps, tracks, this.now())(this.#state);
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
    this.change(state.play(from, to));
    this.#player.play(`${this.timeline.revision}/${this.timeline.finish}`, from, to, end => {
      this.change(state.goTo(end));
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
    this.playFrom(this.position, this.#state.playingTo);
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
    if (this.selection) {
      this.playFrom(this.selection.start, this.selection.end);
    }
  }

  stop() {
    this.change(state.goTo(this.now()));
    this.#player.stop();
    this.#showPlaying();
  }

  /** @param {number} frame */
  goTo(frame) {
    if (this.playing) {
      this.playFrom(frame);
    } else {
      this.change(state.goTo(frame));
    }
  }

  #follow() {
    this.#gauge.show(this.#player.levelDbfs);
    if (this.playing) {
      this.change(state.goTo(this.now()));
      requestAnimationFrame(() => this.#follow());
    }
  }

  #showPlaying() {
    byId('play').setAttribute('aria-label', this.playing ? 'Pause' : 'Play');
    byId('play').querySelector('use')?.setAttribute('href', `${this.icons}#${this.playing ? 'pause' : 'play'}`);
  }

  // ---- looking

  closer() {
    this.#look(state.closer(this.#shownRowSeconds()));
  }

  further() {
    this.#look(state.further(this.#shownRowSeconds()));
  }

  /** As the window wants: the whole episode, as close as it fits. */
  whole() {
    this.#look(state.whole);
  }

  #shownRowSeconds() {
    return this.layout?.rowSeconds ?? ROW_SECONDS[0];
  }

  /** The row with a frame; nothing where the page is empty. @param {number} frame */
  #rowOf(frame) {
    return this.layout ? this.rows.row(this.layout.rowOf(frame)) : undefined;
  }

  /** @param {import('./state.js').Change} change */
  #look(change) {
    if (!this.timeline) {
      return;
    }
    const wasAt = this.#rowOf(this.position)?.element.getBoundingClientRect().top;
    this.#state = change(this.#state);
    const { rowSeconds } = this.#state;
    if (rowSeconds === null) {
      localStorage.removeItem(this.#keptAs);
    } else {
      localStorage.setItem(this.#keptAs, String(rowSeconds));
    }
    this.show(this.timeline);
    // the row with the position stays where it was on the screen
    const now = this.#rowOf(this.position)?.element;
    if (wasAt !== undefined && now) {
      window.scrollBy(0, now.getBoundingClientRect().top - wasAt);
    }
  }

  // ---- pointing

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
      onSelect: (anchor, frame, trackIds) => this.change(state.select(anchor, frame, trackIds)),
      tiedTracks: trackId => state.tiedTracks(this.#state, trackId),
      length: () => this.timeline?.frames ?? 0,
      onClick: frame => {
        this.change(state.letGo);
        this.playFrom(frame);
      },
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
