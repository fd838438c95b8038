// Listening early: the time of the sound now goes into a field with a press.
import { byId, fieldById } from '../shared/elements.js';
import { RATE, fineClock } from '../shared/time.js';

const sound = /** @type {HTMLAudioElement} */ (byId('early-sound'));
/** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll('[data-now]')).forEach(button => button.addEventListener('click', () => {
  fieldById(button.dataset.now ?? '').value = fineClock(Math.round(sound.currentTime * RATE), 2);
}));
