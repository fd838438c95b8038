// The microphone: asks for it plainly, with the browser's own processing off, and hands its sound on in blocks. The practice
// microphone is a shipped voice that enters at the same place.

/** What the audio thread posts: the mean of both sides, and the right one. @typedef {{ samples: Float32Array, right: Float32Array, last: boolean, kept: boolean }} Block */

export const PRACTICE = 'practice';

/** A real microphone was not given, in words for whoever asked for it. */
export class NoMicrophone extends Error {}
const LEAD_SECONDS = 3;
/** @type {{ [name: string]: string }} */
const PROBLEMS = {
  NotAllowedError: 'The browser may not use the microphone. Allow it in the address bar, then try again.',
  NotFoundError: 'No microphone was found. Plug one in, then try again.',
  NotReadableError: 'Another program is using the microphone. Close it, then try again.',
  OverconstrainedError: 'That microphone is gone. Choose another one.',
};

/** What this browser lacks for recording, in words; null if nothing. */
export function whatIsMissing() {
  if (!window.isSecureContext) {
    return 'This page was not opened by https, so the browser gives it no microphone.';
  }
  const lacking = [[window.AudioContext, 'sound'], [window.AudioWorkletNode, 'recording without gaps'],
    [navigator.mediaDevices?.getUserMedia, 'a microphone'], [navigator.locks, 'sending takes safely'], [window.Worker, 'working in the background']]
    .filter(([has]) => !has).map(([, what]) => what);
  return lacking.length === 0 ? null : `This browser lacks ${lacking.join(' and ')}. Use a newer one to record.`;
}

/** @param {string} deviceId */
async function ask(deviceId) {
  try {
    return await navigator.mediaDevices.getUserMedia({
      audio: {
        deviceId: deviceId ? { exact: deviceId } : undefined,
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
      },
    });
  } catch (problem) {
    throw new NoMicrophone(PROBLEMS[/** @type {DOMException} */ (problem).name] ?? 'The microphone could not be opened. Try again.');
  }
}

export class Microphone {
  /** @type {MediaStream | null} the practice microphone has none */
  #stream = null;
  /** The context's own rate, since a forced one damages the sound now and then; large buffers, since nothing waits for them. */
  #context = new AudioContext({ latencyHint: 'playback' });
  /** @type {AudioNode} set by {@link open}, as the node is */
  #source = /** @type {any} */ (null);
  /** @type {AudioWorkletNode} */
  #node = /** @type {any} */ (null);
  /** @type {GainNode | null} */
  #monitor = null;
  #heard = 0;

  /**
   * Opens a device. Throws an Error in plain words.
   *
   * @param {string} deviceId '' for the browser's choice
   * @param {DOMStringMap} addresses of the worklet and the practice voice
   * @param {(block: Block) => void} onBlock
   */
  static async open(deviceId, { worklet = '', practice = '' }, onBlock) {
    const missing = whatIsMissing();
    if (missing) {
      throw new Error(missing);
    }
    const stream = deviceId === PRACTICE ? null : await ask(deviceId);
    const microphone = new Microphone();
    microphone.#stream = stream;
    await microphone.#context.resume();
    await microphone.#context.audioWorklet.addModule(worklet);
    microphone.#source = stream === null ? await microphone.#voice(practice) : microphone.#context.createMediaStreamSource(stream);
    microphone.#node = new AudioWorkletNode(microphone.#context, 'recorder', { numberOfOutputs: 0 });
    microphone.#node.port.onmessage = ({ data }) => {
      microphone.#heard += data.samples.length;
      onBlock(data);
    };
    microphone.#source.connect(microphone.#node);
    // a laptop that slept gives the microphone back by itself, if it is asked
    microphone.#context.addEventListener('statechange', () => microphone.#context.state === 'suspended' && microphone.#context.resume());
    return microphone;
  }

  /** @param {string} address */
  async #voice(address) {
    const file = await fetch(address).catch(() => null);
    if (!file?.ok) {
      throw new Error('The practice voice could not be fetched. Try again.');
    }
    const buffer = await this.#context.decodeAudioData(await file.arrayBuffer());
    const source = new AudioBufferSourceNode(this.#context, { buffer, loop: true });
    source.start();
    return source;
  }

  get rate() {
    return this.#context.sampleRate;
  }

  /** How much room from before the first word there is, in frames. */
  get leadFrames() {
    return Math.min(this.#heard, LEAD_SECONDS * this.rate);
  }

  /** What the browser really granted, to be stored with the take. */
  get granted() {
    /** @type {MediaTrackSettings & { practice?: boolean }} */
    const settings = this.#stream?.getAudioTracks()[0].getSettings() ?? { practice: true };
    const { sampleRate, channelCount, echoCancellation, noiseSuppression, autoGainControl, practice } = settings;
    return { label: this.#stream?.getAudioTracks()[0].label ?? 'practice microphone', contextRate: this.rate, sampleRate, channelCount,
      echoCancellation, noiseSuppression, autoGainControl, practice };
  }

  /** The browser's own processing that is on although it was asked to be off. */
  get processing() {
    const { echoCancellation, noiseSuppression, autoGainControl } = this.granted;
    return [[echoCancellation, 'echo cancellation'], [noiseSuppression, 'noise suppression'], [autoGainControl, 'automatic gain']]
      .filter(([on]) => on).map(([, name]) => name);
  }

  /** Called if the device is unplugged or taken away. @param {() => void} act */
  onLost(act) {
    this.#stream?.getAudioTracks()[0].addEventListener('ended', act);
  }

  /** Lets the speaker hear the microphone, so loud (0 to 1). @param {number} volume */
  monitor(volume) {
    if (volume > 0 && !this.#monitor) {
      this.#monitor = new GainNode(this.#context);
      this.#source.connect(this.#monitor).connect(this.#context.destination);
    }
    if (this.#monitor) {
      this.#monitor.gain.value = volume;
    }
  }

  /** @param {string} deviceId */
  async playThrough(deviceId) {
    await this.#context.setSinkId?.(deviceId);
  }

  /** Sends what is heard from now on to a port as well, and before it so many frames of the room. @param {MessagePort} port @param {number} leadFrames */
  keep(port, leadFrames) {
    this.#node.port.postMessage({ keeper: port, leadFrames }, [port]);
  }

  /** @param {boolean} on */
  pause(on) {
    this.#node.port.postMessage(on ? 'pause' : 'go on');
  }

  /** Asks for what is left: one more block comes, marked as the last. */
  finish() {
    this.#node.port.postMessage('finish');
  }

  async close() {
    this.#stream?.getTracks().forEach(track => track.stop());
    await this.#context.close();
  }

  static async devices(kind = 'audioinput') {
    const devices = await navigator.mediaDevices?.enumerateDevices() ?? [];
    return devices.filter(device => device.kind === kind && device.label);
  }
}
