// Sends edits to the server, one after the other, each with the revision it was made on; the answer is the new timeline.
// Hears of what others do, too.
import { getJson, postJson } from '../shared/http.js';

const UNDO_OF_OTHERS = 'bench.UNDO_OF_OTHERS';

export class Edits {
  #episode;
  #queue = Promise.resolve();
  timeline = null;

  constructor(episodeId) {
    this.#episode = `/episodes/${episodeId}`;
  }

  async load() {
    this.timeline = await getJson(`${this.#episode}/timeline`);
    return this.timeline;
  }

  edit(edit) {
    return this.#send('edits', { edit });
  }

  /** Undoes the last edit; asks first, in the server's words, if it was somebody else's. */
  undo(ask) {
    return this.#send('undo', {}).catch(async problem => {
      if (problem.code === UNDO_OF_OTHERS && await ask(problem.message)) {
        return this.#send('undo', { evenOfOthers: true });
      }
      throw problem;
    });
  }

  /** Lays a sound from the shelf in. */
  layIn(sound) {
    return this.#send('shelf', sound);
  }

  redo() {
    return this.#send('redo', {});
  }

  /** Calls back when somebody else has made a newer timeline, or more is known of a take; it is loaded already then. */
  follow(onNewer) {
    const stream = new EventSource(`${this.#episode}/live`);
    stream.onmessage = ({ data }) => {
      // behind what is being sent, so that this page's own edits are known by then
      this.#queue = this.#queue.then(async () => {
        if (this.timeline && (Number(data) > this.timeline.revision || this.#measuring())) {
          await this.load();
          onNewer();
        }
      }).catch(() => {});
    };
  }

  #measuring() {
    return Object.values(this.timeline.takes).some(take => take.clipped === null);
  }

  #send(what, wish) {
    const sent = this.#queue.then(async () => {
      const clientId = crypto.randomUUID();
      this.timeline = await postJson(`${this.#episode}/${what}`, { clientId, base: this.timeline.revision, ...wish });
      return this.timeline;
    });
    this.#queue = sent.catch(() => {});
    return sent;
  }
}
