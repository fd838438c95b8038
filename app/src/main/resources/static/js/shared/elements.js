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

/** The field that an event came from. @param {Event} event */
export const fieldOf = event => /** @type {HTMLInputElement} */ (event.currentTarget);

/** @param {string} id of a list of choices that is on the page */
export const selectById = id => /** @type {HTMLSelectElement} */ (byId(id));

/** @param {ParentNode} parent @param {string} selector of an element that is in it */
export function within(parent, selector) {
  const element = parent.querySelector(selector);
  if (!element) {
    throw new Error(`there is no ${selector} here`);
  }
  return /** @type {HTMLElement} */ (element);
}

/** @param {ParentNode} parent @param {string} selector of a field that is in it */
export const fieldIn = (parent, selector) => /** @type {HTMLInputElement} */ (within(parent, selector));

/** What an event came from. @param {Event} event */
export const sourceOf = event => /** @type {HTMLElement} */ (event.target);
