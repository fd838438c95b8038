// Makes one sprite of the icons that the pages use, so that no page loads the rest.
import { readFileSync } from 'node:fs';

const ICONS = ['mic', 'play', 'pause', 'square', 'undo-2', 'redo-2', 'upload', 'circle-alert', 'check', 'radio', 'rss',
  'headphones', 'flag', 'plus', 'minus', 'log-out', 'arrow-right', 'message-square', 'send', 'x',
  'move-horizontal', 'move-vertical', 'chevrons-left', 'chevrons-right', 'heart', 'circle-help', 'wrench', 'house',
  'chevron-up', 'chevron-down', 'trash-2', 'library', 'music', 'ear', 'users', 'hand', 'audio-lines'];

const symbols = ICONS.map(name => {
  const svg = readFileSync(`node_modules/lucide-static/icons/${name}.svg`, 'utf8');
  const inner = svg.slice(svg.indexOf('>', svg.indexOf('<svg')) + 1, svg.lastIndexOf('</svg>')).trim();
  return `<symbol id="${name}" viewBox="0 0 24 24">${inner}</symbol>`;
});
/** Our own, where there is none to be had. */
const DRAWN = {
  'fade-in': '<path d="M3 19h18"/><path d="M3 19c8 0 8-13 18-13"/>',
  'fade-out': '<path d="M3 19h18"/><path d="M3 6c10 0 10 13 18 13"/>',
};
symbols.push(...Object.entries(DRAWN).map(([name, inner]) => `<symbol id="${name}" viewBox="0 0 24 24">${inner}</symbol>`));
console.log(`<svg xmlns="http://www.w3.org/2000/svg">${symbols.join('')}</svg>`);
