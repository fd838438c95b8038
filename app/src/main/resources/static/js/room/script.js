// The script beside the recorder: one line is current; arrow keys and clicks go from line to line; a line can be recorded.
import { sourceOf, within } from '../shared/elements.js';
import { compare } from './compare.js';

export class Script {
  /** @type {HTMLElement[]} */
  #lines;

  #onChoose;

  /** @param {HTMLElement | null} list @param {() => void} onRecord called when the current line is to be recorded @param {() => void} onChoose when another line is current */
  constructor(list, onRecord, onChoose) {
    this.#onChoose = onChoose;
    this.#lines = list ? /** @type {HTMLElement[]} */ ([...list.querySelectorAll('[data-line]')]) : [];
    if (!list) {
      return;
    }
    list.addEventListener('keydown', event => {
      const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
      if (step) {
        event.preventDefault();
        this.go(step);
      }
    });
    list.addEventListener('click', event => {
      const line = /** @type {HTMLElement | null} */ (sourceOf(event).closest('[data-line]'));
      if (line) {
        this.#choose(line);
        if (sourceOf(event).closest('[data-record-line]')) {
          onRecord();
        } else if (sourceOf(event).closest('[data-compare]')) {
          compare(line);
        }
      }
    });
  }

  /** The id of the current line; null if there is none. */
  get line() {
    const current = this.#current;
    return current ? Number(current.dataset.line) : null;
  }

  /** Whether a take of the current line is on the page: another one waits in the list until it is chosen. */
  get isRetake() {
    return this.line !== null && document.querySelector(`audio[data-line="${this.line}"][data-on-page="true"]`) !== null;
  }

  get #current() {
    return this.#lines.find(line => line.hasAttribute('aria-current'));
  }

  /** Says on each line how many takes it has. */
  countTakes() {
    for (const line of this.#lines) {
      const count = document.querySelectorAll(`audio[data-line="${line.dataset.line}"]`).length;
      within(line, '[data-compare]').hidden = count < 2;
      within(line, '[data-compare]').textContent = `Compare ${count} takes`;
      within(line, '[data-record-line]').textContent = count > 0 ? 'Retake this line' : 'Record this line';
    }
  }

  /** @param {number} step */
  go(step) {
    const at = this.#lines.findIndex(line => line === this.#current);
    const next = this.#lines[Math.max(0, Math.min(this.#lines.length - 1, at + step))];
    if (next) {
      this.#choose(next);
    }
  }

  letGo() {
    this.#current?.removeAttribute('aria-current');
  }

  /** @param {HTMLElement} line */
  #choose(line) {
    this.letGo();
    line.setAttribute('aria-current', 'true');
    line.scrollIntoView({ block: 'nearest' });
    this.#onChoose();
  }
}
