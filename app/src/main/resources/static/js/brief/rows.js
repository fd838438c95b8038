// Rows of a form that can be added, moved and removed. Removing can be undone until the page is saved.
import { byId, sourceOf, within } from '../shared/elements.js';

/** @param {() => void} onChange */
export function attachRows(onChange) {
  /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll('[data-add]')).forEach(button => button.addEventListener('click', () => {
    const { add = '' } = button.dataset;
    const list = byId(add);
    list.append(/** @type {HTMLTemplateElement} */ (byId(`template-${add}`)).content.cloneNode(true));
    onChange();
    within(list, ':scope > :last-child :is(input, select)').focus();
  }));
  document.addEventListener('click', event => {
    const tool = /** @type {HTMLElement | null} */ (sourceOf(event).closest('[data-up], [data-down], [data-remove]'));
    const row = tool?.closest('li');
    if (!tool || !row) {
      return;
    }
    if ('up' in tool.dataset) {
      row.previousElementSibling?.before(row);
    } else if ('down' in tool.dataset) {
      row.nextElementSibling?.after(row);
    } else {
      remove(row, onChange);
      return;
    }
    tool.focus();
    onChange();
  });
}

/** @param {HTMLElement} row @param {() => void} onChange */
function remove(row, onChange) {
  const undo = document.createElement('button');
  undo.type = 'button';
  undo.className = 'button button-quiet text-sm self-start';
  undo.textContent = 'Bring it back';
  undo.addEventListener('click', () => {
    undo.replaceWith(row);
    onChange();
    within(row, 'input, select').focus();
  });
  row.replaceWith(undo);
  undo.focus();
  onChange();
}
