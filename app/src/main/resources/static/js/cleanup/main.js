// A take before and after its cleanup, and what was removed: they run together, so that one goes over into the other without a gap.
import { drawSpectrum, spectrumOfSound } from '../page/spectrum.js';
import { byId, within } from '../shared/elements.js';
import { RATE, clock } from '../shared/time.js';
import { attachSteps, focusMoved } from './steps.js';

/** Sounds that have run further apart than this are set together. */
const APART_SECONDS = 0.04;

/** What was heard, and where of the take in seconds, when some seconds of it gave way to the whole. @type {{part?: string, seconds: number}} */
let kept = { seconds: 0 };

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
  let heard = sounds.find(sound => sound.dataset.part === kept.part) ?? sounds[1];

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
  sounds.forEach(sound => { sound.currentTime = kept.seconds; });
  kept = { seconds: 0 };
  hear(heard);
}

/** @param {HTMLCanvasElement} canvas */
async function draw(canvas) {
  if (canvas.dataset.drawn) {
    return;
  }
  canvas.dataset.drawn = 'true';
  const ratio = window.devicePixelRatio || 1;
  const width = canvas.clientWidth;
  const steps = await spectrumOfSound(canvas.dataset.sound ?? '', 0, Number(canvas.dataset.frames), width).catch(() => null);
  if (steps) {
    canvas.width = width * ratio;
    canvas.height = canvas.clientHeight * ratio;
    canvas.getContext('2d')?.scale(ratio, ratio);
    drawSpectrum(canvas, steps, width);
  }
}

const isPlaying = () => [...document.querySelectorAll('audio')].some(sound => !sound.paused);

/** The whole take is there: it is heard from now on, but nothing that plays is broken off. */
function hearWhole() {
  if (document.querySelector('#figures[data-made=true]') && document.querySelector('[data-compare][data-whole=false]') && !isPlaying()) {
    window.htmx.trigger(byId('hearing'), 'whole');
  }
}

document.body.addEventListener('htmx:beforeSwap', event => {
  const { detail } = /** @type {CustomEvent<{target: HTMLElement, shouldSwap: boolean}>} */ (event);
  if (detail.target.id !== 'hearing') {
    return;
  }
  if (isPlaying()) {
    // somebody has begun to listen since it was asked for
    detail.shouldSwap = false;
  } else {
    const compare = within(detail.target, '[data-compare]');
    kept = { part: within(compare, '[aria-pressed=true]').dataset.hear,
      seconds: Number(compare.dataset.from) / RATE + Number(/** @type {HTMLInputElement} */ (within(compare, '[data-place]')).value) };
  }
});

const attachAll = () => {
  document.querySelectorAll('[data-compare]').forEach(section => attach(/** @type {HTMLElement} */ (section)));
  /** @type {NodeListOf<HTMLCanvasElement>} */ (document.querySelectorAll('.spectrum-picture')).forEach(canvas => { draw(canvas); });
  focusMoved();
  hearWhole();
};
attachAll();
attachSteps(within(document, 'main'));
document.body.addEventListener('htmx:afterSettle', attachAll);
document.body.addEventListener('pause', hearWhole, true);
