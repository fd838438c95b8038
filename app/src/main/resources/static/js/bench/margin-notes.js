// @ts-check
// The teacher's notes, in the margin beside the rows they speak of. They stay with their words, and say so when these are gone.
import { byId } from '../shared/elements.js';
import { getJson, postJson } from '../shared/http.js';
import { fineClock } from '../shared/time.js';
import { arrange } from '../page/margin.js';

/** @typedef {{ id: number, kind: keyof KINDS, words: string, done: boolean, places: { startFrame: number, endFrame: number }[] }} Note */

const KINDS = { LOVELY: ['heart', 'lovely'], QUESTION: ['circle-help', 'question'], MEND: ['wrench', 'mend this'] };

export class MarginNotes {
  #bench;
  #icons;
  #episode;
  #own;
  /** @type {number | null} */
  #revision = null;
  /** @type {Note[]} */
  #notes = [];

  /** @param {string} episodeId @param {string} icons where they are @param {boolean} own @param {import('./types.js').Bench} bench */
  constructor(episodeId, icons, own, bench) {
    this.#episode = `/episodes/${episodeId}`;
    this.#icons = icons;
    this.#own = own;
    this.#bench = bench;
  }

  async draw() {
    const { revision } = this.#bench.timeline();
    if (revision !== this.#revision) {
      this.#revision = revision;
      const notes = await getJson(`${this.#episode}/notes/${revision}`).catch(() => this.#notes);
      if (revision !== this.#bench.timeline().revision) {
        return;
      }
      this.#notes = notes;
    }
    this.#show();
  }

  #show() {
    const list = byId('margin-notes');
    list.replaceChildren(...this.#notes.map(note => this.#card(note)));
    this.arrange();
  }

  /** Puts all cards of the margin in their places. */
  arrange() {
    const list = byId('margin-notes');
    const notes = this.#notes.slice(0, list.children.length).map((note, i) => ({ element: /** @type {HTMLElement} */ (list.children[i]), frame: note.places[0]?.startFrame ?? null }));
    arrange(this.#bench.page, list, this.#bench.cards(), notes);
  }

  /** @param {Note} note */
  #card(note) {
    const card = document.createElement('li');
    card.className = note.done ? 'card margin-card note-card done' : 'card margin-card note-card';
    const [icon, kind] = KINDS[note.kind];
    const head = document.createElement('p');
    head.className = 'flex items-center gap-2';
    head.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${this.#icons}#${icon}"></use></svg>`;
    const name = document.createElement('b');
    name.textContent = kind;
    head.append(name);
    if (note.places.length > 0) {
      const go = document.createElement('button');
      go.type = 'button';
      go.className = 'text-muted underline cursor-pointer min-h-6';
      go.textContent = fineClock(note.places[0].startFrame);
      go.setAttribute('aria-label', `Go to ${go.textContent}`);
      go.addEventListener('click', () => this.#bench.goTo(note.places[0].startFrame));
      head.append(go);
    } else {
      const gone = document.createElement('span');
      gone.className = 'text-muted';
      gone.textContent = 'its words are gone';
      head.append(gone);
    }
    const words = document.createElement('p');
    words.textContent = note.words;
    card.append(head, words);
    if (this.#own) {
      card.append(this.#tick(note));
    }
    return card;
  }

  /** @param {Note} note */
  #tick(note) {
    const label = document.createElement('label');
    label.className = 'flex items-center gap-2 text-sm';
    const box = document.createElement('input');
    box.type = 'checkbox';
    box.className = 'size-4';
    box.checked = note.done;
    box.addEventListener('change', async () => {
      note.done = box.checked;
      await postJson(`/notes/${note.id}/done`, { done: box.checked }).catch(() => { note.done = !box.checked; });
      this.#show();
    });
    label.append(box, 'done');
    return label;
  }
}
