// A thin ink bracket under the sound that a note speaks of, with the mark of its kind where it begins.

/**
 * Lays the part of a plain line that is in a row.
 *
 * @param {import('./rows.js').Row} row @param {import('./layout.js').Layout} layout @param {number} start @param {number} end @param {string} kind its class
 */
export function layStretch(row, layout, start, end, kind) {
  const from = Math.max(start, layout.rowStart(row.number));
  const to = Math.min(end, layout.rowEnd(row.number));
  if (from < to) {
    const line = document.createElement('i');
    line.className = kind;
    line.style.left = `${100 * layout.part(row.number, from)}%`;
    line.style.width = `${100 * (layout.part(row.number, to) - layout.part(row.number, from))}%`;
    row.sound.append(line);
  }
}

/**
 * Lays the part of a bracket that is in a row.
 *
 * @param {import('./rows.js').Row} row @param {import('./layout.js').Layout} layout @param {number} start @param {number} end
 * @param {{ id: string, label: string, icon: string, onClick: () => void }} note where `icon` is the address of its mark
 */
export function layBracket(row, layout, start, end, { id, label, icon, onClick }) {
  const from = Math.max(start, layout.rowStart(row.number));
  const to = Math.min(end, layout.rowEnd(row.number));
  if (from >= to) {
    return;
  }
  const bracket = document.createElement('button');
  bracket.type = 'button';
  bracket.className = 'note-bracket';
  bracket.classList.toggle('starts', from === start);
  bracket.classList.toggle('ends', to === end);
  bracket.style.left = `${100 * layout.part(row.number, from)}%`;
  bracket.style.width = `${100 * (layout.part(row.number, to) - layout.part(row.number, from))}%`;
  bracket.dataset.note = id;
  bracket.setAttribute('aria-label', label);
  if (from === start) {
    bracket.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${icon}"></use></svg>`;
  }
  bracket.addEventListener('click', onClick);
  row.sound.append(bracket);
}
