// The class board follows what the crews do: it asks again when it hears of a change, at most once a second, and never while
// somebody is choosing in it.
import { byId } from '../shared/elements.js';
import { follow } from '../shared/live.js';

const board = () => byId('now');
const AT_MOST_MS = 1000;
let waiting = false;

function refresh() {
  if (waiting) {
    return;
  }
  waiting = true;
  setTimeout(() => {
    waiting = false;
    if (board().contains(document.activeElement) && document.activeElement?.tagName === 'SELECT') {
      refresh();
      return;
    }
    const focused = document.activeElement?.getAttribute('href');
    document.addEventListener('htmx:afterSettle', () => {
      if (focused && document.activeElement === document.body) {
        /** @type {HTMLElement | null} */ (document.querySelector(`#now a[href="${CSS.escape(focused)}"]`))?.focus();
      }
    }, { once: true });
    window.htmx.trigger(board(), 'refresh');
  }, AT_MOST_MS);
}

follow(board(), refresh);
