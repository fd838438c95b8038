// Forms that stay where they are when they are refused: the reason stands at its field, and all that was typed is still there.
// For forms that lead to another address when they are taken: an answer that is a page itself would not be seen.
import { wordsFor } from './http.js';

/** @param {HTMLFormElement} form */
function forget(form) {
  form.querySelectorAll('.field-problem').forEach(problem => problem.remove());
  form.querySelectorAll('[aria-invalid]').forEach(field => {
    field.removeAttribute('aria-invalid');
    field.removeAttribute('aria-describedby');
  });
}

/** @param {HTMLFormElement} form @param {string} words @param {string} [name] of the field */
function tell(form, words, name) {
  const problem = document.createElement('p');
  problem.className = 'field-problem';
  problem.id = 'field-problem';
  problem.setAttribute('role', 'alert');
  problem.textContent = words;
  const field = name ? form.elements.namedItem(name) : null;
  if (field instanceof HTMLElement) {
    field.setAttribute('aria-invalid', 'true');
    field.setAttribute('aria-describedby', problem.id);
    field.closest('label, .field')?.after(problem);
    field.focus();
  }
  if (!problem.isConnected) {
    form.append(problem);
  }
  problem.scrollIntoView({ block: 'nearest' });
}

/** @param {string} address */
function goTo(address) {
  const there = new URL(address, location.href);
  const here = there.pathname === location.pathname && there.search === location.search;
  location.assign(there);
  if (here && there.hash) {
    location.reload();
  }
}

/** The server asks for the password first, on a page of its own that keeps what was typed. */
const PASSWORD_FIRST = 428;

/** Sends a form as browsers do, with the button that was pressed. @param {HTMLFormElement} form @param {HTMLElement | null} button */
function sendWhole(form, button) {
  if (button instanceof HTMLButtonElement && button.name) {
    const pressed = document.createElement('input');
    Object.assign(pressed, { type: 'hidden', name: button.name, value: button.value });
    form.append(pressed);
  }
  form.submit();
}

/** @param {HTMLFormElement} form @param {HTMLElement | null} button */
async function send(form, button) {
  const filled = new FormData(form);
  if (button instanceof HTMLButtonElement && button.name) {
    filled.append(button.name, button.value);
  }
  const body = form.enctype === 'multipart/form-data' ? filled : new URLSearchParams(/** @type {[string, string][]} */ ([...filled]));
  const response = await fetch(form.action, { method: 'POST', body, headers: { Accept: 'application/json', 'X-Stays': 'true' } }).catch(() => null);
  const address = response?.headers.get('Go-To');
  if (address) {
    // what was kept of its fields may go
    form.dispatchEvent(new Event('stayed'));
    goTo(address);
    return;
  }
  if (response?.status === PASSWORD_FIRST) {
    sendWhole(form, button);
    return;
  }
  const refused = await response?.json().catch(() => null);
  form.removeAttribute('aria-busy');
  tell(form, response ? wordsFor(response.status, refused) : 'The network is gone. What you typed is kept. Try again.', refused?.field);
}

document.addEventListener('submit', event => {
  const form = event.target;
  if (event.defaultPrevented || !(form instanceof HTMLFormElement) || !form.hasAttribute('data-stays')) {
    return;
  }
  event.preventDefault();
  if (!form.hasAttribute('aria-busy')) {
    form.setAttribute('aria-busy', 'true');
    forget(form);
    send(form, event.submitter);
  }
});
