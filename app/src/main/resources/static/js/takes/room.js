// The recording room: choose a microphone, see the level, record, stop, hear the take.
import { limitsOf } from '../shared/level-scale.js';
import { RATE, fineClock } from '../shared/time.js';
import { attachBringIn } from './bring-in.js';
import { Level } from './level.js';
import { LiveSkyline } from './live-skyline.js';
import { Microphone } from './microphone.js';
import { TakeUpload } from './upload.js';

const byId = id => document.getElementById(id);
const refreshTakes = () => window.htmx.trigger(byId('take-list'), 'refresh');

function attachRecorder(section) {
  const level = new Level(byId('level-fill'), byId('level-word'), limitsOf(section.dataset));
  const skyline = new LiveSkyline(byId('live-body'));
  const record = byId('record');
  let microphone = null;
  let upload = null;

  const say = words => { byId('record-state').textContent = words; };
  const complain = words => {
    byId('mic-problem').hidden = !words;
    byId('mic-problem').firstElementChild.textContent = words ?? '';
  };

  function onBlock(samples, last) {
    const peak = level.show(samples);
    if (upload) {
      upload.add(samples);
      skyline.add(samples.length / microphone.rate, peak);
      byId('clock').textContent = fineClock(upload.frames * RATE / microphone.rate);
      if (last) {
        finish();
      }
    }
  }

  async function listen() {
    complain(null);
    const opened = await Microphone.open(byId('mic').value, section.dataset.worklet, onBlock);
    await microphone?.close();
    microphone = opened;
    microphone.onLost(() => {
      complain('The microphone is gone. What was recorded so far is kept.');
      if (upload) {
        microphone.finish();
      }
    });
    await listDevices();
  }

  async function listDevices() {
    const chosen = byId('mic').value;
    const devices = await Microphone.devices();
    byId('mic').replaceChildren(new Option('The one your browser picks', ''),
      ...devices.map(device => new Option(device.label, device.deviceId, false, device.deviceId === chosen)));
  }

  async function begin() {
    const track = byId('track').value.trim();
    if (!track) {
      byId('track').focus();
      say('Say first whose track this is.');
      return;
    }
    if (!microphone) {
      await listen();
    }
    upload = await TakeUpload.begin(section.dataset.episode, track, microphone.rate);
    skyline.clear();
    say(`Recording here: ${track}, behind what is there.`);
    showRecording(true);
  }

  async function finish() {
    const ending = upload;
    upload = null;
    record.disabled = true;
    const closing = microphone.close();
    microphone = null;
    const telling = setInterval(() => say(`${ending.unsentSeconds.toFixed(0)} s still to send. Stay on this page.`), 500);
    try {
      say('Sending the last second …');
      await ending.end();
      say('Your take is kept. Hear it in the list.');
    } catch (problem) {
      say(`${problem.message} What was sent is kept.`);
    } finally {
      clearInterval(telling);
      showRecording(false);
      byId('level-word').textContent = 'not listening now';
      refreshTakes();
    }
    await closing;
  }

  function showRecording(on) {
    record.disabled = false;
    record.querySelector('span').textContent = on ? 'Stop' : 'Record';
    ['mic', 'track', 'listen'].forEach(id => { byId(id).disabled = on; });
  }

  const guarded = action => async () => {
    try {
      await action();
    } catch (problem) {
      complain(problem.message);
      showRecording(false);
    }
  };

  byId('listen').addEventListener('click', guarded(listen));
  byId('mic').addEventListener('change', guarded(async () => microphone && listen()));
  record.addEventListener('click', guarded(async () => {
    record.disabled = true;
    if (upload) {
      microphone.finish();
    } else {
      await begin();
      record.disabled = false;
    }
  }));
  window.addEventListener('beforeunload', event => {
    if (upload) {
      event.preventDefault();
    }
  });
  listDevices();
}

const recorder = byId('recorder');
if (recorder) {
  attachRecorder(recorder);
  attachBringIn(refreshTakes);
}
