// The script beside the recorder: one line is current; arrow keys and clicks go from line to line; a line can be recorded.
import { compare } from './compare.js';

export class Script {
  #lines;

  /** @param onRecord called when the current line is to be recorded */
  constructor(list, onRecord) {
    this.#lines = list ? [...list.querySelectorAll('[data-line]')] : [];
    if (!list) {
      return;
    }
    list.addEventListener('keydown', event => {
      const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
      if (step) {
        event.preventDefault();
        this.go(step);
      }
    });
    list.addEventListener('click', event => {
      const line = event.target.closest('[data-line]');
      if (line) {
        this.#choose(line);
        if (event.target.closest('[data-record-line]')) {
          onRecord();
        } else if (event.target.closest('[data-compare]')) {
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

  get #current() {
    return this.#lines.find(line => line.hasAttribute('aria-current'));
  }

  /** Says on each line how many takes it has. */
  countTakes() {
    for (const line of this.#lines) {
      const count = document.querySelectorAll(`audio[data-line="${line.dataset.line}"]`).length;
      line.querySelector('[data-compare]').hidden = count < 2;
      line.querySelector('[data-compare]').textContent = `Compare ${count} takes`;
      line.querySelector('[data-record-line]').textContent = count > 0 ? 'Retake this line' : 'Record this line';
    }
  }

  go(step) {
    const at = this.#lines.indexOf(this.#current);
    const next = this.#lines[Math.max(0, Math.min(this.#lines.length - 1, at + step))];
    if (next) {
      this.#choose(next);
    }
  }

  letGo() {
    this.#current?.removeAttribute('aria-current');
  }

  #choose(line) {
    this.letGo();
    line.setAttribute('aria-current', 'true');
    line.scrollIntoView({ block: 'nearest' });
  }
}
