// Says where the next take will land, before anybody records.
import { byId, fieldById } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { fineClock, framesOf } from '../shared/time.js';

/** @type {number | undefined} */
let waiting;

/** The frame that was typed; null for behind everything. */
export const placeFrame = () => framesOf(fieldById('place').value);

/** Fetches and shows it. Resolves to words. @param {string} episodeId @param {boolean} isRetake of a line that has a take on the page */
export async function showLanding(episodeId, isRetake) {
  if (isRetake) {
    byId('landing-words').textContent = 'in the take list, until you choose it for its line';
    return byId('landing-words').textContent;
  }
  const place = placeFrame();
  const track = fieldById('track').value;
  const landing = await getJson(`/episodes/${episodeId}/landing?track=${encodeURIComponent(track)}&place=${place ?? -1}`).catch(() => null);
  if (landing) {
    const where = place === null && landing.startFrame > 0 ? `behind what is there, from ${fineClock(landing.startFrame, 2)} on` : `from ${fineClock(landing.startFrame, 2)} on`;
    byId('landing-words').textContent = `${landing.trackName}, ${where}${landing.beside ? `. ${track.trim()} has sound there already` : ''}`;
  }
  return byId('landing-words').textContent;
}

/** @param {string} episodeId @param {() => boolean} isRetake */
export function attachLanding(episodeId, isRetake) {
  const later = () => {
    clearTimeout(waiting);
    waiting = window.setTimeout(() => showLanding(episodeId, isRetake()), 250);
  };
  byId('track').addEventListener('input', later);
  byId('place').addEventListener('input', later);
  let retake = isRetake();
  // the list of takes has come again: one of the line may be on the page now
  document.addEventListener('htmx:load', () => {
    if (isRetake() !== retake) {
      retake = isRetake();
      showLanding(episodeId, retake);
    }
  });
  showLanding(episodeId, retake);
}
