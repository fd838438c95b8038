// The marks by the rubric: what is typed outlives a reload, and what is marked on the page is added to the places that speak for a mark.
import { fineClock } from '../shared/time.js';

/** @typedef {HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement} Field */

/** @param {HTMLFormElement} form @param {string} handInId @param {string} person who types @param {import('../page/page.js').Page} page */
export function attachMarksForm(form, handInId, person, page) {
  const keptAs = `marks-${person}-${handInId}`;
  const fields = () => /** @type {Field[]} */ ([...form.querySelectorAll('input[name], select[name], textarea[name]')]).filter(field => field.type !== 'hidden');
  // what the server knows meanwhile counts where nothing else was typed here
  const kept = JSON.parse(localStorage.getItem(keptAs) ?? '{}');
  fields().forEach(field => {
    if (kept[field.name] !== undefined) {
      field.value = kept[field.name];
    }
  });
  const asSent = Object.fromEntries(fields().map(field => [field.name, initial(field)]));
  const keep = () => {
    const typed = Object.fromEntries(fields().filter(field => field.value !== asSent[field.name]).map(field => [field.name, field.value]));
    if (Object.keys(typed).length > 0) {
      localStorage.setItem(keptAs, JSON.stringify(typed));
    } else {
      localStorage.removeItem(keptAs);
    }
  };
  form.addEventListener('input', keep);
  // the page is loaded anew once the server has kept it
  form.addEventListener('stayed', () => localStorage.removeItem(keptAs));
  form.addEventListener('click', event => {
    const button = event.target instanceof Element ? event.target.closest('[data-add-place]') : null;
    const places = button?.parentElement?.querySelector('input');
    if (!places) {
      return;
    }
    if (!page.selection) {
      page.say('Mark some sound first.');
      return;
    }
    const place = `${fineClock(page.selection.start, 2)} to ${fineClock(page.selection.end, 2)}`;
    places.value = places.value.trim() === '' ? place : `${places.value}, ${place}`;
    keep();
    places.focus();
  });
}

/** What a field holds as it came. @param {Field} field */
function initial(field) {
  return field instanceof HTMLSelectElement ? [...field.options].find(option => option.defaultSelected)?.value ?? field.options[0].value : field.defaultValue;
}
