// The whole page, small, at the right edge; a click goes there.
import { heightOf } from '../shared/level-scale.js';
import { columns, inkOf } from './lanes.js';

const WIDTH = 32;
const LANE = 10;
const GAP = 6;

/** @param {Element} svg @param {import('./layout.js').Layout} layout @param {(row: number) => void} onClick */
export async function drawOverview(svg, layout, onClick) {
  /** @type {SVGElement[]} */
  const shapes = [];
  let top = 2;
  for (let row = 0; row < layout.rowCount; row++) {
    const rowTop = top;
    for (const track of layout.tracksIn(row)) {
      const index = layout.timeline.tracks.indexOf(track);
      const levels = await columns(track, layout.timeline.takes, layout.rowStart(row),
        layout.rowStart(row) + layout.rowFrames, WIDTH).catch(() => []);
      const bars = levels.map((level, x) => (level ? `M${x + 0.5} ${top + LANE}v${-Math.max(0.5, LANE * heightOf(level.average))}` : ''));
      const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
      path.setAttribute('d', bars.join(''));
      path.setAttribute('stroke', inkOf(index));
      shapes.push(path);
      top += LANE + 1;
    }
    const area = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
    area.setAttribute('y', String(rowTop));
    area.setAttribute('width', String(WIDTH));
    area.setAttribute('height', String(Math.max(1, top - rowTop)));
    area.setAttribute('fill', 'transparent');
    area.addEventListener('click', () => onClick(row));
    shapes.push(area);
    top += GAP;
  }
  svg.replaceChildren(...shapes);
}
