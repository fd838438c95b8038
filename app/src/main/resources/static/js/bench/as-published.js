// Plays the whole episode as it would be published: through the finish that was measured of just this version.
import { byId } from '../shared/elements.js';

const LOOK_AGAIN_MS = 1000;
const MOST_LOOKS = 120;

/** @param {import('./edits.js').Edits} edits @param {import('../page/page.js').Page} page @param {(work: () => Promise<unknown>) => Promise<void>} attempt */
export function attachAsPublished(edits, page, attempt) {
  const button = /** @type {HTMLButtonElement} */ (byId('as-published'));
  button.addEventListener('click', () => attempt(async () => {
    button.disabled = true;
    try {
      for (let look = 1; edits.timeline.finishOf !== edits.timeline.revision; look++) {
        if (look > MOST_LOOKS) {
          throw new Error('It is not measured yet. Try again in a minute.');
        }
        page.say('The newest version is being measured. You hear it in a moment.');
        await new Promise(done => { setTimeout(done, LOOK_AGAIN_MS); });
        await edits.load();
      }
    } finally {
      button.disabled = false;
    }
    page.show(edits.timeline);
    page.hearOtherwise({ without: [], percent: 100 });
    page.playFrom(0);
    page.say('This is the very sound that would be published.');
  }));
}
