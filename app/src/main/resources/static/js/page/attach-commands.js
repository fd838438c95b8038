// Buttons, keys and the dialog of keys, made from the table of commands. Each person may give a command another key.
import { sourceOf } from '../shared/elements.js';
import { html, render } from '../vendor/lit-html/lit-html.js';
import { byKeys, keyOf } from './commands.js';

/** @typedef {import('./commands.js').Command} Command */

/** Keys that people call otherwise. */
const CALLED = /** @type {{ [key: string]: string }} */ ({ ' ': 'Space', Control: 'Ctrl', ArrowLeft: '←', ArrowRight: '→', ArrowUp: '↑', ArrowDown: '↓', Escape: 'Esc' });
const MODIFIERS = ['Control', 'Shift', 'Alt', 'Meta'];

/** How a key is shown. @param {string} key as `keyOf` writes it */
const called = key => key.split('+').map(part => CALLED[part] ?? (part.length === 1 ? part.toUpperCase() : part)).map(part => part || '+');

/**
 * Lets keys and buttons do what the table says, and fills the dialog of keys. Keys are left alone while somebody types, is on
 * a button, or has a dialog open.
 *
 * @param {Command[]} commands
 * @param {boolean} own whether this is an episode of the viewer's own crew
 * @param {{ timeline: object | null }} page before it is shown only what may be pressed early is done
 * @param {string} person whose keys they are
 */
export function attachCommands(commands, own, page, person) {
  const here = commands.filter(command => own || !command.edits);
  const keptAs = `mellow-keys-${person}`;
  /** @type {{ [name: string]: string }} */
  const chosen = JSON.parse(localStorage.getItem(keptAs) ?? '{}');
  let byKey = byKeys(here, chosen);
  /** @param {Command} command */
  const can = command => (Boolean(page.timeline) || command.early === true) && (command.possible?.() ?? true);
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
    const control = sourceOf(event).closest('input, select, textarea, button, a, summary');
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

  // ---- the dialog

  const list = document.getElementById('keys-list');
  const find = /** @type {HTMLInputElement | null} */ (document.getElementById('keys-find'));
  if (!list || !find) {
    return;
  }
  /** Whose new key is waited for. @type {Command | null} */
  let asked = null;
  /** @param {string} words */
  const say = words => Object.assign(/** @type {HTMLElement} */ (document.getElementById('keys-said')), { textContent: words });
  /** @param {Command} command @param {string | null} key null for its own */
  const give = (command, key) => {
    if (key === null) {
      delete chosen[command.name];
    } else {
      chosen[command.name] = key;
    }
    localStorage.setItem(keptAs, JSON.stringify(chosen));
    byKey = byKeys(here, chosen);
    draw();
  };
  const draw = () => {
    const words = find.value.trim().toLowerCase();
    const shown = here.filter(command => command.shown.length > 0 && `${command.words} ${command.shown.join(' ')}`.toLowerCase().includes(words));
    render(shown.map(command => html`<dt>${(chosen[command.name] ? called(chosen[command.name]) : command.shown).map((key, i) => html`${i > 0 ? ' ' : ''}<kbd>${key}</kbd>`)}</dt>
      <dd class="flex justify-between gap-3">${command.words}${command.keys.length === 0 ? null : html`<button type="button" class="link-button text-sm" aria-label="Another key for: ${command.words}"
        @click=${() => { asked = command; say(`Press the new key for: ${command.words}. Escape leaves it.`); }}>change</button>`}</dd>`), list);
    say(shown.length > 0 ? '' : 'No key does that.');
  };
  find.addEventListener('input', draw);
  document.getElementById('keys')?.addEventListener('keydown', event => {
    if (!asked || MODIFIERS.includes(event.key)) {
      return;
    }
    event.preventDefault();
    const command = asked;
    asked = null;
    const key = keyOf(event);
    const taken = byKey.get(key);
    if (key === 'Escape') {
      draw();
    } else if (taken && taken !== command) {
      say(`That key does something already: ${taken.words || taken.name}. Choose another one.`);
    } else {
      give(command, command.keys.includes(key) ? null : key);
      say(`It is ${called(key).join(' ')} now, for you.`);
    }
  });
  draw();
}
