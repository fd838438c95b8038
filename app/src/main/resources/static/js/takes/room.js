// The recording room: choose a microphone, see the level, record, stop, hear the take.
import { postJson } from '../shared/http.js';
import { limitsOf } from '../shared/level-scale.js';
import { RATE, fineClock } from '../shared/time.js';
import { attachBringIn } from './bring-in.js';
import { Level } from './level.js';
import { LiveSkyline } from './live-skyline.js';
import { Microphone } from './microphone.js';
import { onSending, sendTake, unsentSeconds } from './sending.js';

const byId = id => document.getElementById(id);
const refreshTakes = () => window.htmx.trigger(byId('take-list'), 'refresh');

function attachRecorder(section) {
  const level = new Level(byId('level-fill'), byId('level-word'), limitsOf(section.dataset));
  const skyline = new LiveSkyline(byId('live-body'));
  const record = byId('record');
  let microphone = null;
  let recording = false;
  let frames = 0;
  let trouble = false;

  const say = words => { byId('record-state').textContent = words; };
  const complain = words => {
    byId('mic-problem').hidden = !words;
    byId('mic-problem').firstElementChild.textContent = words ?? '';
  };

  function onBlock(samples, last) {
    const peak = level.show(samples);
    if (recording) {
      frames += samples.length;
      skyline.add(samples.length / microphone.rate, peak);
      byId('clock').textContent = fineClock(frames * RATE / microphone.rate);
      if (last) {
        stopped();
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
      if (recording) {
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
    const begun = await postJson(`/episodes/${section.dataset.episode}/recordings`,
      { trackName: track, sampleRate: microphone.rate });
    const samples = new MessageChannel();
    sendTake({ ...begun, rate: microphone.rate }, samples.port2);
    skyline.clear();
    frames = 0;
    recording = true;
    microphone.keep(samples.port1);
    say(`Recording here: ${track}, behind what is there.`);
    showRecording(true);
  }

  async function stopped() {
    recording = false;
    setBusy(true);
    say('Sending the last second …');
    const closing = microphone.close();
    microphone = null;
    byId('level-word').textContent = 'not listening now';
    await closing;
  }

  onSending(message => {
    if (message.type === 'trouble' && message.trouble !== trouble) {
      trouble = message.trouble;
      complain(trouble ? 'The network is gone. Go on: everything is kept here, and sent later.' : null);
    } else if (message.type === 'state') {
      if (!message.storageWorks) {
        complain('This laptop’s storage is full. Everything is still sent. Keep this page open.');
      }
      if (!recording && message.unsentSeconds > 0) {
        say(`${Math.ceil(message.unsentSeconds)} s still to send. It is kept here.`);
      }
    } else if (message.type === 'finished') {
      say('Your take is kept. Hear it in the list.');
      showRecording(false);
      refreshTakes();
    } else if (message.type === 'leftover' && message.takeId) {
      refreshTakes();
    } else if (message.type === 'ended-elsewhere') {
      complain('Your crew ended this take before all of it was sent. The rest stays on this laptop. Tell your teacher.');
      showRecording(false);
      refreshTakes();
    } else if (message.type === 'failed') {
      complain('This take could not be kept as it should. Tell your teacher.');
    }
  });

  // never really disabled: the focus would be lost, and with it the way to stop by keyboard
  let busy = false;
  function setBusy(on) {
    busy = on;
    record.setAttribute('aria-disabled', on);
  }

  function showRecording(on) {
    setBusy(false);
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
    if (busy) {
      return;
    }
    setBusy(true);
    if (recording) {
      microphone.finish();
    } else {
      await begin();
      setBusy(false);
    }
  }));
  // signing out ends the take first; the sign-out then waits until it is sent
  byId('sign-out').addEventListener('submit', () => recording && microphone.finish());
  window.addEventListener('beforeunload', event => {
    if (recording || unsentSeconds() > 0) {
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
