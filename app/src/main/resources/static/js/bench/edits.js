// Sends edits to the server, one after the other, each with the revision it was made on; the answer is the new timeline.
import { getJson, postJson } from '../shared/http.js';

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
    return this.#send('edits', edit);
  }

  undo() {
    return this.#send('undo', null);
  }

  redo() {
    return this.#send('redo', null);
  }

  #send(what, edit) {
    const sent = this.#queue.then(async () => {
      const clientId = crypto.randomUUID();
      this.timeline = await postJson(`${this.#episode}/${what}`, { clientId, base: this.timeline.revision, edit });
      return this.timeline;
    });
    this.#queue = sent.catch(() => {});
    return sent;
  }
}
