// How somebody likes an episode's page to look: how many seconds a row has, which tracks are high, low or not shown, whether
// frequencies are drawn. It is kept in the browser, and is no part of the episode.

import { byId } from '../shared/elements.js';

/** Beside others. @type {{ [name: string]: number }} */
export const HEIGHTS = { high: 1.7, usual: 1, low: 0.6, hidden: 0 };

export class Look {
  #keptAs;
  #kept;

  /** @param {string} person @param {string} episode */
  constructor(person, episode) {
    this.#keptAs = `mellow-look-${person}-${episode}`;
    /** @type {{ heights: { [trackId: string]: string }, spectrum: boolean, rowSeconds: number | null }} */
    this.#kept = { heights: {}, spectrum: false, rowSeconds: null, ...JSON.parse(localStorage.getItem(this.#keptAs) ?? '{}') };
  }

  /** The name of a track's height. @param {number} trackId */
  height(trackId) {
    return this.#kept.heights[trackId] ?? 'usual';
  }

  get shares() {
    return Object.fromEntries(Object.entries(this.#kept.heights).map(([trackId, name]) => [trackId, HEIGHTS[name] ?? 1]));
  }

  /** @param {number} trackId @param {string} name */
  setHeight(trackId, name) {
    this.#kept.heights[trackId] = name;
    this.#keep();
  }

  showAll() {
    for (const [trackId, name] of Object.entries(this.#kept.heights)) {
      if (name === 'hidden') {
        delete this.#kept.heights[trackId];
      }
    }
    this.#keep();
  }

  /** How many seconds a row has; null for what fits the window. */
  get rowSeconds() {
    return this.#kept.rowSeconds;
  }

  set rowSeconds(seconds) {
    this.#kept.rowSeconds = seconds;
    this.#keep();
  }

  get spectrum() {
    return this.#kept.spectrum;
  }

  set spectrum(on) {
    this.#kept.spectrum = on;
    this.#keep();
  }

  #keep() {
    localStorage.setItem(this.#keptAs, JSON.stringify(this.#kept));
  }
}

/** Says what is not shown. @param {Look} look @param {import('./types.js').TrackView[]} tracks */
export function showLook(look, tracks) {
  const hidden = tracks.filter(track => look.shares[track.id] === 0);
  byId('not-shown').hidden = hidden.length === 0;
  byId('not-shown-names').textContent = `Not shown, but heard: ${hidden.map(track => track.name).join(', ')}.`;
  byId('show-spectrum').setAttribute('aria-pressed', String(look.spectrum));
}
