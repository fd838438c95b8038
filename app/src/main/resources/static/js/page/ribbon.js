// The ribbon: a bookmark at the position. While sound plays, the page turns with it, until somebody looks elsewhere.

/** How long a scroll of our own takes to be told, in ms. */
const OWN_SCROLL_MS = 250;

export class Ribbon {
  #element = document.createElement('div');
  #back;
  #rows;
  #following = true;
  #ownScrollUntil = 0;
  /** @type {number | null} */
  #row = null;

  /** @param {import('./rows.js').Rows} rows @param {HTMLElement} back the button that goes back to the sound @param {() => boolean} isPlaying */
  constructor(rows, back, isPlaying) {
    this.#element.className = 'ribbon';
    const head = document.createElement('div');
    head.className = 'ribbon-head';
    head.title = 'drag to hear';
    this.#element.append(head);
    this.#rows = rows;
    this.#back = back;
    back.addEventListener('click', () => this.follow());
    window.addEventListener('scroll', () => {
      if (isPlaying() && performance.now() > this.#ownScrollUntil) {
        this.#following = this.#inSight();
      }
      this.#offerBack();
    }, { passive: true });
  }

  /** The position is brought into view, and followed from now on. */
  follow() {
    this.#following = true;
    this.#bring();
    this.#offerBack();
  }

  /** @param {import('./layout.js').Layout} layout @param {number} position @param {boolean} playing */
  show(layout, position, playing) {
    if (layout.rowCount === 0) {
      this.#element.remove();
      return;
    }
    const number = layout.rowOf(position);
    const turned = number !== this.#row;
    this.#row = number;
    if (turned && playing && this.#following) {
      this.#bring();
    }
    const row = this.#rows.row(number);
    if (row && this.#element.parentElement !== row.sound) {
      row.sound.append(this.#element);
    } else if (!row) {
      this.#element.remove();
    }
    this.#element.style.left = `${100 * layout.part(number, position)}%`;
    if (turned) {
      this.#offerBack();
    }
  }

  #bring() {
    if (this.#row !== null) {
      this.#ownScrollUntil = performance.now() + OWN_SCROLL_MS;
      this.#rows.bringIntoView(this.#row);
    }
  }

  #inSight() {
    const { top, bottom } = this.#row === null ? { top: 0, bottom: 1 } : this.#rows.placeOf(this.#row);
    return bottom > 0 && top < window.innerHeight;
  }

  #offerBack() {
    this.#back.hidden = this.#inSight();
  }
}
