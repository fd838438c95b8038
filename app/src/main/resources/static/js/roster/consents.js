// Ticks everybody for whom nobody has recorded a consent, with one press.
const all = document.getElementById('tick-unasked');
all?.addEventListener('change', () => {
  const students = /** @type {NodeListOf<HTMLInputElement>} */ (document.querySelectorAll('[data-unasked]'));
  students.forEach(student => { student.checked = /** @type {HTMLInputElement} */ (all).checked; });
});
