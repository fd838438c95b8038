// The small player: play mark, skyline to click and scrub, time. Wherever sound is heard outside the page of rows.
import { RATE, clock } from './time.js';

const STEP_SECONDS = 1;

function attach(section) {
  if (section.dataset.attached) {
    return;
  }
  section.dataset.attached = 'true';
  const audio = section.querySelector('audio');
  const button = section.querySelector('[data-play]');
  const icon = section.querySelector('[data-play-icon]');
  const seek = section.querySelector('[data-seek]');
  const time = section.querySelector('[data-clock]');
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
    icon.setAttribute('href', `${icon.dataset.icons}#${audio.paused ? 'play' : 'pause'}`);
  };
  const go = second => {
    audio.currentTime = start + Math.max(0, Math.min(seconds(), second));
    show();
  };
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
    const moved = { ArrowRight: at() + STEP_SECONDS, ArrowLeft: at() - STEP_SECONDS, Home: 0, End: seconds() }[event.key];
    if (moved !== undefined) {
      event.preventDefault();
      go(moved);
    }
  });
  show();
}

/** A player for a sound that has no place in the page's own markup; its length is that of the file. */
export function makePlayer(address, label, icons) {
  const section = document.createElement('div');
  section.className = 'small-player';
  section.dataset.player = '';
  section.dataset.label = label;
  section.innerHTML = `<audio preload="none"></audio>
    <button type="button" class="small-play" data-play><svg class="icon" aria-hidden="true"><use data-play-icon></use></svg></button>
    <div class="small-skyline" data-seek role="slider" tabindex="0" aria-valuemin="0"></div><span class="tabular-nums" data-clock>0:00</span>`;
  section.querySelector('audio').src = address;
  section.querySelector('[data-play-icon]').dataset.icons = icons;
  section.querySelector('[data-seek]').setAttribute('aria-label', `Position in ${label}`);
  attach(section);
  return section;
}

const attachAll = () => document.querySelectorAll('[data-player]').forEach(attach);
attachAll();
document.addEventListener('htmx:load', attachAll);
