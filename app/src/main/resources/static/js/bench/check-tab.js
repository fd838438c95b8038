// The sound check beside the page: it follows the edits by itself. A place is heard with a press, and what mends a reading is heard before it
// is kept.
import { byId } from '../shared/elements.js';
import { getHtml } from '../shared/http.js';
import { RATE } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** Heard before and after a place. */
const AROUND = RATE;

/** What a reading says, without its verdict's word and its places. @param {Element} line */
const valueOf = line => (line.querySelector('.reading-value')?.textContent ?? '').trim();

export class CheckTab {
  #bench;
  #address;
  /** What was read before the last fix, by kind. @type {Map<string, string>} */
  #before = new Map();
  #asked = 0;

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#bench = bench;
    this.#address = `/episodes/${episodeId}/sound-check`;
    byId('check').addEventListener('click', ({ target }) => {
      const button = /** @type {HTMLElement} */ (target).closest('button');
      if (button?.dataset.fix) {
        this.#offer(button);
      } else if (button?.dataset.start) {
        this.#hear(Number(button.dataset.start), Number(button.dataset.end));
      }
    });
  }

  /** Shows the newest check. */
  async draw() {
    const asked = ++this.#asked;
    const panel = await getHtml(this.#address);
    if (asked !== this.#asked) {
      // a newer one was asked for meanwhile
      return;
    }
    const list = byId('check');
    const focused = /** @type {HTMLElement | null} */ (document.activeElement)?.closest('#check [data-kind]');
    const kind = focused instanceof HTMLElement ? focused.dataset.kind : undefined;
    const open = list.querySelector('details')?.open;
    list.innerHTML = panel;
    if (open) {
      list.querySelector('details')?.setAttribute('open', '');
    }
    this.#compare(list);
    /** @type {HTMLElement | null} */ (list.querySelector(`[data-kind="${kind}"] button`))?.focus({ preventScroll: true });
  }

  /** Says what the last fix has changed, once the page is read again. @param {HTMLElement} list */
  #compare(list) {
    const changes = list.querySelector('.check-changes');
    if (!(changes instanceof HTMLElement) || list.querySelector('[data-old]')) {
      return;
    }
    const lines = /** @type {HTMLElement[]} */ ([...list.querySelectorAll('[data-kind]')]);
    const changed = lines.flatMap(line => {
      const was = this.#before.get(line.dataset.kind ?? '');
      return was && was !== valueOf(line) ? [{ name: line.dataset.name, was, is: valueOf(line) }] : [];
    });
    changes.hidden = changed.length === 0;
    render(changed.map(({ name, was, is }) => html`<li><b>${name}</b> <span class="text-muted">${was}</span> → ${is}</li>`), changes);
  }

  /** @param {number} start @param {number} end */
  #hear(start, end) {
    const { page } = this.#bench;
    page.playFrom(Math.max(0, start - AROUND), Math.min(page.timeline?.frames ?? 0, end + AROUND));
  }

  /** What would mend a reading is heard first. @param {HTMLElement} button */
  #offer({ dataset, textContent }) {
    const lines = /** @type {HTMLElement[]} */ ([...byId('check').querySelectorAll('[data-kind]')]);
    this.#before = new Map(lines.map(line => [line.dataset.kind ?? '', valueOf(line)]));
    const place = lines.find(line => line.dataset.kind === dataset.fix)?.querySelector('button[data-start]');
    const at = place instanceof HTMLElement ? Math.max(0, Number(place.dataset.start) - AROUND) : 0;
    this.#bench.attempt(() => this.#bench.offer({ type: 'fix', kind: dataset.fix }, `${(textContent ?? '').trim()}.`, dataset.said ?? '', at, 'check'));
  }
}
