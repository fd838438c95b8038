// Who speaks in the next take: students of the crew and guests, since who signed in is not who speaks.
import { byId, fieldById } from '../shared/elements.js';
import { postJson } from '../shared/http.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @param {string} kind @returns {HTMLInputElement[]} */
const ticked = kind => [...byId('voices').querySelectorAll(/** @type {'input'} */ (`[data-${kind}]:checked`))];

export const voices = () => ({ personIds: ticked('person').map(box => Number(box.value)), guestIds: ticked('guest').map(box => Number(box.value)) });

function show() {
  const names = [...ticked('person'), ...ticked('guest')].map(box => box.nextElementSibling?.textContent);
  byId('who-words').textContent = names.length > 0 ? names.join(', ') : 'nobody is ticked';
}

/** @param {{ id: number, name: string }} guest @param {string} added */
const box = ({ id, name }, added) => html`
  <label class="flex items-center gap-2"><input type="checkbox" data-guest value=${id} ?checked=${name === added}><span>${name}</span></label>`;

/** @param {string} episodeId @param {(words: string) => void} complain */
export function attachVoices(episodeId, complain) {
  byId('voices').addEventListener('change', show);
  byId('guest-add').addEventListener('click', async () => {
    try {
      const guests = await postJson(`/episodes/${episodeId}/guests`, { name: fieldById('guest-name').value, extent: fieldById('guest-consent').value });
      const added = fieldById('guest-name').value.trim();
      byId('voices').querySelectorAll('[data-guest]').forEach(old => old.parentElement?.remove());
      const fresh = document.createDocumentFragment();
      render(guests.map((/** @type {{ id: number, name: string }} */ guest) => box(guest, added)), fresh);
      byId('voices').append(fresh);
      fieldById('guest-name').value = '';
      show();
    } catch (refused) {
      complain(/** @type {Error} */ (refused).message);
    }
  });
}
