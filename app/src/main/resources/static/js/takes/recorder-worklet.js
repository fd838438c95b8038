// Runs on the audio thread: mixes what the microphone gives to one channel and posts it in blocks.
const BLOCK = 2048;
const QUANTUM = 128;

class Recorder extends AudioWorkletProcessor {
  constructor() {
    super();
    this.block = new Float32Array(BLOCK);
    this.filled = 0;
    this.ended = false;
    this.keeper = null;
    this.port.onmessage = ({ data }) => {
      if (data.keeper) {
        this.keeper = data.keeper;
        this.filled = 0;
      } else {
        // what is left is posted before the end is confirmed, so that nothing spoken is cut off
        this.post(this.block.slice(0, this.filled), true);
        this.ended = true;
      }
    };
  }

  /** To the page, which shows the level, and straight to the worker that keeps and sends it. */
  post(samples, last) {
    this.keeper?.postMessage({ samples, last });
    this.port.postMessage({ samples, last });
  }

  process([channels]) {
    if (this.ended) {
      return false;
    }
    // a source that says nothing has no channels; its silence is recorded, so that times stay true
    const frames = channels[0]?.length ?? QUANTUM;
    for (let i = 0; i < frames; i++) {
      let sum = 0;
      for (const channel of channels) {
        sum += channel[i];
      }
      this.block[this.filled++] = sum / Math.max(1, channels.length);
      if (this.filled === BLOCK) {
        this.post(this.block.slice(), false);
        this.filled = 0;
      }
    }
    return true;
  }
}

registerProcessor('recorder', Recorder);
