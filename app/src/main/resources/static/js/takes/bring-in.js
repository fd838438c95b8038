// Brings a file in by picker or by dropping it, with the progress of sending it.
import { csrfHeaders, wordsFor } from '../shared/http.js';

const MOST_BYTES = 2 * 1024 ** 3;

export function attachBringIn(refreshTakes) {
  const card = document.getElementById('bring-in');
  const form = document.getElementById('bring-form');
  const state = document.getElementById('bring-state');
  const progress = document.getElementById('bring-progress');
  const input = document.getElementById('file');

  const say = words => { state.textContent = words; };

  function send(file) {
    if (file.size > MOST_BYTES) {
      say('This file is larger than 2 GB. Bring in a shorter part.');
      return;
    }
    const body = new FormData(form);
    body.set('file', file);
    const request = new XMLHttpRequest();
    request.open('POST', form.action);
    Object.entries(csrfHeaders()).forEach(([name, value]) => request.setRequestHeader(name, value));
    request.setRequestHeader('Accept', 'application/json');
    request.responseType = 'json';
    request.upload.onprogress = event => { progress.value = 100 * event.loaded / event.total; };
    request.onload = () => {
      progress.hidden = true;
      say(request.status < 300 ? `${file.name} is here. It is being made ready.` : wordsFor(request.status, request.response));
      form.reset();
      refreshTakes();
    };
    request.onerror = () => {
      progress.hidden = true;
      say('The network is gone. The file is still on your computer. Try again.');
    };
    progress.hidden = false;
    progress.value = 0;
    say(`Sending ${file.name} …`);
    request.send(body);
  }

  form.addEventListener('submit', event => {
    event.preventDefault();
    send(input.files[0]);
  });
  card.addEventListener('dragover', event => event.preventDefault());
  card.addEventListener('drop', event => {
    event.preventDefault();
    if (event.dataTransfer.files.length > 0 && form.elements.trackName.reportValidity()) {
      send(event.dataTransfer.files[0]);
    }
  });
}
