// The bench: the page of rows, with all that may be done to an episode by its crew.
import { buttonById, byId } from '../shared/elements.js';
import { RATE, fineClock } from '../shared/time.js';
import { attachCommands } from '../page/attach-commands.js';
import { readingCommands } from '../page/commands.js';
import { Page } from '../page/page.js';
import { Preview } from '../page/preview.js';
import { choose, chosen, everyTrack, goTo, letGo } from '../page/state.js';
import { ClipCard } from './clip-card.js';
import { Clips } from './clips.js';
import { Edits } from './edits.js';
import { Flags } from './flags.js';
import { MarginNotes } from './margin-notes.js';
import { drawCard } from './selection-card.js';
import { attachShelf } from './shelf.js';
import { drawTrackGains } from './track-gains.js';
import { drawUnusedTakes } from './unused-takes.js';

const bench = byId('bench');
const { episode: episodeId = '', icons = '' } = bench.dataset;
const own = bench.dataset.own === 'true';

const edits = new Edits(episodeId);
const preview = new Preview((sound, from, to) => `/episodes/${episodeId}/sound/${sound}/${from}-${to}`,
  () => page.say('Your change is being made. You hear it in a moment.'));
const page = new Page(bench, preview, () => draw());
/** @type {import('./types.js').Bench} */
const shared = { page, rows: page.rows, layout: () => /** @type {import('../page/layout.js').Layout} */ (page.layout), timeline: () => edits.timeline, position: () => page.position,
  edit: (wish, gesture) => edit(wish, gesture), gesture: () => edits.gesture(), goTo: frame => page.goTo(frame), onChosen: clipId => page.change(choose(clipId)),
  cards: () => [{ element: byId('card'), frame: page.selection?.start ?? null },
    ...(clipCard ? [{ element: byId('clip-card'), frame: chosen(page.state)?.clip.startFrame ?? null }] : [])] };
const clips = new Clips(byId('rows'), icons, shared);
const flags = new Flags(icons, shared);
const notes = new MarginNotes(episodeId, icons, own, shared);
const clipCard = own ? new ClipCard(shared) : null;

edits.onMoved = page.moveBy.bind(page);

// ---- showing

function draw() {
  const { timeline } = edits;
  byId('empty').hidden = timeline.frames > 0;
  if (document.getElementById('hand-in')) {
    byId('hand-in').hidden = timeline.frames === 0;
  }
  buttonById('undo').disabled = !own || !timeline.canUndo;
  buttonById('redo').disabled = !own || !timeline.canRedo;
  clips.draw(own);
  flags.draw();
  drawCard(page);
  notes.draw();
  if (own) {
    drawTrackGains(timeline, edit);
    byId('track-gains-card').hidden = timeline.tracks.length === 0;
    clipCard?.draw();
    drawUnusedTakes(timeline, (takeId, trackName) => edit({ type: 'lay-take', takeId, trackName }));
  }
}

page.onSelected(() => {
  clipCard?.draw();
  drawCard(page);
  notes.arrange();
});

// what opens or closes in the margin moves the cards below it
document.getElementById('track-gains-card')?.addEventListener('toggle', () => notes.arrange());

// ---- editing

/** Does an edit, and shows what has become of the page. @param {() => Promise<unknown>} work */
async function change(work) {
  page.stop();
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
}

/** @type {import('./types.js').EditIt} */
const edit = (wish, gesture = edits.gesture()) => change(() => edits.edit(wish, gesture ?? edits.gesture()));

const DONE = { remove: 'Removed', blank: 'Blanked', soften: 'Softened' };

/** Does something to what is selected, and says what. @param {keyof DONE} type */
function onSelection(type) {
  const { selection } = page;
  if (!selection) {
    return;
  }
  const { start, end, trackIds } = selection;
  change(async () => {
    page.change(goTo(start));
    await edits.edit({ type, startFrame: start, endFrame: end, trackIds });
    page.change(letGo);
    page.say(`${DONE[type]} ${((end - start) / RATE).toFixed(2)} s. Undo brings it back.`);
    page.focus();
  });
}

/** Splits at the position, on the selected tracks or on all. */
function split() {
  const trackIds = page.selection?.trackIds ?? everyTrack(page.state);
  const frame = page.now();
  change(async () => {
    await edits.edit({ type: 'split', frame, trackIds });
    page.say(`Split at ${fineClock(frame, 2)}. Nothing sounds different.`);
  });
}

/** Whose sound a flag at the position speaks of: the first selected track, or the first with sound there. */
function trackForFlag() {
  const heard = edits.timeline.tracks.find(track => track.clips.some(
    clip => clip.startFrame <= page.now() && page.now() < clip.startFrame + clip.frames));
  return page.selection?.trackIds[0] ?? (heard ?? edits.timeline.tracks[0])?.id;
}

const somethingSelected = () => (page.selection?.trackIds.length ?? 0) > 0;

const editing = [
  { name: 'remove', keys: ['4'], shown: ['4', '5', '6'], words: 'remove, blank, soften the selection', buttons: ['remove'], edits: true,
    possible: somethingSelected, run: () => onSelection('remove') },
  { name: 'blank', keys: ['5'], shown: [], words: '', buttons: ['blank'], edits: true, possible: somethingSelected, run: () => onSelection('blank') },
  { name: 'soften', keys: ['6'], shown: [], words: '', buttons: ['soften'], edits: true, possible: somethingSelected, run: () => onSelection('soften') },
  { name: 'split', keys: ['7'], shown: ['7'], words: 'split at the position', buttons: ['split'], edits: true,
    possible: () => edits.timeline.tracks.length > 0, run: split },
  { name: 'flag', keys: ['n'], shown: ['N'], words: 'name this moment with a flag', buttons: ['add-flag'], edits: true,
    possible: () => edits.timeline.tracks.length > 0, run: () => flags.ask(trackForFlag(), page.now()) },
  { name: 'undo', keys: ['Control+z'], shown: ['Ctrl', 'Z'], words: 'undo; with Shift redo', buttons: ['undo'], edits: true,
    possible: () => edits.timeline.canUndo, run: () => change(() => edits.undo(words => window.confirm(words))) },
  { name: 'redo', keys: ['Control+Shift+z'], shown: [], words: '', buttons: ['redo'], edits: true,
    possible: () => edits.timeline.canRedo, run: () => change(() => edits.redo()) },
  { name: 'to-clips', keys: [], shown: ['Tab'], words: 'to the grips of clips: arrows move or trim, up and down change the track', edits: true,
    run: () => {} },
];
attachCommands([...readingCommands(page), ...editing], own, page);

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

edits.load().then(timeline => {
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
