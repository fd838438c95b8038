// Two laptops of a crew begin together, each with its own voice: both say that they wait, and begin on the same word. For the
// teacher's page too, which only gives the word.
import { fieldIn, within } from '../shared/elements.js';
import { getJson, postJson } from '../shared/http.js';

const ASK_MS = 500;

/** A word on which laptops begin. @typedef {{ key: string, placeFrame: number | null }} Word */

/** @param {HTMLElement} card @param {((word: Word) => Promise<void>) | null} onWord begins a take on a word; null on a page that only gives it */
export function attachTogether(card, onWord) {
  const waits = /** @type {HTMLInputElement | null} */ (card.querySelector('[data-waits]'));
  const start = fieldIn(card, '[data-start]');
  const words = within(card, '[data-words]');
  const path = `/episodes/${card.dataset.episode}/together`;
  const laptop = crypto.randomUUID();
  /** The key of the word that was heard last. */
  let heard = '';

  /** @param {{ waiting: string[] }} state */
  function show({ waiting }) {
    words.textContent = waiting.length === 0 ? 'No laptop waits.'
      : waiting.length === 1 ? `${waiting[0]} waits. Tick this on the other laptop too.` : `${waiting.join(' and ')} wait.`;
    start.disabled = waiting.length < 2;
  }

  async function ask() {
    if (waits && !waits.checked) {
      return;
    }
    const state = await (waits ? postJson(`${path}/wait?laptop=${laptop}&heard=${heard}`, {}) : getJson(path)).catch(() => null);
    if (state) {
      show(state);
      if (onWord && waits && state.word && state.word.key !== heard) {
        heard = state.word.key;
        waits.checked = false;
        start.disabled = true;
        await onWord(state.word);
        return;
      }
    }
    setTimeout(ask, ASK_MS);
  }

  start.addEventListener('click', () => postJson(`${path}/start`, {}).then(show).catch(problem => { words.textContent = problem.message; }));
  if (waits) {
    waits.addEventListener('change', () => {
      words.textContent = '';
      start.disabled = true;
      ask();
    });
  } else {
    ask();
  }
}
