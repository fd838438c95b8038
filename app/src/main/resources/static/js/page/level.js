
/** The highest level of the last moment that an analyser has heard, in dBFS; -Infinity for silence. @param {AnalyserNode} analyser */
export function levelDbfs(analyser) {
  const samples = new Float32Array(analyser.fftSize);
  analyser.getFloatTimeDomainData(samples);
  return 20 * Math.log10(samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0));
}
