// The drawer in the margin: tracks, takes and pauses, one at a time. While it is open it has the margin for itself.
import { byId } from '../shared/elements.js';

export class Drawer {
  #onOpen;
  /** Which tab is open; null while the drawer is closed. @type {string | null} */
  #open = null;

  /** @param {(tab: string | null) => void} onOpen called with the tab that is open now */
  constructor(onOpen) {
    this.#onOpen = onOpen;
    this.#tabs.forEach(tab => tab.addEventListener('click', () => this.show(tab.dataset.tab === this.#open ? null : tab.dataset.tab ?? null)));
  }

  get #tabs() {
    return /** @type {HTMLElement[]} */ ([...byId('drawer-tabs').querySelectorAll('[data-tab]')]);
  }

  get open() {
    return this.#open;
  }

  /** @param {string | null} name */
  show(name) {
    this.#open = name;
    this.#tabs.forEach(tab => tab.setAttribute('aria-expanded', String(tab.dataset.tab === name)));
    for (const panel of /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll('[data-panel]'))) {
      panel.hidden = panel.dataset.panel !== name;
    }
    byId('margin-main').hidden = name !== null;
    this.#onOpen(name);
  }
}
