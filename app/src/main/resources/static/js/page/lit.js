// A note's card and the brackets under the sound that it speaks of light up together, while one of them has the focus or the pointer.

/** @param {Event} event */
function light({ target }) {
  if (target instanceof Element && target.closest('[data-note]')) {
    const all = /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll('[data-note]'));
    const lit = new Set([...all].filter(element => element.matches(':hover, :focus-within')).map(element => element.dataset.note));
    all.forEach(element => element.classList.toggle('lit', lit.has(element.dataset.note)));
  }
}

/** From now on, for all notes of the page. */
export function lightNotes() {
  ['focusin', 'pointerover', 'focusout', 'pointerout'].forEach(event => document.addEventListener(event, light));
}
