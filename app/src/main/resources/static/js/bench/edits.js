// Sends edits to the server, one after the other; the answer is the newest timeline, with the way that times have gone.
// Hears of what others do, too.
import { Refused, getJson, postJson } from '../shared/http.js';
import { unfold } from '../page/unfold.js';

const UNDO_OF_OTHERS = 'bench.UNDO_OF_OTHERS';
/** Tried again for some five minutes, with longer and longer waits. */
const TRIES = 45;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 8000;

/** @param {number} ms @returns {Promise<void>} */
const wait = ms => new Promise(done => { setTimeout(done, ms); });

/** @typedef {import('../page/types.js').TimelineView} TimelineView */
/** @typedef {{ clientId: string, base: number }} Gesture */

export class Edits {
  #episode;
  /** @type {Promise<unknown>} */
  #queue = Promise.resolve();
  /** The newest revision that was told of. */
  #told = 0;
  /**
   * Revisions that nobody but this page has changed, with the one that it has made of each, and whether times moved.
   *
   * @type {Map<number, { revision: number, moved: boolean }>}
   */
  #mine = new Map();
  /** @type {TimelineView} set by the first {@link load} */
  timeline = /** @type {any} */ (null);
  /**
   * Called with the maps of tracks and the tracks as they were, before anything is drawn.
   *
   * @type {(maps: import('../page/types.js').Maps, tracks: import('../page/types.js').TrackView[]) => void}
   */
  onMoved = () => {};
  /** Called with how far what was done has come. @type {(state: 'saving' | 'waiting' | 'saved' | 'refused') => void} */
  onSaving = () => {};

  /** @param {number | string} episodeId */
  constructor(episodeId) {
    this.#episode = `/episodes/${episodeId}`;
  }

  async load() {
    this.#show(unfold(await getJson(`${this.#episode}/timeline?since=${this.timeline?.revision ?? 0}`)));
    return this.timeline;
  }

  /** What an edit is made on is what the page shows when the hand begins: it is fixed here, however long the sending takes. */
  gesture() {
    return { clientId: crypto.randomUUID(), base: this.timeline.revision };
  }

  /** @param {object} edit @param {Gesture} gesture */
  edit(edit, gesture = this.gesture()) {
    return this.#send('edits', { edit }, gesture, false);
  }

  /** Undoes the last edit; asks first, in the server's words, if it was somebody else's. @param {(words: string) => boolean | Promise<boolean>} ask */
  undo(ask) {
    const gesture = this.gesture();
    return this.#send('undo', {}, gesture, true).catch(async problem => {
      if (problem.code === UNDO_OF_OTHERS && await ask(problem.message)) {
        return this.#send('undo', { evenOfOthers: true }, this.gesture(), true);
      }
      throw problem;
    });
  }

  /** Lays a sound from the shelf in. @param {object} sound @param {Gesture} gesture */
  layIn(sound, gesture = this.gesture()) {
    return this.#send('shelf', sound, gesture, false);
  }

  /** Brings back an earlier revision. @param {number} seq */
  goBack(seq) {
    return this.#send('go-back', { seq }, this.gesture(), true);
  }

  redo() {
    return this.#send('redo', {}, this.gesture(), true);
  }

  /**
   * Calls back when somebody else has made a newer timeline, or more is known of its sounds; it is loaded already then.
   *
   * @param {(newer: boolean) => void} onNewer
   */
  follow(onNewer) {
    this.#told = this.timeline.revision;
    const stream = new EventSource(`${this.#episode}/live`);
    let opened = false;
    stream.onopen = () => {
      if (opened) {
        this.#catchUp(onNewer);
      }
      opened = true;
    };
    stream.onmessage = ({ data }) => {
      // behind what is being sent, so that this page's own edits are known by then
      this.#queue = this.#queue.then(async () => {
        const newer = Boolean(this.timeline) && Number(data) > this.timeline.revision;
        // what is told again of a revision was measured of it
        const measured = Number(data) <= this.#told;
        this.#told = Math.max(this.#told, Number(data));
        if (newer || measured || this.#soundsOnTheirWay()) {
          await this.load();
          onNewer(newer);
        }
      }).catch(() => {});
    };
  }

  /** What happened while the stream was away is not told again. @param {(newer: boolean) => void} onNewer */
  #catchUp(onNewer) {
    this.#queue = this.#queue.then(async () => {
      const before = this.timeline?.revision;
      await this.load();
      if (before !== undefined) {
        onNewer(this.timeline.revision > before);
      }
    }).catch(() => {});
  }

  #soundsOnTheirWay() {
    return Object.values(this.timeline.takes).some(take => take.clipped === null)
      || this.timeline.tracks.some(track => track.clips.some(clip => clip.source.soundId === null));
  }

  /** @param {TimelineView} timeline */
  #show(timeline) {
    const before = this.timeline;
    this.timeline = timeline;
    if (before && timeline.since === before.revision && Object.keys(timeline.maps).length > 0) {
      this.onMoved(timeline.maps, before.tracks);
    }
  }

  /**
   * The revision a gesture counts as made on. Whoever presses on while an edit of theirs is on its way knows of that edit; so
   * it counts as seen, unless times moved (then the server moves the later edit) or somebody else came between.
   *
   * @param {Gesture} gesture @param {boolean} overMoves
   */
  #baseOf(gesture, overMoves) {
    let { base } = gesture;
    for (let mine = this.#mine.get(base); mine && (overMoves || !mine.moved); mine = this.#mine.get(base)) {
      base = mine.revision;
    }
    return base;
  }

  /** @param {string} what @param {object} wish @param {Gesture} gesture @param {boolean} overMoves @returns {Promise<TimelineView>} */
  #send(what, wish, gesture, overMoves) {
    const sent = this.#queue.then(async () => {
      this.onSaving('saving');
      const base = this.#baseOf(gesture, overMoves);
      const body = { clientId: gesture.clientId, base, shown: this.timeline.revision, ...wish };
      const timeline = unfold(await this.#posted(`${this.#episode}/${what}`, body));
      if (timeline.revision === body.shown + 1 && (base === body.shown || this.#baseOf(gesture, true) === body.shown)) {
        this.#mine.set(body.shown, { revision: timeline.revision, moved: Object.keys(timeline.maps).length > 0 });
      }
      this.#show(timeline);
      this.onSaving('saved');
      return this.timeline;
    });
    this.#queue = sent.catch(() => this.onSaving('refused'));
    return sent;
  }

  /** Tried again when the network is away, as the same edit: the server knows it by its id. @param {string} address @param {object} body */
  async #posted(address, body) {
    for (let attempt = 1; ; attempt++) {
      try {
        return await postJson(address, body);
      } catch (problem) {
        if (!(problem instanceof Refused) || problem.status !== 0 || attempt === TRIES) {
          throw problem;
        }
        this.onSaving('waiting');
        await wait(Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (attempt - 1)));
      }
    }
  }
}
