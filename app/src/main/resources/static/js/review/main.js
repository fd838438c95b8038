// A hand-in as a page of rows, read-only: heard, with the notes in the margin beside the rows they speak of. A note is written
// where its span is.
import { byId, fieldById } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { RATE, clock, fineClock, framesOf } from '../shared/time.js';
import { layBracket } from '../page/bracket.js';
import { attachCommands } from '../page/attach-commands.js';
import { readingCommands } from '../page/commands.js';
import { FilePlayer } from '../page/file-player.js';
import { arrange } from '../page/margin.js';
import { Page } from '../page/page.js';
import { everyTrack, select } from '../page/state.js';
import { unfold } from '../page/unfold.js';
import { Heard, unheard } from './heard.js';

const review = byId('review');
const own = review.dataset.own === 'true';
const form = document.getElementById('note-form');
const cards = /** @type {HTMLElement[]} */ ([...byId('notes').children]);
/** A little before and after, so that the ear is there. */
const AROUND_FRAMES = RATE;

const page = new Page(review, new FilePlayer(/** @type {HTMLAudioElement} */ (byId('mixdown'))), () => draw());
/** What an element's data say of its place. @param {HTMLElement} element */
const spanOf = ({ dataset }) => ({ start: Number(dataset.start), end: Number(dataset.end) });

page.rows.onRow(row => {
  row.sound.querySelectorAll('.note-bracket').forEach(old => old.remove());
  const { layout } = page;
  if (layout) {
    cards.forEach(card => {
      const { start, end } = spanOf(card);
      layBracket(row, layout, start, end, { label: `Note: ${card.dataset.words}, ${fineClock(start)}`, icon: `${review.dataset.icons}#${card.dataset.icon}`,
        onClick: () => {
          hear(card);
          card.querySelector('button')?.focus({ preventScroll: true });
        } });
    });
  }
});

function draw() {
  drawForm();
}

/** @param {HTMLElement} element */
function hear(element) {
  const { start, end } = spanOf(element);
  page.playFrom(Math.max(0, start - AROUND_FRAMES), Math.min(page.timeline?.frames ?? 0, end + AROUND_FRAMES));
}

/** @type {NodeListOf<HTMLButtonElement>} */ (document.querySelectorAll('button[data-start]')).forEach(button => button.addEventListener('click', () => {
  hear(button);
}));

// ---- writing a note

function drawForm() {
  const { selection } = page;
  if (form) {
    form.hidden = !selection;
    if (selection) {
      fieldById('note-from').value = fineClock(selection.start, 2);
      fieldById('note-to').value = fineClock(selection.end, 2);
    }
  }
  arrange(page, byId('notes'), form ? [{ element: form, frame: selection?.start ?? null }] : [],
    cards.map(card => ({ element: card, frame: spanOf(card).start })));
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
}

// ---- clearing what was not heard asks once

const decision = /** @type {HTMLFormElement | null} */ (document.querySelector('form[action$="/decision"]'));
const dialog = /** @type {HTMLDialogElement | null} */ (document.getElementById('unheard'));
if (decision && dialog) {
  const heard = new Heard(/** @type {HTMLAudioElement} */ (byId('mixdown')), review.dataset.handIn ?? '');
  let asked = false;
  const left = () => unheard(heard.spans, page.timeline?.frames ?? 0);
  decision.addEventListener('submit', event => {
    const button = /** @type {HTMLButtonElement | null} */ (event.submitter);
    const spans = left();
    if (button?.value === 'CLEARED' && !asked && spans.length > 0) {
      event.preventDefault();
      asked = true;
      byId('unheard-words').textContent = `Not played here: ${spans.map(({ start, end }) => `${clock(start)} to ${clock(end)}`).join(', ')}.`;
      dialog.showModal();
    }
  });
  byId('unheard-play').addEventListener('click', () => {
    dialog.close();
    const [first] = left();
    if (first) {
      page.playFrom(first.start, first.end);
    }
  });
  byId('unheard-clear').addEventListener('click', () => {
    dialog.close();
    decision.requestSubmit(/** @type {HTMLButtonElement} */ (decision.querySelector('button[value=CLEARED]')));
  });
}

attachCommands(readingCommands(page), own, page, review.dataset.person ?? '');

getJson(`/hand-ins/${review.dataset.handIn}/timeline`).then(timeline => page.show(unfold(timeline))).catch(problem => page.say(problem.message));
