// The teacher's notes, in the margin beside the rows they speak of. They stay with their words, and say so when these are gone.
import { layBracket } from '../page/bracket.js';
import { lightNotes } from '../page/lit.js';
import { arrange } from '../page/margin.js';
import { byId, fieldOf } from '../shared/elements.js';
import { getJson, postJson } from '../shared/http.js';
import { icon } from '../shared/icon.js';
import { fineClock } from '../shared/time.js';
import { live } from '../vendor/lit-html/directives/live.js';
import { repeat } from '../vendor/lit-html/directives/repeat.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {{ id: number, kind: keyof KINDS, words: string, spoken: boolean, tracks: string | null, done: boolean, doneWords: string | null, agreed: boolean, replies: { author: string, words: string }[], places: { startFrame: number, endFrame: number }[], swapped: boolean }} Note */

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
    bench.rows.onRow(row => this.#mark(row));
    lightNotes();
    byId('margin-notes').addEventListener('htmx:afterSettle', () => this.arrange());
    // a spoken note is not heard together with the page
    byId('margin-notes').addEventListener('play', () => bench.page.stop(), true);
  }

  /** Brackets under what the notes speak of that are not done. @param {import('../page/rows.js').Row} row */
  #mark(row) {
    row.sound.querySelectorAll('.note-bracket').forEach(old => old.remove());
    const layout = this.#bench.layout();
    this.#notes.filter(note => !note.done).forEach(note => note.places.forEach(({ startFrame, endFrame }) => {
      const [drawing, kind] = KINDS[note.kind];
      layBracket(row, layout, startFrame, endFrame, { id: String(note.id), label: `Note: ${kind}, ${fineClock(startFrame)}`, icon: `${this.#icons}#${drawing}`,
        onClick: () => this.#bench.goTo(startFrame) });
    }));
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
    const open = this.#notes.filter(note => !note.done && note.places.length > 0);
    render(repeat(this.#notes, note => note.id, note => this.#card(note)), byId('margin-notes'));
    window.htmx.process(byId('margin-notes'));
    byId('notes-left').textContent = open.length === 0 ? '' : `${open.length} ${open.length === 1 ? 'note' : 'notes'} to look at`;
    byId('next-note').hidden = open.length === 0;
    this.#bench.rows.all.forEach(row => this.#mark(row));
    this.arrange();
  }

  /** To the next note that is not done, from the first again behind the last. */
  toNext() {
    const open = this.#notes.filter(note => !note.done && note.places.length > 0);
    const now = this.#bench.page.now();
    const next = open.find(note => note.places[0].startFrame > now) ?? open[0];
    if (next) {
      this.#bench.goTo(next.places[0].startFrame);
    }
  }

  /** Puts all cards of the margin in their places. */
  arrange() {
    const list = byId('margin-notes');
    const notes = this.#notes.slice(0, list.children.length).map((note, i) => ({ element: /** @type {HTMLElement} */ (list.children[i]), frame: note.places[0]?.startFrame ?? null }));
    arrange(this.#bench.page, list, this.#bench.cards(), notes);
  }

  /** @param {Note} note */
  #card(note) {
    const [drawing, kind] = KINDS[note.kind];
    const start = note.places[0]?.startFrame;
    return html`
      <li class="card margin-card note-card ${note.done ? 'done' : ''}" data-note=${note.id}>
        <p class="flex items-center gap-2">${icon(this.#icons, drawing)}<b>${kind}</b>${start === undefined
    ? html`<span class="text-muted">its words are gone</span>`
    : html`<button type="button" class="text-muted underline cursor-pointer min-h-6" aria-label="Go to ${fineClock(start)}"
            @click=${() => this.#bench.goTo(start)}>${fineClock(start)}</button>`}${note.tracks ? html`<span class="text-sm text-muted">on ${note.tracks}</span>` : ''}${note.swapped ? html`<span class="text-muted text-sm">swapped for another take</span>` : null}</p>
        ${note.words ? html`<p>${note.words}</p>` : null}
        ${note.spoken ? html`<div class="spoken" hx-get="/notes/${note.id}/spoken" hx-trigger="load" hx-swap="innerHTML"></div>` : null}
        ${note.replies.map(reply => html`<p class="text-sm border-l-2 border-line pl-2"><b>${reply.author}</b> ${reply.words}</p>`)}
        ${this.#own ? html`<label class="flex items-center gap-2 text-sm"><input type="checkbox" class="size-4" .checked=${live(note.done)}
          @change=${(/** @type {Event} */ event) => this.#tick(note, fieldOf(event).checked)}>${note.agreed ? 'done, as you both say' : 'done'}</label>
          ${note.done ? html`<label class="small-field">How you did it<input maxlength="300" autocomplete="off" .value=${live(note.doneWords ?? '')}
            @change=${(/** @type {Event} */ event) => this.#tick(note, true, fieldOf(event).value)}></label>` : null}` : null}
      </li>`;
  }

  /** @param {Note} note @param {boolean} done @param {string | null} [how] it was done, in the crew's words */
  async #tick(note, done, how = null) {
    const before = { ...note };
    Object.assign(note, { done, doneWords: how, agreed: false });
    await postJson(`/notes/${note.id}/done`, { done, how }).catch(problem => {
      Object.assign(note, before);
      this.#bench.page.say(problem.message);
    });
    this.#show();
  }
}
