// Buttons, keys and the dialog of keys, made from the table of commands.
import { sourceOf } from '../shared/elements.js';
import { html, render } from '../vendor/lit-html/lit-html.js';
import { keyOf } from './commands.js';

/**
 * Lets keys and buttons do what the table says, and fills the dialog of keys. Keys are left alone while somebody types, is on
 * a button, or has a dialog open.
 *
 * @param {import('./commands.js').Command[]} commands
 * @param {boolean} own whether this is an episode of the viewer's own crew
 * @param {{ timeline: object | null }} page before it is shown only what may be pressed early is done
 */
export function attachCommands(commands, own, page) {
  const here = commands.filter(command => own || !command.edits);
  /** @param {import('./commands.js').Command} command */
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
  const list = document.getElementById('keys-list');
  if (list) {
    render(here.filter(command => command.shown.length > 0).map(({ shown, words }) =>
      html`<dt>${shown.map((key, i) => html`${i > 0 ? ' ' : ''}<kbd>${key}</kbd>`)}</dt><dd>${words}</dd>`), list);
  }
}
