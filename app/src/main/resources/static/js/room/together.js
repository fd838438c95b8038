// Two laptops of a crew begin together, each with its own voice: both say that they wait, and begin on the same word. For the
// teacher's page too, which only gives the word.
import { getJson, postJson } from '../shared/http.js';

const ASK_MS = 500;

/** @param onWord begins a take on a word; null on a page that only gives it */
export function attachTogether(card, onWord) {
  const waits = card.querySelector('[data-waits]');
  const start = card.querySelector('[data-start]');
  const words = card.querySelector('[data-words]');
  const path = `/episodes/${card.dataset.episode}/together`;
  const laptop = crypto.randomUUID();
  let heard = null;

  function show({ waiting }) {
    words.textContent = waiting.length === 0 ? 'No laptop waits.'
      : waiting.length === 1 ? `${waiting[0]} waits. Tick this on the other laptop too.` : `${waiting.join(' and ')} wait.`;
    start.disabled = waiting.length < 2;
  }

  async function ask() {
    if (waits && !waits.checked) {
      return;
    }
    const state = await (waits ? postJson(`${path}/wait?laptop=${laptop}`, {}) : getJson(path)).catch(() => null);
    if (state) {
      show(state);
      if (onWord && state.word && state.word.key !== heard) {
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
