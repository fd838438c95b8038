// What a page that records is doing, and what can happen then. Anything else that happens changes nothing.

/**
 * idle: the microphone is closed · listening: it is open, and its level is shown · beginning: the server is asked for a take ·
 * recording · paused: the same take goes on later · ending: the last of the sound is on its way out of the microphone ·
 * sending: the microphone is closed, and the last second is on its way to the server.
 *
 * @typedef {'idle' | 'listening' | 'beginning' | 'recording' | 'paused' | 'ending' | 'sending'} State
 */

/** @type {Record<State, { [event: string]: State }>} */
export const TRANSITIONS = {
  idle: { listen: 'listening', begin: 'beginning' },
  listening: { listen: 'listening', lose: 'idle', begin: 'beginning' },
  beginning: { listen: 'beginning', begun: 'recording', fail: 'listening' },
  recording: { pause: 'paused', end: 'ending', lose: 'ending', last: 'sending' },
  paused: { goOn: 'recording', end: 'ending', lose: 'ending', last: 'sending' },
  ending: { last: 'sending', fail: 'listening' },
  sending: { sent: 'idle', fail: 'idle' },
};

/**
 * @param {State} state
 * @param {string} event
 * @returns {State}
 */
export const next = (state, event) => TRANSITIONS[state][event] ?? state;

/** @param {State} state @param {string} event */
export const may = (state, event) => event in TRANSITIONS[state];

/** Whether a take is under way in this page. @param {State} state */
export const isTaking = state => state === 'recording' || state === 'paused' || state === 'ending';

/** Whether the main button waits. @param {State} state */
export const isBusy = state => state === 'beginning' || state === 'ending' || state === 'sending';
