// Questions that the bench asks in the page: for a name, or whether to go on.
import { byId, dialogById, fieldById } from '../shared/elements.js';

/** @param {() => void} prepare @returns {Promise<boolean>} whether it was agreed to */
function asked(prepare) {
  const dialog = dialogById('asking');
  prepare();
  dialog.returnValue = '';
  dialog.showModal();
  return new Promise(done => {
    dialog.addEventListener('close', () => done(dialog.returnValue === 'yes'), { once: true });
  });
}

/** @param {string} question @param {string} [before] the name until now @returns {Promise<string | null>} null if it is left as it is */
export async function askName(question, before = '') {
  const field = fieldById('asking-name');
  const agreed = await asked(() => {
    byId('asking-question').textContent = question;
    byId('asking-field').hidden = false;
    field.disabled = false;
    field.value = before;
  });
  return agreed ? field.value.trim() : null;
}

/** @param {string} question @returns {Promise<boolean>} */
export function askWhether(question) {
  return asked(() => {
    byId('asking-question').textContent = question;
    byId('asking-field').hidden = true;
    fieldById('asking-name').disabled = true;
  });
}
