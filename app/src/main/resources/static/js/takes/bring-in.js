// Brings files in by picker or by dropping them: each can be heard and left out first; they are sent one after the other. What
// an earlier page did not finish goes on by itself.
import { makePlayer } from '../shared/player.js';
import { sendFile } from './file-sending.js';
import { forgetFile, keepFile, keptFiles } from './kept-files.js';

const MOST_BYTES = 2 * 1024 ** 3;

export function attachBringIn(episodeId, refreshTakes) {
  const card = document.getElementById('bring-in');
  const form = document.getElementById('bring-form');
  const state = document.getElementById('bring-state');
  const list = document.getElementById('bring-files');
  const input = document.getElementById('file');
  let chosen = [];
  let sending = false;

  const say = words => { state.textContent = words; };

  function choose(files) {
    chosen.forEach(each => URL.revokeObjectURL(each.address));
    chosen = [...files].map(file => ({ file, address: URL.createObjectURL(file) }));
    list.replaceChildren(...chosen.map(row));
  }

  /** A file with its player, its progress and a way to leave it out. */
  function row(each) {
    const item = document.createElement('li');
    item.className = 'flex flex-wrap items-center gap-3 border-t border-line py-2 first:border-t-0';
    const name = document.createElement('span');
    name.className = 'grow truncate';
    name.textContent = each.file.name;
    const player = makePlayer(each.address, `${each.file.name} before it is brought in`, card.dataset.icons);
    player.querySelector('audio').addEventListener('error', () => {
      const instead = document.createElement('span');
      instead.className = 'text-muted text-sm';
      instead.textContent = 'can be heard once it is in';
      player.replaceWith(instead);
    });
    const out = document.createElement('button');
    out.type = 'button';
    out.className = 'underline text-muted text-sm';
    out.textContent = 'leave out';
    out.setAttribute('aria-label', `Leave ${each.file.name} out`);
    out.addEventListener('click', () => {
      chosen = chosen.filter(other => other !== each);
      item.remove();
      input.required = chosen.length === 0;
    });
    each.progress = document.createElement('progress');
    each.progress.max = 100;
    each.progress.hidden = true;
    each.progress.setAttribute('aria-label', `Sent of ${each.file.name}`);
    each.word = document.createElement('span');
    each.word.className = 'text-sm w-full';
    each.item = item;
    each.out = out;
    item.append(name, player, out, each.progress, each.word);
    return item;
  }

  /** Where a file goes, as the form says it now. */
  function wish(file) {
    const said = new FormData(form);
    const placing = said.get('placing');
    const own = placing === 'START' && file.name.replace(/\.[^.]{1,5}$/, '').slice(0, 60);
    return { episodeId, file, trackName: own || said.get('trackName'), placing };
  }

  /** Sends one file; resolves to words of refusal, or null. */
  async function send(each) {
    if (each.file.size > MOST_BYTES) {
      each.keptAs.then(forgetFile);
      each.wish = null;
      return 'This file is larger than 2 GB. Bring in a shorter part.';
    }
    each.progress.hidden = false;
    const refused = await sendFile(episodeId, each.wish, part => { each.progress.value = 100 * part; }, trouble => {
      each.word.textContent = trouble ? 'The network is gone. It goes on by itself.' : '';
    });
    if (!refused?.later) {
      each.keptAs.then(forgetFile);
      each.wish = null;
    }
    return refused?.words ?? null;
  }

  async function sendAll() {
    if (sending) {
      return;
    }
    sending = true;
    let here = 0;
    for (const each of chosen.filter(each => !each.wish)) {
      each.wish = wish(each.file);
      each.keptAs = keepFile(each.wish);
    }
    for (const each of [...chosen]) {
      each.out.hidden = true;
      say(`Sending ${each.file.name} …`);
      const refused = await send(each);
      each.progress.hidden = true;
      if (refused) {
        each.word.textContent = refused;
        each.word.setAttribute('role', 'alert');
        each.out.hidden = false;
      } else {
        here++;
        each.item.remove();
        chosen = chosen.filter(other => other !== each);
      }
      refreshTakes();
    }
    sending = false;
    if (chosen.length === 0) {
      form.reset();
      input.required = true;
    }
    say(`${here === 1 ? 'One recording is' : `${here} recordings are`} here, and made ready now.${chosen.length > 0 ? ' The others were refused; they say why.' : ''}`);
  }

  input.addEventListener('change', () => choose(input.files));
  form.addEventListener('submit', event => {
    event.preventDefault();
    sendAll();
  });
  card.addEventListener('dragover', event => event.preventDefault());
  card.addEventListener('drop', event => {
    event.preventDefault();
    if (event.dataTransfer.files.length > 0) {
      choose(event.dataTransfer.files);
      input.required = false;
    }
  });
  keptFiles(episodeId).then(kept => {
    if (kept.length > 0 && chosen.length === 0) {
      chosen = kept.map(({ id, ...entry }) => ({ file: entry.file, address: URL.createObjectURL(entry.file), wish: entry, keptAs: Promise.resolve(id) }));
      list.replaceChildren(...chosen.map(row));
      sendAll();
    }
  });
}
