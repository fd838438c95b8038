// On every page of a student: takes that an earlier page on this laptop could not finish are sent, whoever recorded them;
// and signing out waits until the server has everything.
import { onSending, sendLeftovers, unsentSeconds } from './sending.js';

import { within } from '../shared/elements.js';

const form = /** @type {HTMLFormElement | null} */ (document.getElementById('sign-out'));
const note = document.getElementById('sending-note');
let leaving = false;

/** @param {HTMLFormElement} signOut @param {HTMLElement} words */
function show(signOut, words) {
  const seconds = Math.ceil(unsentSeconds());
  words.hidden = seconds === 0;
  words.textContent = `${seconds} s to send`;
  if (leaving && seconds === 0) {
    signOut.submit();
  }
}

if (form && note) {
  onSending(() => show(form, note));
  form.addEventListener('submit', event => {
    if (unsentSeconds() > 0 && !leaving) {
      event.preventDefault();
      leaving = true;
      within(form, 'button').textContent = 'Signing out when it is sent …';
      show(form, note);
    } else if (leaving) {
      event.preventDefault();
    }
  });
  sendLeftovers();
}
