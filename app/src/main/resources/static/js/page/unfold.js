/**
 * Gives each clip of a timeline, as the server sends it, the source and the fades that it names by their places in the timeline's lists.
 *
 * @param {any} sent
 * @returns {import('./types.js').TimelineView}
 */
export function unfold(sent) {
  for (const track of sent.tracks) {
    for (const clip of track.clips) {
      clip.source = sent.sources[clip.source];
      clip.fadeIn = sent.fades[clip.fadeIn];
      clip.fadeOut = sent.fades[clip.fadeOut];
    }
  }
  return sent;
}
