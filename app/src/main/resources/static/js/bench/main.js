// The bench: the page of rows, with all that may be done to an episode by its crew.
import { buttonById, byId } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { limitsOf } from '../shared/level-scale.js';
import { attachCommands } from '../page/attach-commands.js';
import { readingCommands } from '../page/commands.js';
import { Page } from '../page/page.js';
import { Preview } from '../page/preview.js';
import { choose, chosen, letGo } from '../page/state.js';
import { attachAsPublished } from './as-published.js';
import { CheckTab } from './check-tab.js';
import { ClipCard } from './clip-card.js';
import { Clips } from './clips.js';
import { Curves } from './curves.js';
import { Drawer } from './drawer.js';
import { editingCommands } from './editing.js';
import { Edits } from './edits.js';
import { attachExport } from './export.js';
import { FadesList } from './fades-list.js';
import { Flags } from './flags.js';
import { LogTab } from './log-tab.js';
import { Magnifier } from './magnifier.js';
import { MarginNotes } from './margin-notes.js';
import { Offer } from './offer.js';
import { Others } from './others.js';
import { PausesTab } from './pauses-tab.js';
import { arrangeActions, attachSelectionCard, drawCard } from './selection-card.js';
import { attachTricks } from './tricks.js';
import { attachShelf } from './shelf.js';
import { drawTakes } from './takes-tab.js';
import { TracksTab } from './tracks-tab.js';

const bench = byId('bench');
const { episode: episodeId = '', icons = '' } = bench.dataset;
const own = bench.dataset.own === 'true';

const edits = new Edits(episodeId);
const preview = new Preview((sound, from, to, { without, percent }) => `/episodes/${episodeId}/sound/${sound}/${from}-${to}?without=${without.join(',')}&percent=${percent}`,
  () => page.say('Your change is being made. You hear it in a moment.'));
const page = new Page(bench, preview, () => draw());
/** @type {import('./types.js').Bench} */
const shared = { page, rows: page.rows, layout: () => /** @type {import('../page/layout.js').Layout} */ (page.layout), timeline: () => edits.timeline, position: () => page.position,
  edit: (wish, gesture, said) => edit(wish, gesture, said), gesture: () => edits.gesture(), goTo: frame => page.goTo(frame, true), onChosen: clipId => page.change(choose(clipId)),
  // whoever goes by Tab from what is selected to its card, or into the drawer, keeps them
  marginFree: () => !page.selection && drawer.open === null,
  attempt, change, load: () => edits.load(), hearAsIfGone: (start, end, trackIds) => editing.hearAsIfGone(start, end, trackIds),
  offer: async (wish, words, said, at, tab = null) => {
    page.change(letGo);
    drawer.show(null);
    await offer.make(wish, words, said, at, () => tab && drawer.show(tab));
    notes.arrange();
  }, addPoint: trackId => curves.add(trackId, page.now()), readLines: () => readLines,
  cards: () => [{ element: byId('offer'), frame: offer.frame }, { element: byId('card'), frame: page.selection?.start ?? null },
    ...(clipCard ? [{ element: byId('clip-card'), frame: chosen(page.state)?.clip.startFrame ?? null }] : [])] };
new Clips(byId('rows'), icons, own, shared);
const curves = new Curves(own, shared);
const flags = new Flags(icons, shared);
const notes = new MarginNotes(episodeId, icons, own, shared);
byId('next-note').addEventListener('click', () => notes.toNext());
const clipCard = own ? new ClipCard(episodeId, shared) : null;
const offer = new Offer(episodeId, shared);
const tracksTab = own ? new TracksTab(episodeId, shared) : null;
const pausesTab = new PausesTab(episodeId, own, shared);
const checkTab = new CheckTab(episodeId, shared);
const fadesList = new FadesList(episodeId, shared);
const logTab = new LogTab(episodeId, own, shared, (seq, said) => change(async () => {
  await edits.goBack(seq);
  page.say(said);
}));
const others = new Others(episodeId, shared);
const { lowGood, highGood } = limitsOf(bench.dataset);
const magnifier = new Magnifier(shared, own, { low: lowGood, high: highGood });
const drawer = new Drawer(() => {
  drawDrawer();
  notes.arrange();
});
/** The words that takes read, by take. @type {{ [takeId: string]: string }} */
let readLines = {};

edits.onMoved = page.moveBy.bind(page);
const SAVING = { saving: 'saving …', waiting: 'the network is gone: it waits here', saved: 'saved', refused: 'not done' };
edits.onSaving = (/** @type {keyof SAVING} */ state) => {
  byId('saved').textContent = SAVING[state];
  byId('saved').dataset.state = state;
};
attachSelectionCard(page);
if (document.getElementById('trick-kind')) {
  attachTricks();
}
arrangeActions(bench.dataset.actions ?? '', bench.dataset.person ?? '');
// what a button of the card will touch is outlined before it is pressed
for (const [event, on] of /** @type {[string, boolean][]} */ ([['pointerover', true], ['pointerout', false], ['focusin', true], ['focusout', false]])) {
  byId('card').addEventListener(event, ({ target }) => byId('rows').classList.toggle('about', on && target instanceof Element && target.closest('.numbered') !== null));
}

// ---- showing

function draw() {
  const { timeline } = edits;
  byId('empty').hidden = timeline.frames > 0;
  byId('open-export').hidden = byId('as-published').hidden = timeline.frames === 0;
  if (document.getElementById('hand-in')) {
    byId('hand-in').hidden = timeline.frames === 0;
  }
  if (own) {
    buttonById('undo').disabled = !timeline.canUndo;
    buttonById('redo').disabled = !timeline.canRedo;
  }
  // nothing can be done with an empty page
  for (const id of ['play', 'split', 'add-flag']) {
    Object.assign(document.getElementById(id) ?? {}, { disabled: timeline.frames === 0 });
  }
  if (timeline.frames === 0) {
    buttonById('closer').disabled = buttonById('further').disabled = true;
  }
  byId('drawer-tabs').hidden = timeline.tracks.length === 0 && Object.keys(timeline.takes).length === 0;
  drawCard(page);
  notes.draw();
  clipCard?.draw();
  magnifier.draw();
  drawDrawer();
}

function drawDrawer() {
  switch (drawer.open) {
    case 'tracks': tracksTab?.draw(); break;
    case 'takes': drawTakes(shared); break;
    case 'pauses': attempt(() => pausesTab.draw()); attempt(() => fadesList.draw()); flags.drawList(); break;
    case 'check': attempt(() => checkTab.draw()); break;
    case 'log': logTab.draw(); break;
    default:
  }
}

page.onSelected(() => {
  clipCard?.draw();
  drawCard(page);
  if (page.selection || chosen(page.state)) {
    // one thing at a time has the margin
    drawer.show(null);
    offer.leave();
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

const editing = editingCommands({ page, magnifier, edits, episodeId, edit, change, attempt, flags, pauses: pausesTab });

attachCommands([...readingCommands(page), ...editing.commands], own, page, bench.dataset.person ?? '');

attachExport(episodeId, shared);
attachAsPublished(edits, page, attempt);

// a practice episode has no shelf
if (document.getElementById('from-shelf')) {
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
  others.tell();
  let known = Object.keys(timeline.takes).length;
  edits.follow(newer => {
    page.show(edits.timeline);
    if (Object.keys(edits.timeline.takes).length !== known) {
      known = Object.keys(edits.timeline.takes).length;
      loadReadLines().then(() => page.show(edits.timeline));
    }
    if (newer) {
      page.say('Somebody in your crew changed the page. It is shown as it is now.');
      if (page.playing) {
        page.playOn();
      }
    }
  });
}).catch(problem => page.say(problem.message));
