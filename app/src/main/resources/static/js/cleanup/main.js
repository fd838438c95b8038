// A take before and after its cleanup, and what was removed: they run together, so that one goes over into the other without a gap.
import { within } from '../shared/elements.js';
import { RATE, clock } from '../shared/time.js';

/** Sounds that have run further apart than this are set together. */
const APART_SECONDS = 0.04;

/** @param {HTMLElement} section */
function attach(section) {
  if (section.dataset.attached) {
    return;
  }
  section.dataset.attached = 'true';
  const sounds = /** @type {HTMLAudioElement[]} */ ([...section.querySelectorAll('audio')]);
  const buttons = /** @type {HTMLButtonElement[]} */ ([...section.querySelectorAll('[data-hear]')]);
  const toggle = within(section, '[data-toggle]');
  const mark = within(section, '[data-toggle] use');
  const [icons] = (mark.getAttribute('href') ?? '').split('#');
  const place = /** @type {HTMLInputElement} */ (within(section, '[data-place]'));
  let heard = sounds[1];

  const show = () => {
    place.value = String(heard.currentTime);
    const time = clock(heard.currentTime * RATE);
    place.setAttribute('aria-valuetext', time);
    within(section, '[data-clock]').textContent = time;
    mark.setAttribute('href', `${icons}#${heard.paused ? 'play' : 'pause'}`);
    toggle.setAttribute('aria-label', heard.paused ? 'Play' : 'Pause');
    within(section, '[data-word]').textContent = heard.paused ? 'Play' : 'Pause';
  };
  /** Only one is heard; all run. @param {HTMLAudioElement} wanted */
  const hear = wanted => {
    if (Math.abs(wanted.currentTime - heard.currentTime) > APART_SECONDS) {
      wanted.currentTime = heard.currentTime;
    }
    heard = wanted;
    sounds.forEach(sound => { sound.volume = sound === wanted ? Number(sound.dataset.volume) : 0; });
    buttons.forEach(button => button.setAttribute('aria-pressed', String(button.dataset.hear === wanted.dataset.part)));
    show();
  };
  toggle.addEventListener('click', () => {
    const playing = !heard.paused;
    sounds.forEach(sound => {
      if (playing) {
        sound.pause();
      } else {
        sound.currentTime = heard.currentTime;
        sound.play();
      }
    });
  });
  buttons.forEach(button => button.addEventListener('click', () => {
    const wanted = sounds.find(sound => sound.dataset.part === button.dataset.hear);
    if (wanted) {
      hear(wanted);
    }
  }));
  place.addEventListener('input', () => sounds.forEach(sound => { sound.currentTime = Number(place.value); }));
  for (const event of ['timeupdate', 'play', 'pause', 'ended', 'seeked']) {
    sounds.forEach(sound => sound.addEventListener(event, show));
  }
  hear(heard);
}

const attachAll = () => document.querySelectorAll('[data-compare]').forEach(section => attach(/** @type {HTMLElement} */ (section)));
attachAll();
document.body.addEventListener('htmx:afterSettle', attachAll);
