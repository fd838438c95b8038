// An edit that is offered: it can be heard before it is kept.
import { byId } from '../shared/elements.js';
import { postJson } from '../shared/http.js';

export class Offer {
  #bench;
  #episode;
  /** @type {{ wish: import('./types.js').Wish, gesture: import('./types.js').Gesture, key: string, frames: number, said: string, at: number, then: () => void } | null} */
  #offered = null;

  /** @param {string} episodeId @param {import('./types.js').Bench} bench */
  constructor(episodeId, bench) {
    this.#bench = bench;
    this.#episode = `/episodes/${episodeId}`;
    byId('offer-hear').addEventListener('click', () => this.#hear());
    byId('offer-keep').addEventListener('click', () => this.#keep());
    byId('offer-leave').addEventListener('click', () => this.#answered()?.then());
  }

  /** Beside what it stands. */
  get frame() {
    return this.#offered?.at ?? null;
  }

  /** @param {import('./types.js').Wish} wish @param {string} words what it would do @param {string} said once it is kept @param {number} at where it is heard from @param {() => void} then once it is kept or left */
  async make(wish, words, said, at, then) {
    const gesture = this.#bench.gesture();
    const { key, frames } = await postJson(`${this.#episode}/trials`, { base: gesture.base, edit: wish });
    this.#offered = { wish, gesture, key, frames, said, at, then };
    byId('offer-words').textContent = words;
    byId('offer').hidden = false;
    this.#bench.page.say('Hear it, then keep it or leave it.');
    byId('offer-hear').focus({ preventScroll: true });
  }

  #hear() {
    if (this.#offered) {
      const { key, frames, at } = this.#offered;
      this.#bench.page.playTrial(key, at < frames ? at : 0, frames, frame => frame);
    }
  }

  async #keep() {
    const offered = this.#answered();
    if (offered) {
      await this.#bench.edit(offered.wish, offered.gesture, `${offered.said} Undo takes it back.`);
      offered.then();
    }
  }

  #answered() {
    const offered = this.#offered;
    this.leave();
    return offered;
  }

  /** Nothing is offered any more. */
  leave() {
    if (!this.#offered) {
      return;
    }
    this.#offered = null;
    byId('offer').hidden = true;
    this.#bench.page.stop();
    this.#bench.page.say(null);
  }
}
