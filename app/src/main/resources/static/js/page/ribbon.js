// The ribbon: a bookmark at the position. While sound plays, the page turns with it.

export class Ribbon {
  #element = document.createElement('div');

  constructor() {
    this.#element.className = 'ribbon';
  }

  show(rows, layout, position, playing) {
    if (layout.rowCount === 0) {
      return;
    }
    const row = layout.rowOf(position);
    if (this.#element.parentElement !== rows.row(row).sound) {
      rows.row(row).sound.append(this.#element);
      if (playing) {
        rows.row(row).element.scrollIntoView({ block: 'nearest' });
      }
    }
    this.#element.style.left = `${100 * layout.part(row, position)}%`;
  }
}
