// Says where the next take will land, before anybody records.
import { getJson } from '../shared/http.js';
import { fineClock, framesOf } from '../shared/time.js';

const byId = id => document.getElementById(id);
let waiting = null;

/** The frame that was typed; null for behind everything. */
export const placeFrame = () => framesOf(byId('place').value);

/** Fetches and shows it. Resolves to words. */
export async function showLanding(episodeId) {
  const place = placeFrame();
  const landing = await getJson(`/episodes/${episodeId}/landing?track=${encodeURIComponent(byId('track').value)}&place=${place ?? -1}`).catch(() => null);
  if (landing) {
    const where = place === null && landing.startFrame > 0 ? `behind what is there, from ${fineClock(landing.startFrame, 2)} on` : `from ${fineClock(landing.startFrame, 2)} on`;
    byId('landing-words').textContent = `${landing.trackName}, ${where}${landing.beside ? `. ${byId('track').value.trim()} has sound there already` : ''}`;
  }
  return byId('landing-words').textContent;
}

export function attachLanding(episodeId) {
  const later = () => {
    clearTimeout(waiting);
    waiting = setTimeout(() => showLanding(episodeId), 250);
  };
  byId('track').addEventListener('input', later);
  byId('place').addEventListener('input', later);
  showLanding(episodeId);
}
