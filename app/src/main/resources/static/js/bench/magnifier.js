// The magnifier: what is selected, a clip or a join as one strip across the page, with the grips and edges that rows have, so that
// fine work needs no other zoom.
import { attachDragSelect } from '../page/drag-select.js';
import { Layout } from '../page/layout.js';
import { Marker } from '../page/marker.js';
import { Rows } from '../page/rows.js';
import { chosen, select, tiedTracks } from '../page/state.js';
import { byId } from '../shared/elements.js';
import { RATE, fineClock } from '../shared/time.js';
import { Clips } from './clips.js';

const LANE = 84;
/** Seen before and after what is magnified, as a part of it. */
const AROUND = 0.1;
const LEAST_FRAMES = RATE / 20;
/** Where nothing is selected, so much about the ribbon. */
const ABOUT = RATE;

export class Magnifier {
  #bench;
  #rows;
  #marker;
  #position = document.createElement('div');
  /** @type {Layout | null} */
  #layout = null;
  /** What is magnified. @type {{ start: number, end: number } | null} */
  #span = null;

  /** @param {import('./types.js').Bench} bench @param {boolean} own @param {{ low: number, high: number }} band of good levels, in dBFS */
  constructor(bench, own, band) {
    const { page } = bench;
    this.#bench = bench;
    const element = byId('magnified');
    this.#rows = new Rows(element, page.icons, band);
    const layout = () => /** @type {Layout} */ (this.#layout);
    new Clips(element, page.icons, own, { ...bench, rows: this.#rows, layout });
    this.#marker = new Marker(this.#rows, (edge, event) => page.edgeKey(edge, event));
    attachDragSelect(element, {
      rows: this.#rows,
      selection: () => page.selection,
      onSelect: (anchor, frame, trackIds) => page.change(select(anchor, frame, trackIds)),
      tiedTracks: trackId => tiedTracks(page.state, trackId),
      length: () => page.timeline?.frames ?? 0,
      onClick: frame => page.playFrom(frame),
      onEnd: () => {},
    });
    this.#position.className = 'magnifier-position';
    page.onSelected(() => this.#layout && this.#marker.show(page.selection, this.#layout));
    byId('magnifier-close').addEventListener('click', () => this.toggle());
    byId('magnifier-play').addEventListener('click', () => this.#span && page.playFrom(this.#span.start, this.#span.end));
  }

  /** Magnifies what is selected, the chosen clip, or what is about the ribbon; or nothing any more. */
  toggle() {
    this.#span = this.#span ? null : this.#wanted();
    this.draw();
    if (this.#span) {
      this.#follow();
    } else {
      this.#bench.page.focus();
    }
  }

  #wanted() {
    const { page } = this.#bench;
    const clip = chosen(page.state)?.clip;
    const [from, to] = page.selection ? [page.selection.start, page.selection.end]
      : clip ? [clip.startFrame, clip.startFrame + clip.frames] : [page.now() - ABOUT, page.now() + ABOUT];
    const around = Math.max(LEAST_FRAMES, AROUND * (to - from));
    const start = Math.max(0, Math.round(from - around));
    return { start, end: Math.max(start + LEAST_FRAMES, Math.min(page.timeline?.frames ?? 0, Math.round(to + around))) };
  }

  /** Shows the timeline as it is now. */
  draw() {
    const { page } = this.#bench;
    byId('magnifier').hidden = !this.#span;
    document.body.classList.toggle('magnified', this.#span !== null);
    if (!this.#span || !page.timeline) {
      return;
    }
    const { start, end } = this.#span;
    byId('magnifier-span').textContent = `${fineClock(start, 2)} to ${fineClock(end, 2)}`;
    this.#layout = new Layout(page.timeline, (end - start) / RATE, page.look.shares, [], start);
    this.#rows.show(this.#layout, LANE);
    this.#marker.show(page.selection, this.#layout);
  }

  /** The ribbon in the strip goes along with what is heard. */
  #follow() {
    const row = this.#rows.row(0);
    if (!this.#span || !this.#layout) {
      return;
    }
    const part = this.#layout.part(0, this.#bench.page.now());
    this.#position.hidden = part < 0 || part > 1;
    this.#position.style.left = `${100 * part}%`;
    if (row && this.#position.parentElement !== row.sound) {
      row.sound.append(this.#position);
    }
    requestAnimationFrame(() => this.#follow());
  }
}
