// The page of rows: shows a timeline, plays it, and knows what is selected. The bench edits with it, a review reads in it:
// what else may be done is given to it.
import { buttonById, byId } from '../shared/elements.js';
import { limitsOf } from '../shared/level-scale.js';
import { clock, fineClock } from '../shared/time.js';
import { Gauge } from './gauge.js';
import { Layout, ROW_SECONDS } from './layout.js';
import { Look, showLook } from './look.js';
import { Marker } from './marker.js';
import { Overview } from './overview.js';
import { Playing, earInWords } from './playing.js';
import { attachPointing } from './pointing.js';
import { Ribbon } from './ribbon.js';
import { Rows } from './rows.js';
import { LONG_STEP, STEP } from './steps.js';
import * as state from './state.js';
import { WAVE_BELOW } from './wave.js';

/** @typedef {import('./types.js').TimelineView} TimelineView */

/** Above and under the rows. */
const MARGINS = 74;
/** As in the styles. */
const NARROW = 900;

export class Page {
  #playing;
  #onDraw;
  #ribbon;
  #marker;
  #overview;
  #parts;
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
    this.#onDraw = onDraw;
    this.icons = element.dataset.icons ?? '';
    this.rows = new Rows(byId('rows'), this.icons, { low: lowGood, high: highGood });
    this.#ribbon = new Ribbon(this.rows, byId('back-to-sound'), () => this.playing);
    this.#marker = new Marker(this.rows, (edge, event) => this.edgeKey(edge, event));
    this.#overview = new Overview(byId('overview'), byId('rows'), y => window.scrollBy(0, byId('rows').getBoundingClientRect().top + y - window.innerHeight / 2));
    this.rows.onRow(row => row.number === this.layout?.rowOf(this.position) && this.#showPosition());
    this.#playing = new Playing(player, new Gauge(element.dataset), this.icons, frame => this.change(state.goTo(frame)), words => this.say(words));
    this.look = new Look(element.dataset.person ?? '', element.dataset.episode ?? '');
    this.#parts = JSON.parse(element.dataset.parts ?? '[]');
    byId('show-all-tracks').addEventListener('click', () => this.lookOtherwise(look => look.showAll()));
    this.#state = state.beginning(this.look.rowSeconds);
    attachPointing(this);
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
      this.#marker.show(selection, this.layout);
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
    const { shares, spectrum } = this.look;
    // where the margin goes below the rows, the page is scrolled anyway
    const height = window.innerWidth <= NARROW ? 2 * window.innerHeight : window.innerHeight - (byId('rows').getBoundingClientRect().top + window.scrollY) - MARGINS
      - (document.getElementById('below-rows')?.offsetHeight ?? 0) - (document.getElementById('foot')?.offsetHeight ?? 0);
    this.layout = rowSeconds === null ? Layout.fitting(timeline, height, shares, this.#parts) : new Layout(timeline, rowSeconds, shares, this.#parts);
    this.rows.spectrum = spectrum;
    this.rows.show(this.layout, this.layout.laneHeight(height));
    byId('length').textContent = clock(timeline.frames);
    byId('row-length').innerText = `${this.layout.rowSeconds} s\na row`;
    document.body.classList.toggle('wave', this.layout.rowSeconds < WAVE_BELOW);
    buttonById('closer').disabled = this.layout.rowSeconds <= ROW_SECONDS[0];
    buttonById('further').disabled = this.layout.rowSeconds >= ROW_SECONDS[ROW_SECONDS.length - 1];
    showLook(this.look, timeline.tracks);
    this.#marker.show(this.selection, this.layout);
    this.#showPosition();
    this.#overview.show(this.layout);
    this.#onDraw();
    if (this.#playsWhenShown) {
      this.#playsWhenShown = false;
      this.playOrPause();
    }
  }

  /** @param {(look: Look) => void} change */
  lookOtherwise(change) {
    change(this.look);
    if (this.timeline) {
      this.show(this.timeline);
      this.rows.redraw();
    }
  }

  /** @param {string | null} [words] nothing for no message */
  say(words) {
    byId('message').textContent = words ?? '';
  }

  #showPosition() {
    byId('clock').textContent = fineClock(this.position);
    if (this.layout) {
      this.#ribbon.show(this.layout, this.position, this.playing);
    }
  }

  /** Everything that stands at a time goes where that time has gone. @param {import('./types.js').Maps} maps @param {import('./types.js').TrackView[]} tracks */
  moveBy(maps, tracks) {
    // what stands moved is drawn with the timeline that is shown next
    this.#state = state.moveBy(maps, tracks, this.now())(this.#state);
  }

  // ---- playing

  get playing() {
    return this.#playing.playing;
  }

  /** The position, or what can be heard now. */
  now() {
    return this.#playing.place ?? this.position;
  }

  /** The finished mix of what is shown, by its name. */
  #sound() {
    return `${this.timeline?.revision}/${this.timeline?.finish}`;
  }

  /** @param {number} from @param {number} [to] the end of the episode unless it is said @param {boolean} [again] whether it begins again when it ends @param {() => void} [then] what comes when it has ended */
  playFrom(from, to = this.timeline?.frames ?? 0, again = false, then = undefined) {
    if (!this.timeline || from >= to) {
      return;
    }
    this.change(state.play(from, to));
    this.#playing.play(this.#sound(), from, to, { again, then });
    this.#ribbon.follow();
  }

  /** Shows beside the small page what is still to be heard. @param {{ start: number, end: number }[]} spans */
  markUnheard(spans) {
    this.#overview.mark(spans);
  }

  /** Plays what an edit would make of it. @param {string} key of the trial @param {number} from @param {number} to @param {(frame: number) => number} onPage where on the page a frame of it is */
  playTrial(key, from, to, onPage) {
    this.#playing.play(`${key}/${this.timeline?.finish}`, from, to, { onPage });
    this.#ribbon.follow();
  }

  backToSound() {
    this.#ribbon.follow();
  }

  get ear() {
    return this.#playing.ear;
  }

  /** @param {Partial<import('./playing.js').Ear>} change */
  hearOtherwise(change) {
    this.#playing.ear = { ...this.#playing.ear, ...change };
    byId('ear').textContent = earInWords(this.ear, this.timeline?.tracks ?? []);
    if (this.playing) {
      this.playOn();
    }
  }

  /** Goes on playing what was playing, of the timeline as it is now. */
  playOn() {
    this.playFrom(this.now(), this.#state.playingTo);
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

  /** @param {boolean} [again] */
  playSelection(again = false) {
    if (this.selection) {
      this.playFrom(this.selection.start, this.selection.end, again);
    }
  }

  stop() {
    this.change(state.goTo(this.now()));
    this.#playing.stop();
  }

  /** @param {number} frame @param {boolean} [seen] whether it is brought into view */
  goTo(frame, seen = false) {
    if (this.playing) {
      this.playFrom(frame);
    } else {
      this.change(state.goTo(frame));
      if (seen) {
        this.#ribbon.follow();
      }
    }
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

  /** Where the row with a frame is on the screen; nothing where the page is empty. @param {number} frame */
  #topOf(frame) {
    return this.layout && this.layout.rowCount > 0 ? this.rows.placeOf(this.layout.rowOf(frame)).top : undefined;
  }

  /** @param {import('./state.js').Change} change */
  #look(change) {
    if (!this.timeline) {
      return;
    }
    const wasAt = this.#topOf(this.position);
    this.#state = change(this.#state);
    this.look.rowSeconds = this.#state.rowSeconds;
    this.show(this.timeline);
    // the row with the position stays where it was on the screen
    const now = this.#topOf(this.position);
    if (wasAt !== undefined && now !== undefined) {
      window.scrollBy(0, now - Math.max(0, Math.min(window.innerHeight / 2, wasAt)));
    }
  }

  // ---- pointing

  /** Where a card stands in the margin so that it is beside the row of a frame, in pixels from the margin's top. @param {number} frame */
  besideRow(frame) {
    const top = this.#topOf(frame);
    return top === undefined ? 8 : Math.max(8, top - byId('margin').getBoundingClientRect().top);
  }

  focus() {
    byId('page').focus({ preventScroll: true });
  }

  /** An edge of the selection that has the focus is moved by arrows. @param {import('./marker.js').Edge} edge @param {KeyboardEvent} event */
  edgeKey(edge, event) {
    const direction = event.ctrlKey ? 0 : event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (direction !== 0) {
      this.change(state.nudgeEdge(edge, direction * (event.shiftKey ? LONG_STEP : STEP)));
    }
    return direction !== 0;
  }
}
