// Voice tricks: which one is chosen on the selection's card, and by how much.
import { byId, fieldById } from '../shared/elements.js';

const kinds = () => /** @type {HTMLSelectElement} */ (byId('trick-kind'));
const chosen = () => kinds().selectedOptions[0];

/** Keeps the number beside the choice: its unit and its bounds. */
export function attachTricks() {
  const show = () => {
    const { least, most, usual, unit } = chosen().dataset;
    byId('trick-by').hidden = least === most;
    const amount = fieldById('trick-amount');
    Object.assign(amount, { min: least ?? '', max: most ?? '', value: usual ?? '' });
    byId('trick-unit').textContent = unit ?? '';
  };
  kinds().addEventListener('change', show);
  show();
}

/** No kind: as it was said. */
export function chosenTrick() {
  const kind = kinds().value || null;
  return { kind, amount: Number(fieldById('trick-amount').value) || 0, words: chosen().text };
}
