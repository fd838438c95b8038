// The steps of a recipe: their numbers, whether they are done, how much of each, and their order; by mouse, by keys and by drag. What is set is
// written in one line, which the server reads.

/** Sliders that move are one change. */
const SETTLES_MS = 250;

/** @param {ParentNode} step @param {string} selector */
const field = (step, selector) => /** @type {HTMLInputElement} */ (step.querySelector(selector));

/** A step in words that the server reads. @param {HTMLElement} step */
export function written(step) {
  const values = /** @type {HTMLInputElement[]} */ ([...step.querySelectorAll('[data-value]')]).map(input => String(Number(input.value)));
  const percent = Number(field(step, '[data-blend]').value);
  return (field(step, '[data-on]').checked ? '' : '-') + step.dataset.kind + (values.length > 0 ? `:${values.join('/')}` : '') + (percent < 100 ? `@${percent}` : '');
}

/** @type {number | undefined} */
let waiting;
/** The focus goes along with a step that is moved. @type {string | null} */
let focusNext = null;

const form = () => /** @type {HTMLFormElement} */ (document.getElementById('steps'));
const steps = () => /** @type {HTMLElement[]} */ ([...form().querySelectorAll('.step')]);

/** @param {string} [more] a step behind all others */
function ask(more) {
  clearTimeout(waiting);
  const hidden = /** @type {HTMLInputElement} */ (form().elements.namedItem('steps'));
  hidden.value = [...steps().map(written), ...(more ? [more] : [])].join(';');
  window.htmx.trigger(form(), 'wanted');
}

function askSoon() {
  clearTimeout(waiting);
  waiting = window.setTimeout(ask, SETTLES_MS);
}

/** @param {HTMLElement} step @param {number} by */
function move(step, by) {
  const all = steps();
  const place = all.indexOf(step) + by;
  if (place >= 0 && place < all.length) {
    all[place][by > 0 ? 'after' : 'before'](step);
    focusNext = `step-${place}-${(by > 0) === (place < all.length - 1) ? 'down' : 'up'}`;
    ask();
  }
}

/** A slider and its number say the same. @param {HTMLInputElement} input */
function together(input) {
  const row = input.closest('.step-parameter');
  row?.querySelectorAll('input').forEach(other => { other.value = input.value; });
}

/** @type {HTMLElement | null} */
let dragged = null;

/** Once the steps are there as they were asked for. */
export function focusMoved() {
  if (focusNext) {
    document.getElementById(focusNext)?.focus();
    focusNext = null;
  }
}

/** Listens once for all steps that come and go. @param {HTMLElement} element */
export function attachSteps(element) {
  element.addEventListener('input', ({ target }) => {
    const input = /** @type {HTMLInputElement} */ (target);
    if (input.closest('.step-parameter')) {
      together(input);
    }
  });
  element.addEventListener('change', ({ target }) => {
    const input = /** @type {HTMLInputElement} */ (target);
    if (input.id === 'add-step' && input.value) {
      ask(input.value);
    } else if (input.closest('.step')) {
      askSoon();
    } else if (input.id === 'room-from' || input.id === 'room-to') {
      const ends = ['room-from', 'room-to'].map(id => /** @type {HTMLInputElement} */ (document.getElementById(id)).value.trim());
      if (ends.every(Boolean) || !ends.some(Boolean)) {
        ask();
      }
    }
  });
  element.addEventListener('click', ({ target }) => {
    const button = /** @type {HTMLElement} */ (target).closest('button');
    const step = /** @type {HTMLElement | null | undefined} */ (button?.closest('.step'));
    if (step && button?.dataset.move) {
      move(step, Number(button.dataset.move));
    } else if (step && button?.dataset.drop !== undefined) {
      step.remove();
      ask();
    }
  });
  element.addEventListener('submit', event => {
    if (event.target === form()) {
      event.preventDefault();
      ask();
    }
  });
  element.addEventListener('dragstart', event => {
    dragged = /** @type {HTMLElement} */ (event.target).closest?.('.step') ?? null;
    dragged?.classList.add('dragged');
    event.dataTransfer?.setDragImage(dragged ?? element, 12, 12);
  });
  element.addEventListener('dragover', event => {
    const over = /** @type {HTMLElement | null} */ (/** @type {HTMLElement} */ (event.target).closest('.step'));
    if (dragged && over) {
      event.preventDefault();
      const box = over.getBoundingClientRect();
      if (over !== dragged) {
        over[event.clientY > box.top + box.height / 2 ? 'after' : 'before'](dragged);
      }
    }
  });
  element.addEventListener('drop', event => dragged && event.preventDefault());
  element.addEventListener('dragend', () => {
    dragged?.classList.remove('dragged');
    if (dragged) {
      ask();
    }
    dragged = null;
  });
}
