// Rows of a form that can be added, moved and removed. Removing can be undone until the page is saved.

export function attachRows(onChange) {
  document.querySelectorAll('[data-add]').forEach(button => button.addEventListener('click', () => {
    const list = document.getElementById(button.dataset.add);
    list.append(document.getElementById(`template-${button.dataset.add}`).content.cloneNode(true));
    onChange();
    list.lastElementChild.querySelector('input, select').focus();
  }));
  document.addEventListener('click', event => {
    const tool = event.target.closest('[data-up], [data-down], [data-remove]');
    const row = tool?.closest('li');
    if (!row) {
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

function remove(row, onChange) {
  const undo = document.createElement('button');
  undo.type = 'button';
  undo.className = 'button button-quiet text-sm self-start';
  undo.textContent = 'Bring it back';
  undo.addEventListener('click', () => {
    undo.replaceWith(row);
    onChange();
    row.querySelector('input, select').focus();
  });
  row.replaceWith(undo);
  undo.focus();
  onChange();
}
