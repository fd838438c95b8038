// The microphone check: two seconds of room and a test sentence, measured by the server, with one thing to do about it.
import { byId } from '../shared/elements.js';
import { csrfHeaders, wordsFor } from '../shared/http.js';

/**
 * What the server says of a test sentence.
 *
 * @typedef {{ verdict: 'GOOD' | 'CHECK' | 'FIX', advice: keyof ADVICE, levelDbfs: number | null, noiseDbfs: number | null, voiceToRoomLu: number | null,
 *   overs: number, humHz: number, oneSided: boolean }} Checked
 */
/** @typedef {import('../takes/microphone.js').Block} Block */
/** @typedef {import('../takes/microphone.js').Microphone} Microphone */

const SECONDS = 7;
const ADVICE = {
  NOTHING_HEARD: 'Nothing was heard. Choose another microphone, or switch it on.',
  TOO_HOT: 'Too hot: it crackles. Move back, a hand’s width more.',
  TOO_QUIET: 'Too quiet. Move closer, or speak up.',
  ROOM_LOUD: 'The room is too loud for your voice. Find a quieter place.',
  ONE_SIDED: 'Only one side of the microphone is heard. Push its plug in, or choose another one.',
  HUM: 'Something hums. Move away from chargers and lamps.',
  LITTLE_QUIET: 'A little quiet. Come a hand’s width closer.',
  LITTLE_HOT: 'A little hot. Go a hand’s width back.',
  ROOM_NOT_QUIET: 'Good voice. The room could be quieter: close the door.',
  GOOD: 'Record like this.',
};
const CLASSES = { GOOD: 'verdict-good', CHECK: 'verdict-check', FIX: 'verdict-fix' };
const WORDS = { GOOD: 'good', CHECK: 'check', FIX: 'fix' };
/** @param {number | null} dbfs */
const level = dbfs => (dbfs === null ? 'silent' : `${dbfs.toFixed(0).replace('-', '−')} dBFS`);

export class Check {
  /** @type {[Float32Array, Float32Array][] | null} */
  #blocks = null;
  #seconds = 0;
  #done = () => {};
  #heard = new Float32Array(0);

  /** Hears every block of the microphone. @param {Block} block @param {number} rate */
  listen({ samples, right }, rate) {
    if (this.#blocks) {
      this.#blocks.push([samples, right]);
      this.#seconds += samples.length / rate;
      byId('check-state').textContent = this.#seconds < 2 ? 'Keep quiet …' : `Speak now … ${Math.ceil(SECONDS - this.#seconds)} s`;
      if (this.#seconds >= SECONDS) {
        this.#done();
      }
    }
  }

  /** @param {Microphone} microphone @param {string} episodeId */
  async run(microphone, episodeId) {
    /** @type {[Float32Array, Float32Array][]} */
    const blocks = [];
    this.#blocks = blocks;
    this.#seconds = 0;
    await new Promise(resolve => { this.#done = () => resolve(null); });
    this.#blocks = null;
    byId('check-state').textContent = 'Measuring …';
    const channels = microphone.granted.channelCount === 2 ? 2 : 1;
    const frames = blocks.reduce((sum, [samples]) => sum + samples.length, 0);
    const pcm = new Int16Array(frames * channels);
    this.#heard = new Float32Array(frames);
    let at = 0;
    for (const [samples, right] of blocks) {
      for (let i = 0; i < samples.length; i++) {
        this.#heard[at] = samples[i];
        // the block is the mean of both sides
        const sides = channels === 2 ? [2 * samples[i] - right[i], right[i]] : [samples[i]];
        sides.forEach((side, c) => { pcm[at * channels + c] = Math.max(-32768, Math.min(32767, Math.round(side * 32768))); });
        at++;
      }
    }
    const response = await fetch(`/episodes/${episodeId}/microphone-check?rate=${microphone.rate}&channels=${channels}`,
      { method: 'POST', headers: { 'Content-Type': 'application/octet-stream', Accept: 'application/json', ...csrfHeaders() }, body: pcm });
    const body = await response.json().catch(() => null);
    byId('check-state').textContent = '';
    if (!response.ok) {
      throw new Error(wordsFor(response.status, body));
    }
    this.#show(body, microphone);
  }

  /** @param {Checked} result @param {Microphone} microphone */
  #show(result, microphone) {
    const processing = microphone.processing;
    byId('check-result').hidden = false;
    byId('check-verdict').className = `verdict ${CLASSES[result.verdict]}`;
    byId('check-verdict').textContent = `${WORDS[result.verdict]}: ${ADVICE[result.advice]}`;
    byId('check-level').textContent = (result.levelDbfs === null ? 'nothing heard' : `peaks at ${level(result.levelDbfs)}`) + (result.overs > 0 ? `, ${result.overs} spots too hot` : '');
    byId('check-noise').textContent = level(result.noiseDbfs)
      + (result.voiceToRoomLu === null ? '' : `, ${Math.round(result.voiceToRoomLu)} LU under your voice`);
    byId('check-hum').textContent = result.humHz > 0 ? `mains hum, ${result.humHz} Hz` : 'none';
    byId('check-browser').textContent = [processing.length > 0 ? `${processing.join(' and ')} is on and changes your voice. Switch it off in the system’s settings.` : 'leaves your voice as it is',
      `${microphone.rate} Hz`].join(' · ');
  }

  /** Plays the test sentence again. @param {number} volume @param {string} deviceId @param {number} rate */
  async hear(volume, deviceId, rate) {
    const context = new AudioContext({ sampleRate: rate });
    await context.setSinkId?.(deviceId);
    const buffer = new AudioBuffer({ length: this.#heard.length, sampleRate: rate });
    buffer.copyToChannel(this.#heard, 0);
    const source = new AudioBufferSourceNode(context, { buffer });
    source.connect(new GainNode(context, { gain: volume })).connect(context.destination);
    source.onended = () => context.close();
    source.start();
  }
}
