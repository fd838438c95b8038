// A player for a finished sound: play, seek by slider or by a click on its picture, jump to a place.
import { RATE, clock } from './time.js';

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
  const picture = section.querySelector('[data-skyline]');
  const seconds = Number(section.dataset.seconds);
  const ribbon = picture && addRibbon(picture);

  const show = () => {
    time.textContent = clock(audio.currentTime * RATE);
    seek.value = audio.currentTime;
    seek.setAttribute('aria-valuetext', time.textContent);
    if (ribbon) {
      ribbon.style.left = `${100 * audio.currentTime / seconds}%`;
    }
    button.setAttribute('aria-label', audio.paused ? 'Play' : 'Pause');
    icon.setAttribute('href', `${icon.dataset.icons}#${audio.paused ? 'play' : 'pause'}`);
  };
  const go = at => {
    audio.currentTime = Math.max(0, Math.min(seconds, at));
    show();
  };

  button.addEventListener('click', () => (audio.paused ? audio.play() : audio.pause()));
  for (const event of ['timeupdate', 'play', 'pause', 'ended', 'seeked']) {
    audio.addEventListener(event, show);
  }
  seek.addEventListener('input', () => go(Number(seek.value)));
  picture?.addEventListener('click', event => {
    const box = picture.getBoundingClientRect();
    go(seconds * (event.clientX - box.left) / box.width);
  });
  document.querySelectorAll('[data-place]').forEach(place => place.addEventListener('click', () => {
    go(Number(place.dataset.place) - 1);
    audio.play();
  }));
}

function addRibbon(picture) {
  const ribbon = document.createElement('div');
  ribbon.className = 'ribbon';
  picture.append(ribbon);
  return ribbon;
}

const attachAll = () => document.querySelectorAll('[data-player]').forEach(attach);
attachAll();
document.addEventListener('htmx:load', attachAll);
