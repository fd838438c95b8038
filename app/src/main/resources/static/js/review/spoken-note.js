// A note that is spoken where its span is: recorded as takes are, chunk by chunk, so that it is safe while it is being said.
import { limitsOf } from '../shared/level-scale.js';
import { buttonById, byId, fieldById } from '../shared/elements.js';
import { csrfHeaders, postJson } from '../shared/http.js';
import { RATE, fineClock } from '../shared/time.js';
import { Level } from '../takes/level.js';
import { Microphone, NoMicrophone } from '../takes/microphone.js';
import { isBusy, isTaking, may, next } from '../takes/recording-state.js';
import { onSending, sendLeftovers, sendTake, unsentSeconds } from '../takes/sending.js';

/**
 * @param {HTMLFormElement} form @param {string} handInId @param {import('../page/page.js').Page} page
 * @param {() => void} changed when the form has another size, or may be hidden
 * @param {(words: string, on: import('../page/state.js').Selection | null) => void} done when a note was spoken to its end, or thrown away; and on what
 */
export function attachSpokenNote(form, handInId, page, changed, done) {
  const speak = buttonById('speak');
  const level = new Level(byId('speak-fill'), byId('speak-word'), limitsOf(byId('review').dataset));
  /** @type {import('../takes/recording-state.js').State} */
  let state = 'idle';
  /** @type {Microphone | null} */
  let microphone = null;
  let frames = 0;
  /** @type {{ noteId: number, takeId: number, mostSeconds: number } | null} */
  let note = null;
  let thrownAway = false;
  /** @type {import('../page/state.js').Selection | null} */
  let on = null;

  /** @param {string} event */
  function happens(event) {
    state = next(state, event);
    const open = isTaking(state) || isBusy(state);
    byId('speaking').hidden = !open;
    ['note-actions', 'note-written'].forEach(id => { byId(id).hidden = open; });
    byId('speak-state').textContent = { beginning: 'Opening the microphone …', recording: 'Speak now.', sending: 'Sending the last second …' }[/** @type {string} */ (state)] ?? '';
    ['speak-stop', 'speak-throw'].forEach(id => byId(id).setAttribute('aria-disabled', String(state !== 'recording')));
    changed();
  }

  /** @param {import('../takes/microphone.js').Block} block */
  function onBlock({ samples, last, kept }) {
    level.show(samples);
    const rate = microphone?.rate ?? RATE;
    if (isTaking(state) && kept) {
      frames += samples.length;
      byId('speak-clock').textContent = fineClock(frames * RATE / rate);
      if (note && frames >= note.mostSeconds * rate) {
        stop();
      }
    }
    if (last && may(state, 'last')) {
      happens('last');
      close();
    }
  }

  function close() {
    microphone?.close();
    microphone = null;
  }

  function stop() {
    if (may(state, 'end')) {
      happens('end');
      microphone?.finish();
    }
  }

  async function begin() {
    if (!may(state, 'begin')) {
      return;
    }
    happens('begin');
    page.stop();
    on = page.selection;
    byId('speak-stop').focus();
    try {
      const opened = await Microphone.open('', form.dataset, onBlock);
      microphone = opened;
      opened.onLost(stop);
      const fields = new FormData(form);
      const { noteId, takeId, uploadKey, seal, mostSeconds } = await postJson(`/hand-ins/${handInId}/spoken-notes`, {
        kind: fields.get('kind'), words: fields.get('words'), from: fields.get('from'), to: fields.get('to'), on: fields.getAll('on').map(Number),
        sampleRate: opened.rate, microphone: JSON.stringify(opened.granted).slice(0, 500) });
      note = { noteId, takeId, mostSeconds };
      frames = 0;
      thrownAway = false;
      const samples = new MessageChannel();
      sendTake({ takeId, uploadKey, rate: opened.rate, episodeId: '', note: true }, seal, samples.port2);
      happens('begun');
      opened.keep(samples.port1, 0);
    } catch (problem) {
      close();
      happens('fail');
      const { message } = /** @type {Error} */ (problem);
      page.say(problem instanceof NoMicrophone ? `${message} Or write it.` : message);
    }
  }

  /** It stands in the margin from its first word on; what is thrown away is taken back. */
  async function ended() {
    happens('sent');
    const taken = thrownAway && note !== null && (await fetch(`/notes/${note.noteId}/take-back`, { method: 'POST', headers: { ...csrfHeaders(), 'X-Stays': 'true' } }).catch(() => null))?.ok;
    if (thrownAway) {
      done(taken ? 'Thrown away.' : 'It could not be thrown away. Take it back in the margin.', on);
    } else {
      /** @type {HTMLTextAreaElement} */ (byId('note-words')).value = '';
      byId('note-words').dispatchEvent(new Event('input'));
      done('Your note stands in the margin, spoken.', on);
    }
  }

  onSending(message => {
    if (message.type === 'trouble' && isTaking(state) && message.trouble) {
      page.say('The network is gone. Go on: what you say is kept here, and sent later.');
    } else if ((message.type === 'finished' || message.type === 'ended-elsewhere') && message.takeId === note?.takeId) {
      ended();
    } else if (message.type === 'failed' && note) {
      close();
      // from wherever it is, to where one can begin again
      ['lose', 'last', 'fail'].forEach(happens);
      done('This note could not be kept as it should. Say it again.', on);
    }
  });
  speak.addEventListener('click', begin);
  byId('speak-stop').addEventListener('click', stop);
  byId('speak-throw').addEventListener('click', () => {
    thrownAway = isTaking(state);
    stop();
  });
  window.addEventListener('beforeunload', event => {
    if (isTaking(state) || unsentSeconds() > 0) {
      event.preventDefault();
    }
  });
  // what an earlier page could not send to its end
  sendLeftovers();

  return {
    /** Whether somebody speaks: its form stays where it is. */
    get open() {
      return isTaking(state) || isBusy(state);
    },
    /** Begins to speak, or stops. */
    toggle: () => (isTaking(state) ? stop() : begin()),
    possible: () => isTaking(state) || !isBusy(state) && fieldById('note-from').value !== '',
  };
}
