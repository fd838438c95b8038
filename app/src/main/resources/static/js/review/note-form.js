// Writing a note without leaving the sound: what is typed is kept until it is written, whatever becomes of the page; a number chooses the kind
// while nothing is typed yet, and what is written often is offered.
import { letGoOf } from '../page/state.js';
import { byId } from '../shared/elements.js';
import { getHtml, wordsFor } from '../shared/http.js';

/**
 * @param {HTMLFormElement} form @param {string} handInId @param {import('../page/page.js').Page} page
 * @param {() => void} drawn when the notes have been drawn anew
 */
export function attachNoteForm(form, handInId, page, drawn) {
  const words = /** @type {HTMLTextAreaElement} */ (byId('note-words'));
  const kinds = /** @type {NodeListOf<HTMLInputElement>} */ (form.querySelectorAll('input[name=kind]'));
  const keptAs = `note-${handInId}`;

  const offer = () => {
    const kind = [...kinds].find(each => each.checked)?.value;
    form.querySelectorAll('[data-phrases]').forEach(phrases => { /** @type {HTMLElement} */ (phrases).hidden = /** @type {HTMLElement} */ (phrases).dataset.phrases !== kind; });
  };
  const keep = () => (words.value ? localStorage.setItem(keptAs, words.value) : localStorage.removeItem(keptAs));

  words.value = localStorage.getItem(keptAs) ?? '';
  words.addEventListener('input', keep);
  words.addEventListener('keydown', event => {
    const kind = kinds[Number(event.key) - 1];
    if (kind && words.value === '') {
      event.preventDefault();
      kind.checked = true;
      offer();
    } else if (event.key === 'Enter' && !event.shiftKey) {
      event.preventDefault();
      form.requestSubmit();
    }
  });
  form.addEventListener('change', offer);
  form.addEventListener('click', event => {
    if (event.target instanceof HTMLElement && event.target.classList.contains('phrase')) {
      words.value = event.target.textContent ?? '';
      keep();
      words.focus();
    }
  });
  offer();

  form.addEventListener('submit', async event => {
    event.preventDefault();
    if (form.hasAttribute('aria-busy')) {
      return;
    }
    form.setAttribute('aria-busy', 'true');
    const { selection } = page;
    const typed = words.value;
    const body = new URLSearchParams(/** @type {[string, string][]} */ ([...new FormData(form)]));
    const response = await fetch(form.action, { method: 'POST', body, headers: { Accept: 'application/json', 'X-Stays': 'true' } }).catch(() => null);
    form.removeAttribute('aria-busy');
    if (!response?.headers.get('Go-To')) {
      page.say(response ? wordsFor(response.status, await response.json().catch(() => null)) : 'The network is gone. What you typed is kept. Try again.');
      return;
    }
    // what was typed or marked meanwhile is the next note's
    if (words.value === typed) {
      words.value = '';
      keep();
      page.focus();
    }
    page.change(letGoOf(selection));
    page.say('Your note stands in the margin.');
    await drawNotes(handInId, drawn);
  });
}

/** Over a slow network answers come late, fail, and overtake each other. */
const ASK_AGAIN_MS = 1000;
let asked = 0;

/** Draws the notes of a hand-in anew: as they are when it is asked last, and until that is known. @param {string} handInId @param {() => void} drawn */
export async function drawNotes(handInId, drawn) {
  asked += 1;
  const mine = asked;
  while (mine === asked) {
    const notes = await getHtml(`/hand-ins/${handInId}/notes`).catch(() => null);
    if (notes === null) {
      await new Promise(done => { setTimeout(done, ASK_AGAIN_MS); });
    } else if (mine === asked) {
      byId('notes').outerHTML = notes;
      window.htmx.process(byId('notes'));
      drawn();
      return;
    }
  }
}
