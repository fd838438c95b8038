// The small player: play mark, skyline to click and scrub, time. Wherever sound is heard outside the page of rows.
import { render, html } from '../vendor/lit-html/lit-html.js';
import { within } from './elements.js';
import { icon } from './icon.js';
import { RATE, clock } from './time.js';

const STEP_SECONDS = 1;

/** @param {HTMLElement} section */
function attach(section) {
  if (section.dataset.attached) {
    return;
  }
  section.dataset.attached = 'true';
  const audio = /** @type {HTMLAudioElement} */ (within(section, 'audio'));
  const button = within(section, '[data-play]');
  const mark = within(section, '[data-play] use');
  const [icons] = (mark.getAttribute('href') ?? '').split('#');
  const seek = within(section, '[data-seek]');
  const time = within(section, '[data-clock]');
  const start = Number(section.dataset.start ?? 0);
  const label = section.dataset.label ?? '';
  const ribbon = document.createElement('div');
  ribbon.className = 'ribbon';
  seek.append(ribbon);

  const seconds = () => Number(section.dataset.seconds) || (Number.isFinite(audio.duration) ? audio.duration : 0);
  const at = () => Math.max(0, audio.currentTime - start);
  const show = () => {
    time.textContent = clock(at() * RATE);
    ribbon.style.left = `${seconds() > 0 ? Math.min(100, 100 * at() / seconds()) : 0}%`;
    seek.setAttribute('aria-valuemax', String(Math.round(seconds())));
    seek.setAttribute('aria-valuenow', String(Math.round(at())));
    seek.setAttribute('aria-valuetext', `${time.textContent} of ${clock(seconds() * RATE)}`);
    button.setAttribute('aria-label', `${audio.paused ? 'Play' : 'Pause'} ${label}`.trim());
    mark.setAttribute('href', `${icons}#${audio.paused ? 'play' : 'pause'}`);
  };
  /** @param {number} second */
  const go = second => {
    audio.currentTime = start + Math.max(0, Math.min(seconds(), second));
    show();
  };
  /** @param {PointerEvent} event */
  const under = event => {
    const box = seek.getBoundingClientRect();
    return seconds() * (event.clientX - box.left) / box.width;
  };

  button.addEventListener('click', () => {
    if (audio.paused) {
      document.querySelectorAll('audio').forEach(other => other !== audio && other.pause());
      if (audio.currentTime < start) {
        audio.currentTime = start;
      }
      audio.play();
    } else {
      audio.pause();
    }
  });
  for (const event of ['timeupdate', 'play', 'pause', 'ended', 'seeked', 'loadedmetadata']) {
    audio.addEventListener(event, show);
  }
  seek.addEventListener('pointerdown', event => {
    seek.setPointerCapture(event.pointerId);
    go(under(event));
  });
  seek.addEventListener('pointermove', event => seek.hasPointerCapture(event.pointerId) && go(under(event)));
  seek.addEventListener('keydown', event => {
    /** @type {{ [key: string]: number }} */
    const places = { ArrowRight: at() + STEP_SECONDS, ArrowLeft: at() - STEP_SECONDS, Home: 0, End: seconds() };
    const moved = places[event.key];
    if (moved !== undefined) {
      event.preventDefault();
      go(moved);
    }
  });
  show();
}

/** A player for a sound that has no place in the page's own markup; its length is that of the file. @param {string} address @param {string} label @param {string} icons */
export function makePlayer(address, label, icons) {
  const section = document.createElement('div');
  section.className = 'small-player';
  Object.assign(section.dataset, { player: '', label });
  render(html`<audio preload="none" src=${address}></audio>
    <button type="button" class="small-play" data-play>${icon(icons, 'play')}</button>
    <div class="small-skyline" data-seek role="slider" tabindex="0" aria-valuemin="0" aria-label="Position in ${label}"></div><span class="tabular-nums" data-clock>0:00</span>`, section);
  attach(section);
  return section;
}

const attachAll = () => /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll('[data-player]')).forEach(attach);
attachAll();
document.addEventListener('htmx:load', attachAll);
