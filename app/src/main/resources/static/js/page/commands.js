// @ts-check
// What can be done on the page of rows: one table, from which buttons, keys and their dialog come.
import { RATE } from '../shared/time.js';

const STEP = RATE / 100;
const LONG_STEP = RATE / 10;

/**
 * One thing that can be done.
 *
 * @typedef {object} Command
 * @property {string} name
 * @property {string[]} keys     as {@link keyOf} writes them
 * @property {string[]} shown    the keys as they are shown in the dialog; none for what belongs to the line before
 * @property {string} words      what it does, in the dialog
 * @property {string[]} [buttons] ids of its buttons
 * @property {boolean} [edits]   only for the episode's own crew
 * @property {boolean} [early]   may be pressed before the page is shown
 * @property {() => boolean} [possible]
 * @property {() => void} run
 */

/**
 * How a key is written here: Control, Shift and the key, joined by +. Shift is left out where it made the sign itself.
 *
 * @param {{ key: string, ctrlKey: boolean, metaKey: boolean, shiftKey: boolean }} event
 */
export function keyOf(event) {
  const control = event.ctrlKey || event.metaKey;
  const name = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const shift = event.shiftKey && (control || event.key.length > 1 || event.key === ' ');
  return [control && 'Control', shift && 'Shift', name].filter(Boolean).join('+');
}

/**
 * What any page of rows can do, whether it is read or edited.
 *
 * @param {any} page
 * @returns {Command[]}
 */
export function readingCommands(page) {
  const { selection } = page;
  /** @param {number} frames */
  const nudge = frames => (selection.present ? selection.nudge(page.now(), frames, page.timeline.frames)
    : page.goTo(Math.max(0, Math.min(page.timeline.frames, page.now() + frames))));
  const tracks = () => (selection.present ? selection.trackIds : page.everyTrack());
  const markStart = () => selection.set(page.now(),
    selection.present && selection.end > page.now() ? selection.end : Math.min(page.timeline.frames, page.now() + RATE), tracks());
  const markEnd = () => selection.set(selection.present && selection.start < page.now() ? selection.start : Math.max(0, page.now() - RATE),
    page.now(), tracks());
  return [
    { name: 'play', keys: [' '], shown: ['Space'], words: 'play, pause', buttons: ['play'], early: true, run: () => page.playOrPause() },
    { name: 'play-selection', keys: ['Shift+ '], shown: ['Shift', 'Space'], words: 'play only the selection', buttons: ['hear-selection'],
      run: () => page.playSelection() },
    { name: 'to-start', keys: ['Home'], shown: ['Home', 'End'], words: 'to the start, to the end', run: () => page.goTo(0) },
    { name: 'to-end', keys: ['End'], shown: [], words: '', run: () => { page.stop(); page.goTo(page.timeline.frames); } },
    { name: 'earlier', keys: ['ArrowLeft'], shown: ['←', '→'],
      words: 'move the position, or the selection’s nearer edge, by 10 ms; with Shift by 100 ms', run: () => nudge(-STEP) },
    { name: 'later', keys: ['ArrowRight'], shown: [], words: '', run: () => nudge(STEP) },
    { name: 'much-earlier', keys: ['Shift+ArrowLeft'], shown: [], words: '', run: () => nudge(-LONG_STEP) },
    { name: 'much-later', keys: ['Shift+ArrowRight'], shown: [], words: '', run: () => nudge(LONG_STEP) },
    { name: 'mark-start', keys: ['1'], shown: ['1', '2'], words: 'mark the start, the end, also while listening', buttons: ['mark-start'], run: markStart },
    { name: 'mark-end', keys: ['2'], shown: [], words: '', buttons: ['mark-end'], run: markEnd },
    { name: 'select-all', keys: ['Control+a'], shown: ['Ctrl', 'A'], words: 'select all',
      run: () => selection.set(0, page.timeline.frames, page.everyTrack()) },
    { name: 'let-go', keys: ['Escape'], shown: ['Esc'], words: 'let go', buttons: ['let-go'], run: () => selection.letGo() },
    { name: 'closer', keys: ['+'], shown: ['+', '-', '0'], words: 'closer, further, the whole episode', buttons: ['closer'], run: () => page.closer() },
    { name: 'further', keys: ['-'], shown: [], words: '', buttons: ['further'], run: () => page.further() },
    { name: 'whole', keys: ['0'], shown: [], words: '', run: () => page.whole() },
    { name: 'show-keys', keys: ['?'], shown: ['?'], words: 'show these keys', buttons: ['show-keys'],
      run: () => /** @type {HTMLDialogElement} */ (document.getElementById('keys')).showModal() },
  ];
}

/**
 * Lets keys and buttons do what the table says, and fills the dialog of keys. Keys are left alone while somebody types, is on
 * a button, or has a dialog open.
 *
 * @param {Command[]} commands
 * @param {boolean} own whether this is an episode of the viewer's own crew
 * @param {{ timeline: object | null }} page before it is shown only what may be pressed early is done
 */
export function attachCommands(commands, own, page) {
  const here = commands.filter(command => own || !command.edits);
  /** @param {Command} command */
  const can = command => (Boolean(page.timeline) || command.early === true) && (command.possible?.() ?? true);
  const byKey = new Map(here.flatMap(command => command.keys.map(key => [key, command])));
  for (const command of here) {
    for (const id of command.buttons ?? []) {
      const button = /** @type {HTMLButtonElement | null} */ (document.getElementById(id));
      button?.addEventListener('click', () => can(command) && command.run());
      if (button && command.early) {
        // so that no press is lost before the scripts are there
        button.disabled = false;
      }
    }
  }
  document.addEventListener('keydown', event => {
    if (document.querySelector('dialog[open]')) {
      return;
    }
    const control = /** @type {Element} */ (event.target).closest('input, select, textarea, button, a, summary');
    const typing = control?.matches('input:not([type=checkbox]), select, textarea');
    const command = byKey.get(keyOf(event));
    if (!command || typing || (control && (event.key === ' ' || event.key === 'Enter'))) {
      return;
    }
    event.preventDefault();
    if (can(command)) {
      command.run();
    }
  });
  const list = document.getElementById('keys-list');
  list?.replaceChildren(...here.filter(command => command.shown.length > 0).flatMap(describe));
}

/** @param {Command} command */
function describe(command) {
  const keys = document.createElement('dt');
  command.shown.forEach((key, i) => {
    const cap = document.createElement('kbd');
    cap.textContent = key;
    keys.append(...(i > 0 ? [' '] : []), cap);
  });
  const words = document.createElement('dd');
  words.textContent = command.words;
  return [keys, words];
}
