// The highlighter: what is selected, across the rows.

/** Lays it over the lanes. @param {import('./state.js').Selection | null} selection @param {import('./rows.js').Rows} rows @param {import('./layout.js').Layout} layout */
export function drawMarker(selection, rows, layout) {
  for (const row of rows.all) {
    const start = Math.max(selection?.start ?? 0, layout.rowStart(row.number));
    const end = Math.min(selection?.end ?? 0, layout.rowEnd(row.number));
    for (const { track, lane } of row.lanes) {
      let marker = /** @type {HTMLElement | null} */ (lane.querySelector('.lane-marker'));
      if (start >= end || !selection?.trackIds.includes(track.id)) {
        marker?.remove();
        continue;
      }
      if (!marker) {
        marker = document.createElement('div');
        marker.className = 'lane-marker';
        lane.append(marker);
      }
      marker.style.left = `${100 * layout.part(row.number, start)}%`;
      marker.style.width = `${100 * (layout.part(row.number, end) - layout.part(row.number, start))}%`;
    }
  }
}
