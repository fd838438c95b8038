// What a crew may do to its episode: one table of commands, and what they do.
import { everyTrack, goTo, letGo, tiedTracks } from '../page/state.js';
import { askWhether } from './asking.js';
import { chosenTrick } from './tricks.js';
import { postJson } from '../shared/http.js';
import { RATE, fineClock, lasting } from '../shared/time.js';

/** Heard before and after what would be gone. */
const AROUND = 2 * RATE;
const DONE = { remove: 'Removed', blank: 'Blanked', clear: 'Made silent', fill: 'Filled with room tone:', mend: 'Mended', soften: 'Softened', 'keep-only': 'Kept only' };

/**
 * @param {{ page: import('../page/page.js').Page, edits: import('./edits.js').Edits, episodeId: string, edit: import('./types.js').EditIt,
 *   change: (work: () => Promise<unknown>) => Promise<void>, attempt: (work: () => Promise<unknown>) => Promise<void>,
 *   magnifier: import('./magnifier.js').Magnifier, flags: import('./flags.js').Flags, pauses: import('./pauses-tab.js').PausesTab }} bench
 */
export function editingCommands({ page, magnifier, edits, episodeId, edit, change, attempt, flags, pauses }) {
  /** What was copied: a selection of a revision. @type {{ revision: number, startFrame: number, endFrame: number, trackIds: readonly number[] } | null} */
  let copied = null;

  /** What is selected, as it is sent. */
  function selected() {
    const { start, end, trackIds } = /** @type {import('../page/state.js').Selection} */ (page.selection);
    return { startFrame: start, endFrame: end, trackIds };
  }

  /** Does something to what is selected, and says what. @param {keyof DONE} type */
  function onSelection(type) {
    if (!page.selection) {
      return;
    }
    const wish = selected();
    page.stop();
    change(async () => {
      page.change(goTo(wish.startFrame));
      await edits.edit({ type, ...wish });
      page.change(letGo);
      page.say(`${DONE[type]} ${lasting(wish.endFrame - wish.startFrame)}. Undo brings it back.`);
      page.focus();
    });
  }

  /** A voice trick on what is selected, on one track. */
  function playTrick() {
    const { kind, amount, words } = chosenTrick();
    if ((page.selection?.trackIds.length ?? 0) !== 1) {
      page.say('A voice trick is for one voice. Tick one track.');
      return;
    }
    const wish = selected();
    page.stop();
    change(async () => {
      page.change(goTo(wish.startFrame));
      await edits.edit({ type: 'play-trick', ...wish, kind, amount });
      page.change(letGo);
      page.say(kind ? `${words}: ${lasting(wish.endFrame - wish.startFrame)}. Its sound is made now. Undo brings it back.` : 'It is heard as it was said.');
      page.focus();
    });
  }

  /** Plays what would be heard if a span were gone: two seconds before, two after. @param {number} start @param {number} end @param {readonly number[]} trackIds */
  function hearAsIfGone(start, end, trackIds) {
    attempt(async () => {
      const { key, frames } = await postJson(`/episodes/${episodeId}/trials`, { base: edits.timeline.revision, edit: { type: 'remove', startFrame: start, endFrame: end, trackIds } });
      page.playTrial(key, Math.max(0, start - AROUND), Math.min(frames, start + AROUND), frame => (frame < start ? frame : frame + end - start));
      page.say(`As if ${((end - start) / RATE).toFixed(2)} s were gone. Nothing is changed.`);
    });
  }

  /** Splits at the position, on the selected tracks or on all. */
  function split() {
    const trackIds = page.selection?.trackIds ?? everyTrack(page.state);
    const frame = page.now();
    edit({ type: 'split', frame, trackIds }, undefined, `Split at ${fineClock(frame, 2)}. Nothing sounds different.`);
  }

  function copy() {
    copied = { revision: edits.timeline.revision, ...selected() };
    page.say(`Copied ${((copied.endFrame - copied.startFrame) / RATE).toFixed(2)} s. Lay it in where the ribbon is.`);
  }

  /** Lays in what was copied, or over what is there. @param {boolean} over @param {number} [toFrame] */
  function lay(over, toFrame = page.now()) {
    if (!copied) {
      page.say('Nothing is copied yet. Select, then copy.');
      return;
    }
    const { startFrame, endFrame } = copied;
    edit({ type: 'lay-copy', ...copied, toFrame, over }, undefined, `Laid ${over ? 'over' : 'in'} ${((endFrame - startFrame) / RATE).toFixed(2)} s at ${fineClock(toFrame, 2)}.`);
  }

  /** Opens a gap at the position as long as what is selected, or a second. */
  function openUp() {
    const { selection } = page;
    const frames = selection ? selection.end - selection.start : RATE;
    const frame = selection ? selection.start : page.now();
    const trackIds = selection?.trackIds ?? tiedTracks(page.state, edits.timeline.tracks[0]?.id);
    edit({ type: 'open-up', frame, frames, trackIds }, undefined, `A gap of ${(frames / RATE).toFixed(2)} s is open at ${fineClock(frame, 2)}.`);
  }

  /** To the pause before or behind the position. @param {number} direction */
  function toPause(direction) {
    attempt(async () => {
      const places = await pauses.places();
      const now = page.now();
      const next = direction > 0 ? places.find(place => place > now) : [...places].reverse().find(place => place < now);
      if (next === undefined) {
        page.say(direction > 0 ? 'No pause comes later.' : 'No pause comes before.');
      } else {
        page.goTo(next, true);
      }
    });
  }

  /** To what the margin offers for what is selected. */
  function toCard() {
    const shown = ['offer', 'card', 'clip-card'].map(id => document.getElementById(id)).find(card => card && !card.hidden);
    /** @type {HTMLElement | null} */ (shown?.querySelector('.button, input'))?.focus();
  }

  /** Whose sound a flag at the position speaks of: the first selected track, or the first with sound there. */
  function trackForFlag() {
    const heard = edits.timeline.tracks.find(track => track.clips.some(
      clip => clip.startFrame <= page.now() && page.now() < clip.startFrame + clip.frames));
    return page.selection?.trackIds[0] ?? (heard ?? edits.timeline.tracks[0])?.id;
  }

  const somethingSelected = () => (page.selection?.trackIds.length ?? 0) > 0;
  const anyTrack = () => edits.timeline.tracks.length > 0;

  /** @type {import('../page/commands.js').Command[]} */
  const commands = [
    { name: 'as-if-gone', keys: ['3'], shown: ['3'], words: 'hear it as if the selection were gone', buttons: ['as-if-gone'], possible: somethingSelected,
      run: () => { const { startFrame, endFrame, trackIds } = selected(); hearAsIfGone(startFrame, endFrame, trackIds); } },
    { name: 'remove', keys: ['4'], shown: ['4', '5', '6'], words: 'remove, blank, soften the selection', buttons: ['remove'], edits: true,
      possible: somethingSelected, run: () => onSelection('remove') },
    { name: 'blank', keys: ['5'], shown: [], words: '', buttons: ['blank'], edits: true, possible: somethingSelected, run: () => onSelection('blank') },
    { name: 'soften', keys: ['6'], shown: [], words: '', buttons: ['soften'], edits: true, possible: somethingSelected, run: () => onSelection('soften') },
    { name: 'split', keys: ['7'], shown: ['7'], words: 'split at the position', buttons: ['split', 'card-split'], edits: true, possible: anyTrack, run: split },
    { name: 'keep-only', keys: ['8'], shown: ['8'], words: 'keep only the selection', buttons: ['keep-only'], edits: true, possible: somethingSelected, run: () => onSelection('keep-only') },
    { name: 'clear', keys: [], shown: [], words: '', buttons: ['clear'], edits: true, possible: somethingSelected, run: () => onSelection('clear') },
    { name: 'fill', keys: [], shown: [], words: '', buttons: ['fill'], edits: true, possible: somethingSelected, run: () => onSelection('fill') },
    { name: 'mend', keys: ['m'], shown: ['M'], words: 'mend a click or a bump', buttons: ['mend'], edits: true, possible: somethingSelected, run: () => onSelection('mend') },
    { name: 'play-trick', keys: [], shown: [], words: '', buttons: ['play-trick'], edits: true, possible: somethingSelected, run: playTrick },
    { name: 'copy', keys: ['Control+c'], shown: ['Ctrl', 'C'], words: 'copy the selection; with X copy, then remove', buttons: ['copy'], edits: true, possible: somethingSelected, run: copy },
    { name: 'cut-out', keys: ['Control+x'], shown: [], words: '', buttons: ['cut-out'], edits: true, possible: somethingSelected, run: () => { copy(); onSelection('remove'); } },
    { name: 'lay-in', keys: ['Control+v'], shown: ['Ctrl', 'V'], words: 'lay in at the ribbon; with Shift lay over what is there', buttons: ['lay-in'], edits: true, possible: anyTrack, run: () => lay(false) },
    { name: 'lay-over', keys: ['Control+Shift+v'], shown: [], words: '', buttons: ['lay-over'], edits: true, possible: anyTrack, run: () => lay(true) },
    { name: 'duplicate', keys: [], shown: [], words: '', buttons: ['duplicate'], edits: true, possible: somethingSelected, run: () => { copy(); lay(false, selected().endFrame); } },
    { name: 'open-up', keys: ['o'], shown: ['O'], words: 'open a gap at the ribbon', buttons: ['open-up'], edits: true, possible: anyTrack, run: openUp },
    { name: 'pause-before', keys: ['Control+ArrowLeft'], shown: ['Ctrl', '←', '→'], words: 'to the pause before, to the next', run: () => toPause(-1) },
    { name: 'pause-behind', keys: ['Control+ArrowRight'], shown: [], words: '', run: () => toPause(1) },
    { name: 'flag', keys: ['n'], shown: ['N'], words: 'name this moment with a flag', buttons: ['add-flag'], edits: true,
      possible: anyTrack, run: () => flags.ask(trackForFlag(), page.now()) },
    { name: 'undo', keys: ['Control+z'], shown: ['Ctrl', 'Z'], words: 'undo; with Shift redo', buttons: ['undo'], edits: true,
      possible: () => edits.timeline.canUndo, run: () => change(() => edits.undo(askWhether)) },
    { name: 'redo', keys: ['Control+Shift+z'], shown: [], words: '', buttons: ['redo'], edits: true,
      possible: () => edits.timeline.canRedo, run: () => change(() => edits.redo()) },
    { name: 'magnify', keys: ['z'], shown: ['Z'], words: 'magnify what is selected', buttons: ['magnify'], possible: anyTrack, run: () => magnifier.toggle() },
    { name: 'to-card', keys: ['Enter'], shown: ['Enter'], words: 'from the page to the card in the margin', run: toCard },
    { name: 'to-clips', keys: [], shown: ['Tab'], words: 'to the grips of clips: arrows move, trim or fade, up and down change the track', edits: true,
      run: () => {} },
  ];

  return { commands, hearAsIfGone };
}
