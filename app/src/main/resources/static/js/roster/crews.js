// Students are moved to crews by dragging their cards, or by the list of crews on each card; parts are given by lists too.
import { byId, sourceOf, within } from '../shared/elements.js';
import { csrfHeaders, postJson } from '../shared/http.js';

const problem = byId('crew-problem');
const { base } = byId('crew-table').dataset;

/** @param {string | null} words */
function complain(words) {
  problem.hidden = !words;
  within(problem, ':first-child').textContent = words ?? '';
}

/** @param {HTMLElement} student its card @param {string} crewId */
async function move(student, crewId) {
  complain(null);
  const crew = within(document, `[data-crew="${crewId}"] h2`).textContent;
  await window.htmx.ajax('POST', `${base}/students/${student.dataset.student}/move`,
    { target: '#crew-table', swap: 'outerHTML', values: { crewId }, headers: csrfHeaders() });
  byId('crew-said').textContent = `${student.dataset.name}: ${crew}`;
  document.getElementById(`move-${student.dataset.student}`)?.focus();
}

document.addEventListener('change', event => {
  const field = /** @type {HTMLSelectElement} */ (sourceOf(event));
  const student = /** @type {HTMLElement | null} */ (field.closest('[data-student]'));
  const details = field.closest('details');
  if (student && field.matches('[data-move]')) {
    move(student, field.value);
  } else if (details && field.dataset.give) {
    postJson(field.dataset.give, { personId: Number(field.value) }).then(() => {
      complain(null);
      const selects = [...details.querySelectorAll('select')];
      within(details, 'summary').textContent = `Parts: ${selects.filter(it => it.value !== '0').length} of ${selects.length} given`;
    }, refused => complain(refused.message));
  }
});

document.addEventListener('dragstart', event => {
  const student = /** @type {HTMLElement | null} */ (sourceOf(event).closest?.('[data-student]'));
  if (student && event.dataTransfer) {
    event.dataTransfer.setData('text/x-student', student.dataset.student ?? '');
    event.dataTransfer.effectAllowed = 'move';
  }
});
/** @param {DragEvent} event @returns {HTMLElement | null} */
const dropOf = event => (event.dataTransfer?.types.includes('text/x-student') ? sourceOf(event).closest?.('.crew-drop') : null);
document.addEventListener('dragover', event => {
  const crew = dropOf(event);
  document.querySelectorAll('.crew-drop').forEach(it => it.classList.toggle('over', it === crew));
  if (crew) {
    event.preventDefault();
  }
});
document.addEventListener('dragend', () => document.querySelectorAll('.crew-drop').forEach(it => it.classList.remove('over')));
document.addEventListener('drop', event => {
  const crew = dropOf(event);
  if (crew?.dataset.crew) {
    event.preventDefault();
    const id = event.dataTransfer?.getData('text/x-student');
    move(within(document, `[data-student="${id}"]`), crew.dataset.crew);
  }
});

document.addEventListener('htmx:responseError', event => {
  const answer = /** @type {CustomEvent} */ (event).detail.xhr.responseText;
  try {
    complain(JSON.parse(answer).detail);
  } catch {
    complain('That did not work. Nothing was changed. Try again.');
  }
});
document.addEventListener('htmx:sendError', () => complain('The network is gone. Nothing was changed. Try again.'));
