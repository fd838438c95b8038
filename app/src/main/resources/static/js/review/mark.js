// Marking a span of a hand-in for a margin note: by dragging across its picture, or while listening. Notes stand on the picture.
import { RATE, fineClock, framesOf } from '../shared/time.js';

const LEAST_PIXELS = 4;

function attach(picture) {
  if (picture.dataset.marking) {
    return;
  }
  picture.dataset.marking = 'true';
  const section = picture.closest('[data-player]');
  const seconds = Number(section.dataset.seconds);
  const part = (element, start, end) => {
    element.style.left = `${100 * start / seconds}%`;
    element.style.width = `${100 * (end - start) / seconds}%`;
  };
  picture.querySelectorAll('.note-mark').forEach(mark => part(mark, Number(mark.dataset.place), Number(mark.dataset.end)));

  const form = document.getElementById('note-form');
  if (!form) {
    return;
  }
  const marker = document.createElement('div');
  marker.className = 'lane-marker';
  picture.append(marker);
  const from = form.elements.from;
  const to = form.elements.to;
  const show = () => {
    const start = framesOf(from.value);
    const end = framesOf(to.value);
    marker.hidden = start === null || end === null || end <= start;
    part(marker, (start ?? 0) / RATE, Math.max(start ?? 0, end ?? 0) / RATE);
  };
  const set = (field, second) => {
    field.value = fineClock(Math.round(Math.max(0, Math.min(seconds, second)) * RATE), 2);
    show();
  };
  show();
  from.addEventListener('input', show);
  to.addEventListener('input', show);
  form.querySelectorAll('[data-mark]').forEach(button => button.addEventListener('click', () =>
    set(document.getElementById(button.dataset.mark), section.querySelector('audio').currentTime)));

  let anchor = null;
  let dragged = false;
  const at = event => {
    const box = picture.getBoundingClientRect();
    return seconds * (event.clientX - box.left) / box.width;
  };
  picture.addEventListener('pointerdown', event => {
    if (!event.target.closest('button')) {
      anchor = { x: event.clientX, second: at(event), moved: false };
      picture.setPointerCapture(event.pointerId);
    }
  });
  picture.addEventListener('pointermove', event => {
    if (anchor && (anchor.moved || Math.abs(event.clientX - anchor.x) > LEAST_PIXELS)) {
      anchor.moved = true;
      set(from, Math.min(anchor.second, at(event)));
      set(to, Math.max(anchor.second, at(event)));
    }
  });
  picture.addEventListener('pointerup', () => {
    dragged = Boolean(anchor?.moved);
    if (dragged) {
      form.elements.words.focus();
    }
    anchor = null;
  });
  // a drag has marked: the player shall not take its end for a click
  picture.addEventListener('click', event => dragged && event.stopImmediatePropagation(), true);
}

const attachAll = () => document.querySelectorAll('[data-skyline]').forEach(attach);
attachAll();
document.addEventListener('htmx:load', attachAll);
