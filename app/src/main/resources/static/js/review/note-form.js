// Writing a note without leaving the sound: what is typed is kept until it is written, whatever becomes of the page; a number chooses the kind
// while nothing is typed yet, and what is written often is offered.
import { letGo } from '../page/state.js';
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
    const body = new URLSearchParams(/** @type {[string, string][]} */ ([...new FormData(form)]));
    const response = await fetch(form.action, { method: 'POST', body, headers: { Accept: 'application/json', 'X-Stays': 'true' } }).catch(() => null);
    form.removeAttribute('aria-busy');
    if (!response?.headers.get('Go-To')) {
      page.say(response ? wordsFor(response.status, await response.json().catch(() => null)) : 'The network is gone. What you typed is kept. Try again.');
      return;
    }
    words.value = '';
    keep();
    page.change(letGo);
    page.say('Your note stands in the margin.');
    await drawNotes(handInId, drawn);
    page.focus();
  });
}

/** Draws the notes of a hand-in anew. @param {string} handInId @param {() => void} drawn */
export async function drawNotes(handInId, drawn) {
  byId('notes').outerHTML = await getHtml(`/hand-ins/${handInId}/notes`);
  window.htmx.process(byId('notes'));
  drawn();
}
