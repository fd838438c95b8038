// On every page of a student: takes that an earlier page on this laptop could not finish are sent, whoever recorded them;
// and signing out waits until the server has everything.
import { onSending, sendLeftovers, unsentSeconds } from './sending.js';

const form = document.getElementById('sign-out');
const note = document.getElementById('sending-note');
let leaving = false;

function show() {
  const seconds = Math.ceil(unsentSeconds());
  note.hidden = seconds === 0;
  note.textContent = `${seconds} s to send`;
  if (leaving && seconds === 0) {
    form.submit();
  }
}

if (form && note) {
  onSending(show);
  form.addEventListener('submit', event => {
    if (unsentSeconds() > 0 && !leaving) {
      event.preventDefault();
      leaving = true;
      form.querySelector('button').textContent = 'Signing out when it is sent …';
      show();
    } else if (leaving) {
      event.preventDefault();
    }
  });
  sendLeftovers();
}
