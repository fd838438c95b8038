// The bench: the page of rows, with all that may be done to an episode by its crew.
import { buttonById, byId } from '../shared/elements.js';
import { getJson, postJson } from '../shared/http.js';
import { RATE, fineClock } from '../shared/time.js';
import { attachCommands } from '../page/attach-commands.js';
import { readingCommands } from '../page/commands.js';
import { Page } from '../page/page.js';
import { Preview } from '../page/preview.js';
import { choose, chosen, everyTrack, goTo, letGo, tiedTracks } from '../page/state.js';
import { ClipCard } from './clip-card.js';
import { Clips } from './clips.js';
import { Curves } from './curves.js';
import { Drawer } from './drawer.js';
import { Edits } from './edits.js';
import { attachExport } from './export.js';
import { Flags } from './flags.js';
import { LogTab } from './log-tab.js';
import { MarginNotes } from './margin-notes.js';
import { Offer } from './offer.js';
import { PausesTab } from './pauses-tab.js';
import { attachSelectionCard, drawCard } from './selection-card.js';
import { attachShelf } from './shelf.js';
import { drawTakes } from './takes-tab.js';
import { TracksTab } from './tracks-tab.js';

const bench = byId('bench');
const { episode: episodeId = '', icons = '' } = bench.dataset;
const own = bench.dataset.own === 'true';
/** Heard before and after what would be gone. */
const AROUND = 2 * RATE;

const edits = new Edits(episodeId);
const preview = new Preview((sound, from, to, { without, percent }) => `/episodes/${episodeId}/sound/${sound}/${from}-${to}?without=${without.join(',')}&percent=${percent}`,
  () => page.say('Your change is being made. You hear it in a moment.'));
const page = new Page(bench, preview, () => draw());
/** @type {import('./types.js').Bench} */
const shared = { page, rows: page.rows, layout: () => /** @type {import('../page/layout.js').Layout} */ (page.layout), timeline: () => edits.timeline, position: () => page.position,
  edit: (wish, gesture, said) => edit(wish, gesture, said), gesture: () => edits.gesture(), goTo: frame => page.goTo(frame, true), onChosen: clipId => page.change(choose(clipId)),
  attempt, offer: (wish, words, said, at) => offer.make(wish, words, said, at), hearAsIfGone, addPoint: trackId => curves.add(trackId, page.now()), readLines: () => readLines,
  cards: () => [{ element: byId('offer'), frame: offer.frame }, { element: byId('card'), frame: page.selection?.start ?? null },
    ...(clipCard ? [{ element: byId('clip-card'), frame: chosen(page.state)?.clip.startFrame ?? null }] : [])] };
new Clips(byId('rows'), icons, own, shared);
const curves = new Curves(own, shared);
const flags = new Flags(icons, shared);
const notes = new MarginNotes(episodeId, icons, own, shared);
const clipCard = own ? new ClipCard(episodeId, shared) : null;
const offer = new Offer(episodeId, shared);
const tracksTab = own ? new TracksTab(episodeId, shared) : null;
const pausesTab = new PausesTab(episodeId, own, shared);
const logTab = new LogTab(episodeId, own, shared, (seq, said) => change(async () => {
  await edits.goBack(seq);
  page.say(said);
}));
const drawer = new Drawer(() => {
  drawDrawer();
  notes.arrange();
});
/** The words that takes read, by take. @type {{ [takeId: string]: string }} */
let readLines = {};
/** What was copied: a selection of a revision. @type {{ revision: number, startFrame: number, endFrame: number, trackIds: readonly number[] } | null} */
let copied = null;

edits.onMoved = page.moveBy.bind(page);
const SAVING = { saving: 'saving …', waiting: 'the network is gone: it waits here', saved: 'saved', refused: 'not done' };
edits.onSaving = (/** @type {keyof SAVING} */ state) => {
  byId('saved').textContent = SAVING[state];
  byId('saved').dataset.state = state;
};
attachSelectionCard(page);
// what a button of the card will touch is outlined before it is pressed
for (const [event, on] of /** @type {[string, boolean][]} */ ([['pointerover', true], ['pointerout', false], ['focusin', true], ['focusout', false]])) {
  byId('card').addEventListener(event, ({ target }) => byId('rows').classList.toggle('about', on && target instanceof Element && target.closest('.numbered') !== null));
}

// ---- showing

function draw() {
  const { timeline } = edits;
  byId('empty').hidden = timeline.frames > 0;
  byId('open-export').hidden = timeline.frames === 0;
  if (document.getElementById('hand-in')) {
    byId('hand-in').hidden = timeline.frames === 0;
  }
  if (own) {
    buttonById('undo').disabled = !timeline.canUndo;
    buttonById('redo').disabled = !timeline.canRedo;
  }
  for (const id of ['play', 'split', 'add-flag', 'closer', 'further']) {
    const button = /** @type {HTMLButtonElement | null} */ (document.getElementById(id));
    if (button && timeline.frames === 0) {
      button.disabled = true;
    }
  }
  byId('drawer-tabs').hidden = timeline.tracks.length === 0 && Object.keys(timeline.takes).length === 0;
  drawCard(page);
  notes.draw();
  clipCard?.draw();
  drawDrawer();
}

function drawDrawer() {
  switch (drawer.open) {
    case 'tracks': tracksTab?.draw(); break;
    case 'takes': drawTakes(shared); break;
    case 'pauses': pausesTab.draw(); flags.drawList(); break;
    case 'log': logTab.draw(); break;
    default:
  }
}

page.onSelected(() => {
  clipCard?.draw();
  drawCard(page);
  if (page.selection || chosen(page.state)) {
    drawer.show(null);
  }
  notes.arrange();
});

// ---- editing

/** Tries something; if it is refused, that is said. @param {() => Promise<unknown>} work */
async function attempt(work) {
  try {
    await work();
  } catch (thrown) {
    page.say(/** @type {Error} */ (thrown).message);
  }
}

/** Does an edit, and shows what has become of the page; what plays goes on. @param {() => Promise<unknown>} work */
async function change(work) {
  const playing = page.playing;
  try {
    page.say(null);
    await work();
  } catch (thrown) {
    const problem = /** @type {Error & { status?: number }} */ (thrown);
    page.say(problem.message);
    if (problem.status === 409) {
      await edits.load();
    }
  }
  page.show(edits.timeline);
  if (playing && page.playing) {
    page.playOn();
  }
}

/** @type {import('./types.js').EditIt} */
const edit = (wish, gesture = edits.gesture(), said = null) => change(async () => {
  await edits.edit(wish, gesture ?? edits.gesture());
  page.say(said);
});

const DONE = { remove: 'Removed', blank: 'Blanked', clear: 'Made silent', fill: 'Filled with room tone:', soften: 'Softened', 'keep-only': 'Kept only' };

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
    page.say(`${DONE[type]} ${((wish.endFrame - wish.startFrame) / RATE).toFixed(2)} s. Undo brings it back.`);
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
    const places = await pausesTab.places();
    const now = page.now();
    const next = direction > 0 ? places.find(place => place > now) : [...places].reverse().find(place => place < now);
    if (next === undefined) {
      page.say(direction > 0 ? 'No pause comes later.' : 'No pause comes before.');
    } else {
      page.goTo(next, true);
    }
  });
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
const editing = [
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
    possible: () => edits.timeline.canUndo, run: () => change(() => edits.undo(words => window.confirm(words))) },
  { name: 'redo', keys: ['Control+Shift+z'], shown: [], words: '', buttons: ['redo'], edits: true,
    possible: () => edits.timeline.canRedo, run: () => change(() => edits.redo()) },
  { name: 'to-clips', keys: [], shown: ['Tab'], words: 'to the grips of clips: arrows move, trim or fade, up and down change the track', edits: true,
    run: () => {} },
];
attachCommands([...readingCommands(page), ...editing], own, page, bench.dataset.person ?? '');

attachExport(episodeId, shared);

if (own) {
  attachShelf(episodeId, {
    timeline: () => edits.timeline,
    position: () => page.now(),
    gesture: () => edits.gesture(),
    layIn: (soundId, excerptId, trackName, startFrame, gesture) => change(async () => {
      await edits.layIn({ soundId, excerptId, trackName, startFrame }, gesture);
      page.say('It is on the page. Undo takes it away again.');
    }),
  });
}

/** The captions of what is read from the script. */
async function loadReadLines() {
  readLines = await getJson(`/episodes/${episodeId}/read-lines`).catch(() => readLines);
}

Promise.all([edits.load(), loadReadLines()]).then(([timeline]) => {
  page.show(timeline);
  edits.follow(newer => {
    page.show(edits.timeline);
    if (newer) {
      page.say('Somebody in your crew changed the page. It is shown as it is now.');
      if (page.playing) {
        page.playOn();
      }
    }
  });
}).catch(problem => page.say(problem.message));
