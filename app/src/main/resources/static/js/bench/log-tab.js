// The log: what was done, by whom and when. A version can be given a name, and any can be gone back to; that is an edit like any other.
import { askName } from './asking.js';
import { byId } from '../shared/elements.js';
import { getJson, postJson } from '../shared/http.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {{ seq: number, ago: string, who: string, what: string, name: string | null }} Entry */

export class LogTab {
  #bench;
  #episode;
  #own;
  #goBack;
  /** @type {Entry[]} */
  #entries = [];
  #revision = 0;

  /** @param {string} episodeId @param {boolean} own @param {import('./types.js').Bench} bench @param {(seq: number, said: string) => Promise<void>} goBack */
  constructor(episodeId, own, bench, goBack) {
    this.#episode = `/episodes/${episodeId}`;
    this.#own = own;
    this.#bench = bench;
    this.#goBack = goBack;
    byId('log-earlier').addEventListener('click', () => this.#load(this.#entries.at(-1)?.seq));
  }

  async draw() {
    const { revision } = this.#bench.timeline();
    if (revision !== this.#revision) {
      this.#revision = revision;
      this.#entries = [];
      await this.#load();
    }
  }

  /** @param {number} [before] */
  async #load(before) {
    await this.#bench.attempt(async () => {
      const more = await getJson(`${this.#episode}/log${before === undefined ? '' : `?before=${before}`}`);
      this.#entries = before === undefined ? more : [...this.#entries, ...more];
      byId('log-earlier').hidden = more.length === 0 || this.#entries.at(-1)?.seq === 1;
      this.#show();
    });
  }

  #show() {
    render(this.#entries.map((entry, place) => html`
      <li class="track-line">
        <p>${entry.name ? html`<b class="marked">${entry.name}</b> ` : null}${entry.what}</p>
        <p class="text-muted text-sm">${entry.who ? `${entry.who} · ` : ''}${entry.ago} · version ${entry.seq}</p>
        ${this.#own ? html`<p class="flex flex-wrap gap-3 text-sm">
          ${place > 0 ? html`<button type="button" class="link-button" aria-label="Go back to version ${entry.seq}" @click=${() => this.#goBack(entry.seq, `It is as it was: ${entry.name ?? `version ${entry.seq}`}. Undo takes you forward again.`)}>Go back to it</button>` : null}
          <button type="button" class="link-button" aria-label="Name version ${entry.seq}" @click=${() => this.#name(entry)}>${entry.name ? 'Another name' : 'Name it'}</button></p>` : null}
      </li>`), byId('log-list'));
  }

  /** @param {Entry} entry */
  async #name(entry) {
    const name = await askName('What is this version called?', entry.name ?? '');
    if (name !== null) {
      this.#bench.attempt(async () => {
        await postJson(`${this.#episode}/versions/${entry.seq}/name`, { name });
        entry.name = name || null;
        this.#show();
      });
    }
  }
}
