// The bench: brings layout, drawing, selection, playing and edits together.
import { limitsOf } from '../shared/level-scale.js';
import { RATE, clock, fineClock } from '../shared/time.js';
import { ClipCard } from './clip-card.js';
import { Clips } from './clips.js';
import { attachDragSelect } from './drag-select.js';
import { Edits } from './edits.js';
import { Flags } from './flags.js';
import { attachKeys } from './keys.js';
import { Layout, ROW_SECONDS } from './layout.js';
import { MarginNotes } from './margin-notes.js';
import { drawOverview } from './overview.js';
import { Preview } from './preview.js';
import { Ribbon } from './ribbon.js';
import { Rows } from './rows.js';
import { Selection, drawCard, drawMarker } from './selection.js';
import { attachShelf } from './shelf.js';
import { closest, closestEnd, mapAt } from './time-map.js';
import { drawTrackGains } from './track-gains.js';
import { drawUnusedTakes } from './unused-takes.js';
import { Gauge } from './gauge.js';

const byId = id => document.getElementById(id);
const bench = byId('bench');
const episodeId = bench.dataset.episode;
const own = bench.dataset.own === 'true';
const { lowGood, highGood } = limitsOf(bench.dataset);

const edits = new Edits(episodeId);
const rows = new Rows(byId('rows'), bench.dataset.icons, { low: lowGood, high: highGood });
const ribbon = new Ribbon();
const selection = new Selection();
const preview = new Preview((revision, from, to) => `/episodes/${episodeId}/sound/${revision}/raw/${from}-${to}`,
  () => say('Your change is being made. You hear it in a moment.'));
const gauge = new Gauge(bench.dataset);
const shared = { rows, layout: () => layout, timeline: () => edits.timeline, position: () => position, edit: (wish, gesture) => edit(wish, gesture),
  gesture: () => edits.gesture(),
  goTo: frame => goTo(frame), onChosen: clipId => chooseClip(clipId) };
const clips = new Clips(byId('rows'), bench.dataset.icons, shared);
const flags = new Flags(bench.dataset.icons, shared);
const notes = new MarginNotes(episodeId, bench.dataset.icons, own, shared);
const clipCard = own ? new ClipCard(shared) : null;
let zoom = ROW_SECONDS.indexOf(40);
let layout = null;
let position = 0;
let playingTo = 0;

// ---- showing

function showTimeline() {
  const timeline = edits.timeline;
  layout = new Layout(timeline, ROW_SECONDS[zoom]);
  position = Math.min(position, timeline.frames);
  if (selection.present && selection.end > timeline.frames) {
    selection.letGo();
  }
  rows.show(layout);
  byId('empty').hidden = timeline.frames > 0;
  if (byId('hand-in')) {
    byId('hand-in').hidden = timeline.frames === 0;
  }
  byId('length').textContent = clock(timeline.frames);
  byId('row-length').innerText = layout.rowFrames / RATE === ROW_SECONDS[zoom] ? `${ROW_SECONDS[zoom]} s\na row` : 'whole\nepisode';
  byId('closer').disabled = zoom === 0;
  byId('further').disabled = zoom === ROW_SECONDS.length - 1;
  byId('undo').disabled = !own || !timeline.canUndo;
  byId('redo').disabled = !own || !timeline.canRedo;
  clips.draw(own);
  flags.draw();
  showSelection();
  showPosition();
  notes.draw();
  drawOverview(byId('overview'), layout, row => rows.row(row).element.scrollIntoView({ block: 'center' }));
  if (own) {
    drawTrackGains(timeline, edit);
    byId('track-gains-card').hidden = timeline.tracks.length === 0;
    clipCard.draw();
    drawUnusedTakes(timeline, (takeId, trackName) => edit({ type: 'lay-take', takeId, trackName }));
  }
}

function showSelection() {
  drawMarker(selection, rows, layout);
  drawCard(selection, rows, layout, edits.timeline);
}

function showPosition() {
  byId('clock').textContent = fineClock(position);
  ribbon.show(rows, layout, position, preview.playing);
}

function chooseClip(clipId) {
  if (clipId !== null) {
    selection.letGo();
  }
  clipCard?.show(clipId);
}

function say(words) {
  byId('message').hidden = !words;
  byId('message').textContent = words ?? '';
}

// ---- playing

function showPlaying() {
  byId('play').setAttribute('aria-label', preview.playing ? 'Pause' : 'Play');
  byId('play').querySelector('use').setAttribute('href', `${bench.dataset.icons}#${preview.playing ? 'pause' : 'play'}`);
}

function playFrom(from, to = edits.timeline.frames) {
  if (from >= to) {
    return;
  }
  position = from;
  playingTo = to;
  preview.play(edits.timeline.revision, from, to, end => {
    position = end;
    showPosition();
    showPlaying();
  }).catch(problem => {
    preview.stop();
    say(problem.message);
    showPlaying();
  });
  showPlaying();
  requestAnimationFrame(follow);
}

function follow() {
  gauge.show(preview.levelDbfs);
  if (preview.playing) {
    position = preview.position;
    showPosition();
    requestAnimationFrame(follow);
  }
}

function stop() {
  position = preview.position ?? position;
  preview.stop();
  showPosition();
  showPlaying();
}

// ---- editing

async function change(work) {
  const wasAt = preview.playing ? preview.position : position;
  stop();
  position = wasAt;
  try {
    say(null);
    await work();
    position = Math.min(position, edits.timeline.frames);
  } catch (problem) {
    say(problem.message);
    if (problem.status === 409) {
      await edits.load();
    }
  }
  showTimeline();
}

const edit = (wish, gesture = edits.gesture()) => change(() => edits.edit(wish, gesture));

/** Everything that stands at a time goes where that time has gone. */
edits.onMoved = (maps, tracks) => {
  selection.moveBy(maps);
  const map = mapAt(maps, tracks, position);
  position = closest(map, preview.position ?? position);
  playingTo = closestEnd(map, playingTo);
};

if (own) {
  attachShelf(episodeId, {
    timeline: () => edits.timeline,
    position: () => now(),
    gesture: () => edits.gesture(),
    layIn: (soundId, excerptId, trackName, startFrame, gesture) => change(async () => {
      await edits.layIn({ soundId, excerptId, trackName, startFrame }, gesture);
      say('It is on the page. Undo takes it away again.');
    }),
  });
}

const DONE = { remove: 'Removed', blank: 'Blanked', soften: 'Softened' };

/** Does something to what is selected, and says what. */
function onSelection(type) {
  if (!own || !selection.present || selection.trackIds.size === 0) {
    return;
  }
  const { start, end, trackIds } = selection;
  change(async () => {
    await edits.edit({ type, startFrame: start, endFrame: end, trackIds: [...trackIds] });
    position = selection.start;
    selection.letGo();
    say(`${DONE[type]} ${((end - start) / RATE).toFixed(2)} s. Undo brings it back.`);
    byId('page').focus({ preventScroll: true });
  });
}

/** Splits at the position, on the selected tracks or on all. */
function split() {
  if (own) {
    const trackIds = selection.present ? [...selection.trackIds] : everyTrack();
    const frame = now();
    change(async () => {
      await edits.edit({ type: 'split', frame, trackIds });
      say(`Split at ${fineClock(frame, 2)}. Nothing sounds different.`);
    });
  }
}

// ---- pointing

function tiedTracks(trackId) {
  const group = edits.timeline.tracks.find(track => track.id === trackId)?.group;
  return edits.timeline.tracks.filter(track => group === undefined || track.group === group).map(track => track.id);
}

attachDragSelect(byId('rows'), {
  rows,
  selection,
  tiedTracks,
  length: () => edits.timeline.frames,
  onClick: frame => playFrom(frame),
  onEnd: () => byId('page').focus({ preventScroll: true }),
});

byId('rows').addEventListener('click', event => {
  const play = event.target.closest('.row-play');
  if (play) {
    playFrom(layout.rowStart(Number(play.closest('.row').dataset.row)));
  }
});

// ---- what can be done

function setZoom(next) {
  const row = rows.row(layout.rowOf(position))?.element;
  const wasAt = row?.getBoundingClientRect().top;
  zoom = Math.max(0, Math.min(ROW_SECONDS.length - 1, next));
  showTimeline();
  // the row with the position stays where it was on the screen
  const now = rows.row(layout.rowOf(position))?.element;
  if (wasAt !== undefined && now) {
    window.scrollBy(0, now.getBoundingClientRect().top - wasAt);
  }
}

function goTo(frame) {
  if (preview.playing) {
    playFrom(frame);
  } else {
    position = frame;
    showPosition();
  }
}

/** Whose sound a flag at the position speaks of: the first selected track, or the first with sound there. */
function trackForFlag() {
  const heard = edits.timeline.tracks.find(track => track.clips.some(
    clip => clip.startFrame <= now() && now() < clip.startFrame + clip.frames));
  return selection.present ? [...selection.trackIds][0] : (heard ?? edits.timeline.tracks[0])?.id;
}

const everyTrack = () => edits.timeline.tracks.map(track => track.id);
const now = () => preview.position ?? position;

const actions = {
  play: () => (preview.playing ? stop() : playFrom(position >= edits.timeline.frames ? 0 : position)),
  playSelection: () => selection.present && playFrom(selection.start, selection.end),
  toStart: () => goTo(0),
  toEnd: () => { stop(); position = edits.timeline.frames; showPosition(); },
  nudge: frames => (selection.present ? selection.nudge(now(), frames, edits.timeline.frames)
    : goTo(Math.max(0, Math.min(edits.timeline.frames, now() + frames)))),
  markStart: () => selection.set(now(), selection.present && selection.end > now() ? selection.end : Math.min(edits.timeline.frames, now() + RATE), selection.present ? selection.trackIds : everyTrack()),
  markEnd: () => selection.set(selection.present && selection.start < now() ? selection.start : Math.max(0, now() - RATE), now(), selection.present ? selection.trackIds : everyTrack()),
  selectAll: () => selection.set(0, edits.timeline.frames, everyTrack()),
  letGo: () => { selection.letGo(); chooseClip(null); },
  remove: () => onSelection('remove'),
  blank: () => onSelection('blank'),
  soften: () => onSelection('soften'),
  split,
  flag: () => own && edits.timeline.tracks.length > 0 && flags.ask(trackForFlag(), now()),
  undo: () => own && edits.timeline.canUndo && change(() => edits.undo(words => window.confirm(words))),
  redo: () => own && edits.timeline.canRedo && change(() => edits.redo()),
  closer: () => setZoom(zoom - 1),
  further: () => setZoom(zoom + 1),
  whole: () => setZoom(ROW_SECONDS.length - 1),
  showKeys: () => byId('keys').showModal(),
};

attachKeys(actions);
for (const [id, action] of Object.entries({ play: actions.play, undo: actions.undo, redo: actions.redo, closer: actions.closer,
  further: actions.further, remove: actions.remove, blank: actions.blank, soften: actions.soften, split: actions.split,
  'add-flag': actions.flag, 'hear-selection': actions.playSelection, 'let-go': actions.letGo,
  'show-keys': actions.showKeys })) {
  byId(id)?.addEventListener('click', action);
}
selection.onChange(() => {
  if (layout) {
    if (selection.present) {
      clipCard?.show(null);
    }
    showSelection();
  }
});

edits.load().then(() => {
  showTimeline();
  edits.follow(newer => {
    showTimeline();
    if (newer) {
      say('Somebody in your crew changed the page. It is shown as it is now.');
      if (preview.playing) {
        playFrom(position, playingTo);
      }
    }
  });
}).catch(problem => say(problem.message));
