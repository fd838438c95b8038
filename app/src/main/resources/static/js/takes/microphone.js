// The microphone: asks for it plainly, with the browser's own processing off, and hands its sound on in blocks.

const PROBLEMS = {
  NotAllowedError: 'The browser may not use the microphone. Allow it in the address bar, then try again.',
  NotFoundError: 'No microphone was found. Plug one in, then try again. You can bring in a recording instead.',
  NotReadableError: 'Another program is using the microphone. Close it, then try again.',
  OverconstrainedError: 'That microphone is gone. Choose another one.',
};

export class Microphone {
  #stream;
  #context;
  #node;

  /** Opens a device ('' for the browser's choice). Throws an Error in plain words. */
  static async open(deviceId, workletAddress, onBlock) {
    if (!navigator.mediaDevices || !window.AudioWorkletNode) {
      throw new Error('This browser cannot record here. Use a newer one, or open the page by https.');
    }
    const microphone = new Microphone();
    try {
      microphone.#stream = await navigator.mediaDevices.getUserMedia({
        audio: {
          deviceId: deviceId ? { exact: deviceId } : undefined,
          echoCancellation: false,
          noiseSuppression: false,
          autoGainControl: false,
        },
      });
    } catch (problem) {
      throw new Error(PROBLEMS[problem.name] ?? 'The microphone could not be opened. Try again.');
    }
    // the context's own rate, since a forced one damages the sound now and then; large buffers, since nothing waits for them
    microphone.#context = new AudioContext({ latencyHint: 'playback' });
    await microphone.#context.resume();
    await microphone.#context.audioWorklet.addModule(workletAddress);
    microphone.#node = new AudioWorkletNode(microphone.#context, 'recorder', { numberOfOutputs: 0 });
    microphone.#node.port.onmessage = ({ data }) => onBlock(data.samples, data.last);
    microphone.#context.createMediaStreamSource(microphone.#stream).connect(microphone.#node);
    return microphone;
  }

  get rate() {
    return this.#context.sampleRate;
  }

  /** Called if the device is unplugged or taken away. */
  onLost(act) {
    this.#stream.getAudioTracks()[0].addEventListener('ended', act);
  }

  /** Sends what is heard from now on to a port as well. */
  keep(port) {
    this.#node.port.postMessage({ keeper: port }, [port]);
  }

  /** Asks for what is left: one more block comes, marked as the last. */
  finish() {
    this.#node.port.postMessage('finish');
  }

  async close() {
    this.#stream.getTracks().forEach(track => track.stop());
    await this.#context.close();
  }

  static async devices() {
    const devices = await navigator.mediaDevices?.enumerateDevices() ?? [];
    return devices.filter(device => device.kind === 'audioinput' && device.label);
  }
}
