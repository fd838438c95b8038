// @ts-check
// Elements that the server sends with the page.

/** @param {string} id of an element that is on the page */
export function byId(id) {
  const element = document.getElementById(id);
  if (!element) {
    throw new Error(`there is no ${id} on this page`);
  }
  return element;
}

/** @param {string} id of a button that is on the page */
export const buttonById = id => /** @type {HTMLButtonElement} */ (byId(id));

/** @param {string} id of a field that is on the page */
export const fieldById = id => /** @type {HTMLInputElement} */ (byId(id));

/** @param {string} id of a dialog that is on the page */
export const dialogById = id => /** @type {HTMLDialogElement} */ (byId(id));

/** What an event came from. @param {Event} event */
export const sourceOf = event => /** @type {HTMLElement} */ (event.target);
