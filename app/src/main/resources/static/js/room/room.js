// The recording room: choose a microphone, see the level, record, pause, flag, stop, hear the take.
import { Preview } from '../page/preview.js';
import { buttonById, byId, fieldById, selectById, sourceOf, within } from '../shared/elements.js';
import { getJson, postJson } from '../shared/http.js';
import { limitsOf } from '../shared/level-scale.js';
import { follow } from '../shared/live.js';
import { RATE, fineClock } from '../shared/time.js';
import { attachBringIn } from '../takes/bring-in.js';
import { Level } from '../takes/level.js';
import { Microphone, NoMicrophone, PRACTICE, whatIsMissing } from '../takes/microphone.js';
import { isBusy, isTaking, may, next } from '../takes/recording-state.js';
import { flagTake, onSending, sendTake, unsentSeconds } from '../takes/sending.js';
import { Check } from './check.js';
import { attachLanding, placeFrame, showLanding } from './landing.js';
import { LiveSkyline } from './live-skyline.js';
import { Script } from './script.js';
import { attachTogether } from './together.js';
import { attachVoices, voices } from './voices.js';
import { Watch } from './watch.js';

const refreshTakes = () => window.htmx.trigger(byId('take-list'), 'refresh');
const LITTLE_STORAGE = 50e6;

/** @param {HTMLElement} section */
function attachRecorder(section) {
  const { episode: episodeId = '' } = section.dataset;
  const level = new Level(byId('level-fill'), byId('level-word'), limitsOf(section.dataset));
  const skyline = new LiveSkyline(byId('live-body'));
  const check = new Check();
  const script = new Script(document.getElementById('script-lines'), () => { isTaking(state) || press(null); },
    () => showLanding(episodeId, script.isRetake));
  const accompaniment = new Preview((sound, from, to) => `/episodes/${episodeId}/sound/${sound}/${from}-${to}`);
  const record = byId('record');
  /** @type {Microphone | null} */
  let microphone = null;
  /** @type {{ leadFrames: number } | null} */
  let take = null;
  /** @type {import('../takes/recording-state.js').State} */
  let state = 'idle';
  let frames = 0;
  let flags = 0;
  let trouble = false;

  /** @param {string} words */
  const say = words => { byId('record-state').textContent = words; };
  /** @type {string | null} */
  let complaint = null;
  /** @param {string | null} words @param {boolean} practice whether the practice microphone would help */
  const complain = (words, practice = false) => {
    byId('without-mic').hidden = !practice;
    if (words !== complaint) {
      complaint = words;
      byId('mic-problem').hidden = !words;
      within(byId('mic-problem'), ':first-child').textContent = words ?? '';
    }
  };
  const watch = new Watch(words => complain(words ?? (trouble ? complaint : null)));

  /** @param {import('../takes/microphone.js').Block} block */
  function onBlock(block) {
    const { samples, last, kept } = block;
    const peak = level.show(samples);
    const rate = microphone?.rate ?? RATE;
    check.listen(block, rate);
    if (isTaking(state) && kept) {
      frames += samples.length;
      skyline.add(samples.length / rate, peak);
      byId('clock').textContent = fineClock(frames * RATE / rate);
      watch.look(samples, samples.length / rate);
    }
    if (last && may(state, 'last')) {
      stopped();
    }
  }

  async function listen() {
    complain(null);
    const opened = await Microphone.open(fieldById('mic').value, section.dataset, onBlock);
    await microphone?.close();
    microphone = opened;
    happens('listen');
    opened.onLost(() => {
      complain('The microphone is gone. What was recorded so far is kept.');
      if (isTaking(state)) {
        opened.finish();
      }
      happens('lose');
    });
    const { processing } = opened;
    if (processing.length > 0) {
      complain(`The browser keeps ${processing.join(' and ')} on. It changes your voice. Switch it off in the system’s settings.`);
    }
    hearSelf();
    await opened.playThrough(fieldById('output').value);
    await listDevices();
    return opened;
  }

  async function listDevices() {
    /** @param {HTMLSelectElement} select @param {HTMLOptionElement[]} first @param {MediaDeviceInfo[]} devices */
    const fill = (select, first, devices) => {
      const chosen = select.value;
      select.replaceChildren(...first, ...devices.map(device => new Option(device.label, device.deviceId, false, device.deviceId === chosen)));
      select.value = [...select.options].some(option => option.value === chosen) ? chosen : '';
    };
    fill(selectById('mic'), [new Option('The one your browser picks', ''), new Option('Practice microphone: a voice that reads', PRACTICE)], await Microphone.devices());
    fill(selectById('output'), [new Option('The usual place', '')], await Microphone.devices('audiooutput'));
  }

  const volume = () => Number(fieldById('volume').value) / 100;
  const hearSelf = () => microphone?.monitor(fieldById('headphones').checked && fieldById('hear-self').checked ? volume() : 0);

  /** @param {import('./together.js').Word | null} word on which another laptop begins at the same time; null for this one alone */
  async function begin(word) {
    const track = fieldById('track').value.trim();
    if (!track) {
      byId('track').focus();
      say('Say first whose track this is.');
      happens('fail');
      return;
    }
    const opened = microphone ?? await listen();
    const estimate = await navigator.storage?.estimate?.().catch(() => null);
    if (estimate?.quota && estimate.quota - (estimate.usage ?? 0) < LITTLE_STORAGE) {
      complain('This laptop’s storage is nearly full. Everything is sent while you speak. Keep this page open.');
    }
    const where = await showLanding(episodeId, script.isRetake);
    const { leadFrames } = opened;
    const begun = await postJson(`/episodes/${episodeId}/recordings`, { trackName: track, sampleRate: opened.rate, leadFrames,
      placeFrame: word ? word.placeFrame : placeFrame(), together: word?.key, lineId: script.line, ...voices(), microphone: JSON.stringify(opened.granted).slice(0, 500) });
    const { takeId, uploadKey, seal } = begun;
    take = { leadFrames };
    const samples = new MessageChannel();
    sendTake({ takeId, uploadKey, rate: opened.rate, episodeId }, seal, samples.port2);
    skyline.clear();
    frames = 0;
    flags = 0;
    happens('begun');
    opened.keep(samples.port1, leadFrames);
    say(word ? 'Recording together. Each laptop stops by itself.' : `Recording here: ${where}.`);
    accompany();
  }

  /** Plays the other tracks from the take's place on: only into headphones, or they would be recorded too. */
  async function accompany() {
    const place = placeFrame();
    if (fieldById('headphones').checked && fieldById('hear-tracks').checked && place !== null) {
      const timeline = await getJson(`/episodes/${episodeId}/timeline`).catch(() => null);
      if (timeline && place < timeline.frames) {
        await accompaniment.play(`${timeline.revision}/${timeline.finish}`, place, timeline.frames, () => {}).catch(() => {});
      }
    }
  }

  async function stopped() {
    happens('last');
    accompaniment.stop();
    say('Sending the last second …');
    const closing = microphone?.close();
    microphone = null;
    byId('level-word').textContent = 'not listening now';
    await closing;
  }

  function pause() {
    happens(state === 'paused' ? 'goOn' : 'pause');
    const paused = state === 'paused';
    microphone?.pause(paused);
    say(paused ? 'Paused. The same take goes on when you want.' : 'It goes on.');
  }

  function flag() {
    const frame = (take?.leadFrames ?? 0) + frames;
    flags++;
    say(`Flag ${flags} at ${fineClock(frames * RATE / (microphone?.rate ?? RATE), 2)}. Name it on the bench later.`);
    flagTake(frame);
  }

  onSending(message => {
    if (message.type === 'trouble' && message.trouble !== trouble) {
      trouble = message.trouble === true;
      complain(trouble ? 'The network is gone. Go on: everything is kept here, and sent later.' : null);
    } else if (message.type === 'state') {
      if (!message.storageWorks) {
        complain('This laptop’s storage is full. Everything is still sent. Keep this page open.');
      }
      const { unsentSeconds: unsent = 0 } = message;
      if (!isTaking(state) && unsent > 0) {
        say(`${Math.ceil(unsent)} s still to send. It is kept here.`);
      }
    } else if (message.type === 'finished') {
      say('Your take is kept. Hear it in the list.');
      happens('sent');
      refreshTakes();
      showLanding(episodeId, script.isRetake);
    } else if (message.type === 'leftover' && message.takeId) {
      refreshTakes();
    } else if (message.type === 'ended-elsewhere') {
      complain('Your crew ended this take before all of it was sent. The rest is kept here, and becomes a take of its own.');
      happens('sent');
      refreshTakes();
    } else if (message.type === 'failed') {
      complain('This take could not be kept as it should. Tell your teacher.');
    }
  });

  /** @param {string} event */
  function happens(event) {
    state = next(state, event);
    const taking = isTaking(state);
    // never really disabled: the focus would be lost, and with it the way to stop by keyboard
    record.setAttribute('aria-disabled', String(isBusy(state)));
    within(record, 'span').textContent = taking ? 'Stop' : 'Record';
    byId('pause').textContent = state === 'paused' ? 'Go on' : 'Pause';
    ['pause', 'flag'].forEach(id => { byId(id).hidden = !taking; });
    ['mic', 'track', 'place', 'listen', 'check'].forEach(id => { buttonById(id).disabled = taking || state === 'sending'; });
  }

  /**
   * @template T
   * @param {(argument: T) => Promise<unknown>} action
   * @returns {(argument: T) => Promise<void>} the same, which says what went wrong
   */
  const guarded = action => async argument => {
    try {
      await action(argument);
    } catch (problem) {
      complain(/** @type {Error} */ (problem).message, problem instanceof NoMicrophone);
      happens('fail');
    }
  };

  const press = guarded(async () => {
    if (may(state, 'end')) {
      happens('end');
      microphone?.finish();
    } else if (may(state, 'begin')) {
      happens('begin');
      await begin(null);
    }
  });

  byId('listen').addEventListener('click', guarded(listen));
  byId('practice').addEventListener('click', guarded(async () => {
    selectById('mic').value = PRACTICE;
    await listen();
    byId('mic').focus();
  }));
  byId('mic').addEventListener('change', guarded(async () => microphone && listen()));
  byId('check').addEventListener('click', guarded(async () => check.run(microphone ?? await listen(), episodeId)));
  byId('check-hear').addEventListener('click', () => check.hear(volume(), fieldById('output').value, microphone?.rate ?? RATE));
  byId('headphones').addEventListener('change', () => {
    const { checked } = fieldById('headphones');
    ['hear-self', 'hear-tracks'].forEach(id => {
      fieldById(id).disabled = !checked;
      fieldById(id).checked &&= checked;
    });
    hearSelf();
  });
  byId('hear-self').addEventListener('change', hearSelf);
  const showVolume = () => {
    hearSelf();
    document.querySelectorAll('audio').forEach(audio => { audio.volume = volume(); });
  };
  byId('volume').addEventListener('input', showVolume);
  document.addEventListener('htmx:load', showVolume);
  byId('output').addEventListener('change', guarded(async () => {
    await microphone?.playThrough(fieldById('output').value);
    await Promise.all([...document.querySelectorAll('audio')].map(audio => audio.setSinkId?.(fieldById('output').value)));
  }));
  record.addEventListener('click', () => press(null));
  byId('pause').addEventListener('click', pause);
  byId('flag').addEventListener('click', flag);
  document.addEventListener('keydown', event => {
    if (isTaking(state) && event.key.toLowerCase() === 'n' && !event.ctrlKey && !event.metaKey && !/INPUT|SELECT|TEXTAREA/.test(sourceOf(event).tagName)) {
      event.preventDefault();
      flag();
    }
  });
  // signing out ends the take first; the sign-out then waits until it is sent
  byId('sign-out').addEventListener('submit', () => isTaking(state) && microphone?.finish());
  window.addEventListener('beforeunload', event => {
    if (isTaking(state) || unsentSeconds() > 0) {
      event.preventDefault();
    }
  });
  attachTogether(byId('together'), guarded(async word => {
    if (may(state, 'begin')) {
      happens('begin');
      await begin(word);
    }
  }));
  byId('together').addEventListener('change', guarded(async () => microphone || listen()));
  attachLanding(episodeId, () => script.isRetake);
  attachVoices(episodeId, complain);
  complain(whatIsMissing());
  document.addEventListener('htmx:load', () => script.countTakes());
  script.countTakes();
  listDevices();
}

follow(byId('turn'), () => window.htmx.trigger(byId('turn'), 'refresh'));

const recorder = byId('recorder');
if (recorder) {
  attachRecorder(recorder);
  attachBringIn(recorder.dataset.episode ?? '', refreshTakes);
} else {
  attachTogether(byId('together'), null);
}
