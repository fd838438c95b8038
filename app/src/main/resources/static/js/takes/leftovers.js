// On every page of a student: takes that an earlier page on this laptop could not finish are sent, whoever recorded them;
// and signing out waits until the server has everything, and clears the laptop of the rest.
import { forgetFiles } from './kept-files.js';
import { onSending, sendLeftovers, unsentSeconds } from './sending.js';

import { within } from '../shared/elements.js';

const form = /** @type {HTMLFormElement | null} */ (document.getElementById('sign-out'));
const note = document.getElementById('sending-note');
let leaving = false;
let left = false;

/** @param {HTMLFormElement} signOut @param {HTMLElement} words */
function show(signOut, words) {
  const seconds = Math.ceil(unsentSeconds());
  words.hidden = seconds === 0;
  words.textContent = `${seconds} s to send`;
  if (leaving && !left && seconds === 0) {
    left = true;
    clearLaptop().finally(() => signOut.submit());
  }
}

/** Takes that wait stay, sealed; nothing else does. */
async function clearLaptop() {
  localStorage.clear();
  sessionStorage.clear();
  await forgetFiles();
}

if (form && note) {
  onSending(() => show(form, note));
  form.addEventListener('submit', event => {
    event.preventDefault();
    if (leaving) {
      return;
    }
    leaving = true;
    if (unsentSeconds() > 0) {
      within(form, 'button').textContent = 'Signing out when it is sent …';
    }
    show(form, note);
  });
  sendLeftovers();
}
