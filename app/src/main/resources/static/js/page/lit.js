// A note's card and the brackets under the sound that it speaks of light up together, when one of them has the focus or the pointer.

/** @param {Event} event @param {boolean} on */
function light({ target }, on) {
  const lit = target instanceof Element ? /** @type {HTMLElement | null} */ (target.closest('[data-note]')) : null;
  if (lit) {
    document.querySelectorAll(`[data-note="${lit.dataset.note}"]`).forEach(element => element.classList.toggle('lit', on));
  }
}

/** From now on, for all notes of the page. */
export function lightNotes() {
  ['focusin', 'pointerover'].forEach(event => document.addEventListener(event, happened => light(happened, true)));
  ['focusout', 'pointerout'].forEach(event => document.addEventListener(event, happened => light(happened, false)));
}
