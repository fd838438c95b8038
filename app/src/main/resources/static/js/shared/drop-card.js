// A card to drop files on: what is dropped is as if it had been picked; one name stands on the card.
import { within } from './elements.js';

/** @param {HTMLElement} card */
function attach(card) {
  const input = /** @type {HTMLInputElement} */ (within(card, 'input[type=file]'));
  const names = within(card, '[data-dropped]');
  input.addEventListener('change', () => {
    // several are listed by the page itself, each with its own row
    names.textContent = input.multiple ? '' : input.files?.[0]?.name ?? '';
  });
  for (const event of ['dragenter', 'dragover']) {
    card.addEventListener(event, over => {
      over.preventDefault();
      card.toggleAttribute('data-over', true);
    });
  }
  card.addEventListener('dragleave', () => card.toggleAttribute('data-over', false));
  card.addEventListener('drop', event => {
    event.preventDefault();
    event.stopPropagation();
    card.toggleAttribute('data-over', false);
    const files = event.dataTransfer?.files;
    if (files && files.length > 0) {
      const one = new DataTransfer();
      [...files].slice(0, input.multiple ? files.length : 1).forEach(file => one.items.add(file));
      input.files = one.files;
      input.dispatchEvent(new Event('change', { bubbles: true }));
    }
  });
}

/** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll('[data-drop]')).forEach(attach);
