// Flags: named moments. They stand above the sound they speak of; pressing one goes there and offers what can be done.
import { byId, dialogById, fieldById } from '../shared/elements.js';
import { fineClock } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {import('./types.js').Flag} Flag */

export class Flags {
  #bench;
  #icons;
  /** @type {Flag | null} */
  #flag = null;
  /** @type {{ trackId: number, frame: number } | null} */
  #place = null;
  /** @type {import('./types.js').Gesture | null} */
  #gesture = null;

  /** @param {string} icons where they are @param {import('./types.js').Bench} bench */
  constructor(icons, bench) {
    this.#bench = bench;
    this.#icons = icons;
    bench.rows.onRow(row => this.#draw(row));
    document.getElementById('flag-form')?.addEventListener('submit', event => {
      const name = fieldById('flag-name').value.trim();
      if (name && event.submitter?.id !== 'flag-no') {
        bench.edit({ type: 'add-flag', ...this.#place, name }, this.#gesture);
      }
    });
    document.getElementById('flag-name-form')?.addEventListener('submit', () => {
      const name = fieldById('flag-new-name').value.trim();
      if (this.#flag && name && name !== this.#flag.name) {
        bench.edit({ type: 'name-flag', flagId: this.#flag.id, name }, this.#gesture);
      }
    });
    document.getElementById('flag-away')?.addEventListener('click', () => {
      dialogById('flag-card').close();
      bench.edit({ type: 'remove-flag', flagId: this.#flag?.id }, this.#gesture);
    });
  }

  /** @param {import('../page/rows.js').Row} row */
  #draw(row) {
    const layout = this.#bench.layout();
    row.sound.querySelectorAll('.flag').forEach(old => old.remove());
    for (const flag of this.#bench.timeline().flags) {
      const strip = row.lanes.find(({ track }) => track.id === flag.trackId)?.strip;
      if (strip && flag.frame >= layout.rowStart(row.number) && flag.frame < layout.rowEnd(row.number)) {
        strip.append(this.#mark(flag, 100 * layout.part(row.number, flag.frame)));
      }
    }
  }

  /** The flags in order, to go to and to name. */
  drawList() {
    const { flags } = this.#bench.timeline();
    byId('flags-none').hidden = flags.length > 0;
    render(flags.map(flag => html`<li class="flex items-baseline gap-3 py-1">
      <button type="button" class="link-button" aria-label="Go to ${flag.name}" @click=${() => this.#bench.goTo(flag.frame)}>${fineClock(flag.frame)}</button>
      <button type="button" class="link-button truncate" aria-label="Flag ${flag.name}: name it or take it away" @click=${() => this.#open(flag)}>${flag.name}</button></li>`), byId('flags-list'));
  }

  /** Asks for the name of a moment. @param {number} trackId @param {number} frame */
  ask(trackId, frame) {
    this.#place = { trackId, frame };
    this.#gesture = this.#bench.gesture();
    byId('flag-when').textContent = fineClock(frame, 2);
    fieldById('flag-name').value = '';
    dialogById('flag-dialog').showModal();
    byId('flag-name').focus();
  }

  /** @param {Flag} flag @param {number} left in percent of the row */
  #mark(flag, left) {
    const mark = document.createElement('button');
    mark.type = 'button';
    mark.className = 'flag';
    mark.style.left = `${left}%`;
    mark.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${this.#icons}#flag"></use></svg>`;
    mark.append(flag.name);
    mark.setAttribute('aria-label', `Flag: ${flag.name}, ${fineClock(flag.frame)}`);
    mark.addEventListener('click', () => this.#open(flag));
    return mark;
  }

  /** Goes to a flag, and offers what can be done with it. @param {Flag} flag */
  #open(flag) {
    this.#flag = flag;
    this.#gesture = this.#bench.gesture();
    this.#bench.goTo(flag.frame);
    byId('flag-card-name').textContent = flag.name;
    if (document.getElementById('flag-new-name')) {
      fieldById('flag-new-name').value = flag.name;
    }
    byId('flag-card-when').textContent = fineClock(flag.frame, 2);
    dialogById('flag-card').showModal();
  }
}
