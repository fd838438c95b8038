// Students are moved to crews by dragging their cards, or by the list of crews on each card; parts are given by lists too.
import { csrfHeaders, postJson } from '../shared/http.js';

const table = () => document.getElementById('crew-table');
const problem = document.getElementById('crew-problem');
const base = table().dataset.base;

function complain(words) {
  problem.hidden = !words;
  problem.firstElementChild.textContent = words ?? '';
}

async function move(student, crewId) {
  complain(null);
  const crew = document.querySelector(`[data-crew="${crewId}"] h2`).textContent;
  await window.htmx.ajax('POST', `${base}/students/${student.dataset.student}/move`,
    { target: '#crew-table', swap: 'outerHTML', values: { crewId }, headers: csrfHeaders() });
  document.getElementById('crew-said').textContent = `${student.dataset.name}: ${crew}`;
  document.getElementById(`move-${student.dataset.student}`)?.focus();
}

document.addEventListener('change', event => {
  if (event.target.matches('[data-move]')) {
    move(event.target.closest('[data-student]'), event.target.value);
  } else if (event.target.matches('[data-give]')) {
    postJson(event.target.dataset.give, { personId: Number(event.target.value) }).then(() => {
      complain(null);
      const details = event.target.closest('details');
      const selects = [...details.querySelectorAll('select')];
      details.querySelector('summary').textContent = `Parts: ${selects.filter(it => it.value !== '0').length} of ${selects.length} given`;
    }, refused => complain(refused.message));
  }
});

document.addEventListener('dragstart', event => {
  const student = event.target.closest?.('[data-student]');
  if (student) {
    event.dataTransfer.setData('text/x-student', student.dataset.student);
    event.dataTransfer.effectAllowed = 'move';
  }
});
const dropOf = event => (event.dataTransfer?.types.includes('text/x-student') ? event.target.closest?.('.crew-drop') : null);
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
  if (crew) {
    event.preventDefault();
    const id = event.dataTransfer.getData('text/x-student');
    move(document.querySelector(`[data-student="${id}"]`), crew.dataset.crew);
  }
});

document.addEventListener('htmx:responseError', event => {
  const answer = event.detail.xhr.responseText;
  try {
    complain(JSON.parse(answer).detail);
  } catch {
    complain('That did not work. Nothing was changed. Try again.');
  }
});
document.addEventListener('htmx:sendError', () => complain('The network is gone. Nothing was changed. Try again.'));
