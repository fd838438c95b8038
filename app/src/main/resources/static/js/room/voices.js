// Who speaks in the next take: students of the crew and guests, since who signed in is not who speaks.
import { postJson } from '../shared/http.js';

const byId = id => document.getElementById(id);
const ticked = kind => [...byId('voices').querySelectorAll(`[data-${kind}]:checked`)];

export const voices = () => ({ personIds: ticked('person').map(box => Number(box.value)), guestIds: ticked('guest').map(box => Number(box.value)) });

function show() {
  const names = [...ticked('person'), ...ticked('guest')].map(box => box.nextElementSibling.textContent);
  byId('who-words').textContent = names.length > 0 ? names.join(', ') : 'nobody is ticked';
}

export function attachVoices(episodeId, complain) {
  byId('voices').addEventListener('change', show);
  byId('guest-add').addEventListener('click', async () => {
    try {
      const guests = await postJson(`/episodes/${episodeId}/guests`, { name: byId('guest-name').value, extent: byId('guest-consent').value });
      const added = byId('guest-name').value.trim();
      byId('voices').querySelectorAll('[data-guest]').forEach(box => box.parentElement.remove());
      byId('voices').append(...guests.map(guest => {
        const label = document.createElement('label');
        label.className = 'flex items-center gap-2';
        const box = document.createElement('input');
        box.type = 'checkbox';
        box.dataset.guest = '';
        box.value = guest.id;
        box.checked = guest.name === added;
        const name = document.createElement('span');
        name.textContent = guest.name;
        label.append(box, name);
        return label;
      }));
      byId('guest-name').value = '';
      show();
    } catch (refused) {
      complain(refused.message);
    }
  });
}
