// Brings files in by picker or by dropping them: each can be heard and left out first; they are sent one after the other. What
// an earlier page did not finish goes on by itself.
import { byId, fieldById } from '../shared/elements.js';
import { makePlayer } from '../shared/player.js';
import '../shared/drop-card.js';
import { repeat } from '../vendor/lit-html/directives/repeat.js';
import { html, nothing, render } from '../vendor/lit-html/lit-html.js';
import { sendFile } from './file-sending.js';
import { forgetFile, keepFile, keptFiles } from './kept-files.js';

const MOST_BYTES = 2 * 1024 ** 3;

/**
 * A file that was chosen, with what shows it.
 *
 * @typedef {{ file: File, address: string, player: HTMLElement | null, wish: import('./kept-files.js').KeptFile | null, keptAs: Promise<number | null>, sent: number | null,
 *   words: string, refused: boolean }} Chosen
 */

/** @param {string} episodeId @param {() => void} refreshTakes */
export function attachBringIn(episodeId, refreshTakes) {
  const card = byId('bring-in');
  const form = /** @type {HTMLFormElement} */ (byId('bring-form'));
  const input = fieldById('file');
  /** @type {Chosen[]} */
  let chosen = [];
  let sending = false;

  /** @param {string} words */
  const say = words => { byId('bring-state').textContent = words; };

  const draw = () => {
    render(repeat(chosen, each => each, row), byId('bring-files'));
  };

  /** @param {File} file @param {import('./kept-files.js').KeptFile | null} wish as an earlier page had it */
  function begun(file, wish = null) {
    const address = URL.createObjectURL(file);
    const player = makePlayer(address, `${file.name} before it is brought in`, card.dataset.icons ?? '');
    /** @type {Chosen} */
    const each = { file, address, player, wish, keptAs: Promise.resolve(wish?.id ?? null), sent: null, words: '', refused: false };
    player.querySelector('audio')?.addEventListener('error', () => {
      each.player = null;
      draw();
    });
    return each;
  }

  /** @param {Iterable<File>} files */
  function choose(files) {
    chosen.forEach(each => URL.revokeObjectURL(each.address));
    chosen = [...files].map(file => begun(file));
    draw();
  }

  /** @param {Chosen} each */
  function leaveOut(each) {
    chosen = chosen.filter(other => other !== each);
    draw();
  }

  /** A file with its player, its progress and a way to leave it out. @param {Chosen} each */
  const row = each => html`
    <li class="flex flex-wrap items-center gap-3 border-t border-line py-2 first:border-t-0">
      <span class="grow truncate">${each.file.name}</span>
      ${each.refused ? nothing : each.player ?? html`<span class="text-muted text-sm">can be heard once it is in</span>`}
      <button type="button" class="underline text-muted text-sm" aria-label="Leave ${each.file.name} out" ?hidden=${sending && !each.refused}
        @click=${() => leaveOut(each)}>leave out</button>
      <progress max="100" aria-label="Sent of ${each.file.name}" ?hidden=${each.sent === null} .value=${100 * (each.sent ?? 0)}></progress>
      <span class="text-sm w-full" role=${each.refused ? 'alert' : nothing}>${each.words}</span>
    </li>`;

  /** Where a file goes, as the form says it now. @param {File} file */
  function wish(file) {
    const said = new FormData(form);
    const placing = String(said.get('placing'));
    const own = placing === 'START' && file.name.replace(/\.[^.]{1,5}$/, '').slice(0, 60);
    return { episodeId, file, trackName: own || String(said.get('trackName')), placing };
  }

  /** @param {Chosen} each */
  function forget(each) {
    each.wish = null;
    return each.keptAs.then(forgetFile);
  }

  /** Sends one file; resolves to words of refusal, or null. @param {Chosen} each @param {import('./kept-files.js').KeptFile} where */
  async function send(each, where) {
    if (each.file.size > MOST_BYTES) {
      await forget(each);
      return 'This file is larger than 2 GB. Bring in a shorter part.';
    }
    const refused = await sendFile(episodeId, where, part => {
      each.sent = part;
      draw();
    }, trouble => {
      each.words = trouble ? 'The network is gone. It goes on by itself.' : '';
      draw();
    }, () => forget(each));
    if (refused && !refused.later) {
      await forget(each);
    }
    return refused?.words ?? null;
  }

  async function sendAll() {
    if (sending) {
      return;
    }
    sending = true;
    let here = 0;
    const wishes = chosen.map(each => {
      if (!each.wish) {
        each.wish = wish(each.file);
        each.keptAs = keepFile(each.wish);
      }
      return { each, where: each.wish };
    });
    for (const { each, where } of wishes) {
      Object.assign(each, { sent: 0, words: '', refused: false });
      say(`Sending ${each.file.name} …`);
      draw();
      const refused = await send(each, where);
      if (refused) {
        Object.assign(each, { sent: null, words: refused, refused: true });
      } else {
        here++;
        chosen = chosen.filter(other => other !== each);
      }
      draw();
      refreshTakes();
    }
    sending = false;
    if (chosen.length === 0) {
      form.reset();
    }
    draw();
    say(`${here === 1 ? 'One recording is' : `${here} recordings are`} here, and made ready now.${chosen.length > 0 ? ' The others were refused; they say why.' : ''}`);
  }

  input.addEventListener('change', () => choose(input.files ?? []));
  form.addEventListener('submit', event => {
    event.preventDefault();
    if (chosen.length === 0) {
      say('Choose a recording first.');
      return;
    }
    sendAll();
  });
  card.addEventListener('dragover', event => event.preventDefault());
  card.addEventListener('drop', event => {
    event.preventDefault();
    if (event.dataTransfer && event.dataTransfer.files.length > 0) {
      choose(event.dataTransfer.files);
    }
  });
  keptFiles(episodeId).then(kept => {
    if (kept.length > 0 && chosen.length === 0) {
      chosen = kept.map(entry => begun(entry.file, entry));
      draw();
      sendAll();
    }
  });
}
