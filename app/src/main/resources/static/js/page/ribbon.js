// The ribbon: a bookmark at the position. While sound plays, the page turns with it.

export class Ribbon {
  #element = document.createElement('div');

  constructor() {
    this.#element.className = 'ribbon';
  }

  /** @param {import('./rows.js').Rows} rows @param {import('./layout.js').Layout} layout @param {number} position @param {boolean} playing */
  show(rows, layout, position, playing) {
    if (layout.rowCount === 0) {
      return;
    }
    const number = layout.rowOf(position);
    const row = rows.row(number);
    if (row && this.#element.parentElement !== row.sound) {
      row.sound.append(this.#element);
      if (playing) {
        row.element.scrollIntoView({ block: 'nearest' });
      }
    }
    this.#element.style.left = `${100 * layout.part(number, position)}%`;
  }
}
