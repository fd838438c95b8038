// A hand-in as a page of rows, read-only: heard, with the notes in the margin beside the rows they speak of. A note is written
// where its span is.
import { byId, fieldById } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { RATE, clock, fineClock, framesOf } from '../shared/time.js';
import { layBracket, layStretch } from '../page/bracket.js';
import { attachCommands } from '../page/attach-commands.js';
import { readingCommands } from '../page/commands.js';
import { FilePlayer } from '../page/file-player.js';
import { lightNotes } from '../page/lit.js';
import { arrange } from '../page/margin.js';
import { Page } from '../page/page.js';
import { everyTrack, letGoOf, select } from '../page/state.js';
import { unfold } from '../page/unfold.js';
import { EarlierOne } from './earlier-one.js';
import { Heard } from './heard.js';
import { attachMarksForm } from './marks-form.js';
import { drawTracks } from './note-tracks.js';
import { attachNoteForm, drawNotes } from './note-form.js';
import { attachSpokenNote } from './spoken-note.js';

const review = byId('review');
const own = review.dataset.own === 'true';
const form = /** @type {HTMLFormElement | null} */ (document.getElementById('note-form'));
const cards = () => /** @type {HTMLElement[]} */ ([...byId('notes').children]);
/** A little before and after, so that the ear is there. */
const AROUND_FRAMES = RATE;

lightNotes();
const page = new Page(review, new FilePlayer(/** @type {HTMLAudioElement} */ (byId('mixdown'))), () => draw());
/** What an element's data say of its place. @param {HTMLElement} element */
const spanOf = ({ dataset }) => ({ start: Number(dataset.start), end: Number(dataset.end) });

// ---- what was heard

/** What sounds otherwise than in the hand-in before. */
const anew = (document.getElementById('play-anew')?.dataset.spans ?? '').split(' ').filter(Boolean).map(span => span.split('-').map(Number)).map(([start, end]) => ({ start, end }));

const heard = new Heard(/** @type {HTMLAudioElement} */ (byId('mixdown')), review.dataset.handIn ?? '', () => {
  const frames = heard.left.reduce((sum, { start, end }) => sum + end - start, 0);
  byId('heard-words').textContent = frames === 0 ? 'You have heard all of it.' : `${clock(frames)} not heard yet.`;
  byId('play-unheard').hidden = frames === 0;
  page.markUnheard(heard.left);
  page.rows.all.forEach(drawOn);
});
page.rows.onRow(drawOn);

/** @param {import('../page/rows.js').Row} row */
function drawOn(row) {
  row.sound.querySelectorAll('.note-bracket, .unheard, .anew').forEach(old => old.remove());
  const { layout } = page;
  if (layout) {
    heard.left.forEach(({ start, end }) => layStretch(row, layout, start, end, 'unheard'));
    anew.forEach(({ start, end }) => layStretch(row, layout, start, end, 'anew'));
    cards().forEach(card => {
      const { start, end } = spanOf(card);
      layBracket(row, layout, start, end, { id: card.dataset.note ?? '', label: `Note: ${card.dataset.words}, ${fineClock(start)}`, icon: `${review.dataset.icons}#${card.dataset.icon}`,
        onClick: () => {
          hear(card);
          card.querySelector('button')?.focus({ preventScroll: true });
        } });
    });
  }
}

function draw() {
  drawForm();
}

/** @param {HTMLElement} element */
function hear(element) {
  const { start, end } = spanOf(element);
  page.playFrom(Math.max(0, start - AROUND_FRAMES), Math.min(page.timeline?.frames ?? 0, end + AROUND_FRAMES));
}

document.addEventListener('click', event => {
  const button = /** @type {HTMLElement} */ (event.target).closest('button[data-start]');
  if (button instanceof HTMLElement) {
    hear(button);
  }
});

/** Plays some spans one after the other, with a little around each. @param {{ start: number, end: number }[]} spans @param {number} around */
function playEach(spans, around) {
  const [first, ...rest] = spans;
  if (first) {
    page.playFrom(Math.max(0, first.start - around), Math.min(page.timeline?.frames ?? 0, first.end + around), false, () => playEach(rest, around));
  }
}

document.getElementById('play-anew')?.addEventListener('click', () => playEach(anew, 2 * RATE));

// ---- writing or speaking a note

/** @type {ReturnType<typeof attachSpokenNote> | null} */
let spoken = null;

function drawForm() {
  const { selection } = page;
  if (form) {
    form.hidden = !selection && !spoken?.open;
    if (selection) {
      fieldById('note-from').value = fineClock(selection.start, 2);
      fieldById('note-to').value = fineClock(selection.end, 2);
      drawTracks(byId('note-tracks'), page);
    }
  }
  arrange(page, byId('notes'), form ? [{ element: form, frame: selection?.start ?? null }] : [],
    cards().map(card => ({ element: card, frame: spanOf(card).start })));
}

if (form) {
  page.onSelected(drawForm);
  for (const id of ['note-from', 'note-to']) {
    byId(id).addEventListener('change', () => {
      const start = framesOf(fieldById('note-from').value);
      const end = framesOf(fieldById('note-to').value);
      if (start !== null && end !== null && end > start) {
        page.change(select(start, end, everyTrack(page.state)));
      }
    });
  }
  byId('rows').addEventListener('pointerup', () => page.selection && byId('note-words').focus({ preventScroll: true }));
  const drawn = () => {
    drawForm();
    page.rows.all.forEach(drawOn);
  };
  attachNoteForm(form, review.dataset.handIn ?? '', page, drawn);
  spoken = attachSpokenNote(form, review.dataset.handIn ?? '', page, drawForm, (words, selection) => {
    page.change(letGoOf(selection));
    page.say(words);
    page.focus();
    drawNotes(review.dataset.handIn ?? '', drawn);
  });
}
// a note has another height once what is spoken in it stands there
document.addEventListener('htmx:afterSettle', drawForm);

// ---- what was not heard

const playRest = () => playEach(heard.left, 0);
byId('play-unheard').addEventListener('click', playRest);

const decision = /** @type {HTMLFormElement | null} */ (document.querySelector('form[action$="/decision"]'));
const dialog = /** @type {HTMLDialogElement | null} */ (document.getElementById('unheard'));
if (decision && dialog) {
  let evenSo = false;
  let told = false;
  decision.addEventListener('submit', event => {
    if (!told) {
      // what was heard last is told first
      event.preventDefault();
      const pressed = event.submitter;
      // a form that is being submitted cannot be submitted
      heard.flush().then(() => setTimeout(() => {
        told = true;
        decision.requestSubmit(pressed);
      }));
      return;
    }
    told = false;
    const button = /** @type {HTMLButtonElement | null} */ (event.submitter);
    if (button?.value === 'CLEARED' && !evenSo && heard.left.length > 0) {
      event.preventDefault();
      byId('unheard-words').textContent = `You have not heard ${heard.left.map(({ start, end }) => `${clock(start)} to ${clock(end)}`).join(', ')}.`;
      dialog.showModal();
    }
    evenSo = false;
  });
  byId('unheard-play').addEventListener('click', () => {
    dialog.close();
    playRest();
  });
  byId('unheard-clear').addEventListener('click', () => {
    evenSo = true;
    // a refusal is said at the foot
    dialog.close();
    decision.requestSubmit(/** @type {HTMLButtonElement} */ (decision.querySelector('button[value=CLEARED]')));
  });
}

// ---- the hand-in before

const earlierButton = document.getElementById('hear-earlier');
const earlierOne = earlierButton ? new EarlierOne(/** @type {HTMLAudioElement} */ (byId('mixdown')), /** @type {HTMLAudioElement} */ (byId('earlier')), earlierButton, words => page.say(words)) : null;
if (earlierOne) {
  getJson(`/hand-ins/${review.dataset.handIn}/same-words`).then(known => earlierOne.begin(known)).catch(problem => page.say(problem.message));
}

const marks = /** @type {HTMLFormElement | null} */ (document.querySelector('form[action$="/marks"]'));
if (marks) {
  attachMarksForm(marks, review.dataset.handIn ?? '', review.dataset.person ?? '', page);
}

const next = /** @type {HTMLAnchorElement | null} */ (document.getElementById('next-hand-in'));
attachCommands([...readingCommands(page), { name: 'to-note', keys: ['Enter'], shown: form ? ['Enter'] : [], words: form ? 'from what is marked to its note' : '',
  possible: () => form !== null && Boolean(page.selection), run: () => byId('note-words').focus() }, { name: 'speak-note', keys: ['s'], shown: form ? ['S'] : [], words: form ? 'speak a note on what is marked; again: stop' : '',
  possible: () => Boolean(spoken?.open || page.selection && spoken?.possible()), run: () => spoken?.toggle() }, { name: 'next-hand-in', keys: ['j'], shown: next ? ['J'] : [], words: next ? 'to the next hand-in that waits' : '',
  possible: () => next !== null, run: () => next?.click() }, { name: 'hear-earlier', keys: ['o'], shown: earlierOne ? ['O'] : [], buttons: ['hear-earlier'], words: earlierOne ? 'the hand-in before, in its place' : '',
  possible: () => earlierButton?.hidden === false, run: () => earlierOne?.toggle() }], own, page, review.dataset.person ?? '');

getJson(`/hand-ins/${review.dataset.handIn}/timeline`).then(timeline => page.show(unfold(timeline))).catch(problem => page.say(problem.message));
getJson(`/hand-ins/${review.dataset.handIn}/listening`).then(({ left }) => heard.begin(left.map((/** @type {{ startFrame: number, endFrame: number }} */ span) => ({ start: span.startFrame, end: span.endFrame }))))
  .catch(problem => page.say(problem.message));
