// Runs on the audio thread: mixes what the microphone gives to one channel and posts it in blocks. Before a take it keeps the
// last three seconds: the room before the first word.
const BLOCK = 2048;
const QUANTUM = 128;
const LEAD_SECONDS = 3;

class Recorder extends AudioWorkletProcessor {
  constructor() {
    super();
    this.block = new Float32Array(BLOCK);
    this.right = new Float32Array(BLOCK);
    this.filled = 0;
    this.lead = new Float32Array(LEAD_SECONDS * sampleRate);
    this.heard = 0;
    this.ended = false;
    this.paused = false;
    /** @type {MessagePort | null} */
    this.keeper = null;
    this.port.onmessage = ({ data }) => {
      if (data.keeper) {
        this.begin(data.keeper, data.leadFrames);
      } else if (data === 'pause' || data === 'go on') {
        // what was spoken before the pause is posted with it, so that the clock stands where the voice ended
        this.post(false);
        this.paused = data === 'pause';
      } else {
        // what is left is posted before the end is confirmed, so that nothing spoken is cut off
        this.post(true);
        this.ended = true;
      }
    };
  }

  /** The take begins with the room that was just heard. @param {MessagePort} keeper @param {number} leadFrames */
  begin(keeper, leadFrames) {
    const samples = new Float32Array(leadFrames);
    for (let i = 0; i < leadFrames; i++) {
      samples[i] = this.lead[(this.heard - leadFrames + i) % this.lead.length];
    }
    this.keeper = keeper;
    this.filled = 0;
    if (leadFrames > 0) {
      keeper.postMessage({ samples, last: false });
    }
  }

  /** To the page, which shows the level, and straight to the worker that keeps and sends it. @param {boolean} last */
  post(last) {
    const samples = this.block.slice(0, this.filled);
    const right = this.right.slice(0, this.filled);
    const kept = this.keeper !== null && !this.paused;
    this.filled = 0;
    if (kept || last) {
      this.keeper?.postMessage({ samples: kept ? samples : new Float32Array(0), last });
    }
    this.port.postMessage({ samples, right, last, kept });
  }

  /** @param {Float32Array[][]} inputs */
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
      const sample = sum / Math.max(1, channels.length);
      this.lead[this.heard++ % this.lead.length] = sample;
      this.right[this.filled] = channels.length > 1 ? channels[1][i] : sample;
      this.block[this.filled++] = sample;
      if (this.filled === BLOCK) {
        this.post(false);
      }
    }
    return true;
  }
}

registerProcessor('recorder', Recorder);
