// What can be done on the page of rows: one table, from which buttons, keys and their dialog come.
import * as state from './state.js';
import { LONG_STEP, STEP } from './steps.js';


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
 * The commands by their keys; what a person has chosen takes the place of the command's own.
 *
 * @param {Command[]} commands @param {{ [name: string]: string }} chosen
 * @returns {Map<string, Command>}
 */
export function byKeys(commands, chosen) {
  return new Map(commands.flatMap(command => (chosen[command.name] ? [chosen[command.name]] : command.keys).map(key => [key, command])));
}

/**
 * What any page of rows can do, whether it is read or edited.
 *
 * @param {import('./page.js').Page} page
 * @returns {Command[]}
 */
export function readingCommands(page) {
  const nudge = (/** @type {number} */ frames) => page.change(state.nudge(page.now(), frames));
  return [
    { name: 'play', keys: [' '], shown: ['Space'], words: 'play, pause', buttons: ['play'], early: true, run: () => page.playOrPause() },
    { name: 'play-selection', keys: ['Shift+ '], shown: ['Shift', 'Space'], words: 'play only the selection', buttons: ['hear-selection'],
      run: () => page.playSelection() },
    { name: 'slower', keys: ['['], shown: ['[', ']'], words: 'hear it slower, faster; only for your ear', run: () => hearAt(page, -25) },
    { name: 'faster', keys: [']'], shown: [], words: '', run: () => hearAt(page, 25) },
    { name: 'again', keys: ['r'], shown: ['R'], words: 'play the selection again and again', buttons: ['hear-again'], run: () => page.playSelection(true) },
    { name: 'to-start', keys: ['Home'], shown: ['Home', 'End'], words: 'to the start, to the end', run: () => page.goTo(0, true) },
    { name: 'to-end', keys: ['End'], shown: [], words: '', run: () => { page.stop(); page.goTo(page.timeline?.frames ?? 0, true); } },
    { name: 'earlier', keys: ['ArrowLeft'], shown: ['←', '→'],
      words: 'move the position, or the edge with the focus, by 10 ms; with Shift by 100 ms', run: () => nudge(-STEP) },
    { name: 'later', keys: ['ArrowRight'], shown: [], words: '', run: () => nudge(STEP) },
    { name: 'much-earlier', keys: ['Shift+ArrowLeft'], shown: [], words: '', run: () => nudge(-LONG_STEP) },
    { name: 'much-later', keys: ['Shift+ArrowRight'], shown: [], words: '', run: () => nudge(LONG_STEP) },
    { name: 'mark-start', keys: ['1'], shown: ['1', '2'], words: 'mark the start, the end, also while listening', buttons: ['mark-start'], run: () => page.change(state.markStart(page.now())) },
    { name: 'mark-end', keys: ['2'], shown: [], words: '', buttons: ['mark-end'], run: () => page.change(state.markEnd(page.now())) },
    { name: 'to-edge', keys: [], shown: ['Tab'], words: 'to the edges of the selection', run: () => {} },
    { name: 'place', keys: [], shown: ['Alt', 'click'], words: 'put the ribbon there without playing', run: () => {} },
    { name: 'back-to-sound', keys: ['b'], shown: ['B'], words: 'back to the sound', run: () => page.backToSound() },
    { name: 'select-all', keys: ['Control+a'], shown: ['Ctrl', 'A'], words: 'select all',
      run: () => page.change(state.selectAll) },
    { name: 'let-go', keys: ['Escape'], shown: ['Esc'], words: 'let go', buttons: ['let-go'], run: () => page.change(state.letGo) },
    { name: 'closer', keys: ['+'], shown: ['+', '-', '0'], words: 'closer, further, the whole episode', buttons: ['closer'], run: () => page.closer() },
    { name: 'further', keys: ['-'], shown: [], words: '', buttons: ['further'], run: () => page.further() },
    { name: 'whole', keys: ['0'], shown: [], words: '', run: () => page.whole() },
    { name: 'spectrum', keys: ['f'], shown: ['F'], words: 'show frequencies behind the level', buttons: ['show-spectrum'],
      run: () => page.lookOtherwise(look => { look.spectrum = !look.spectrum; }) },
    { name: 'show-keys', keys: ['?'], shown: ['?'], words: 'show these keys', buttons: ['show-keys'],
      run: () => /** @type {HTMLDialogElement} */ (document.getElementById('keys')).showModal() },
  ];
}

const SLOWEST_PERCENT = 50;
const FASTEST_PERCENT = 200;

/** Only for the ear. @param {import('./page.js').Page} page @param {number} by in percent */
function hearAt(page, by) {
  page.hearOtherwise({ percent: Math.max(SLOWEST_PERCENT, Math.min(FASTEST_PERCENT, page.ear.percent + by)) });
}
