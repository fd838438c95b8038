// The brief: its rows, the presets of the house sound, a picture of the starter layout, and saving it as one.
import { byId, dialogById, fieldById, fieldIn, selectById, sourceOf, within } from '../shared/elements.js';
import { postJson } from '../shared/http.js';
import { clock, framesOf } from '../shared/time.js';
import { html, render, svg } from '../vendor/lit-html/lit-html.js';
import { attachRows } from './rows.js';

const form = byId('brief');
const address = form.dataset.address ?? '';
/** @param {string} id @returns {HTMLElement[]} */
const rowsOf = id => [...byId(id).querySelectorAll(/** @type {'li'} */ (':scope > li'))];
/** @param {HTMLElement} row @param {string} name */
const valueOf = (row, name) => fieldIn(row, `[data-${name}]`).value.trim();
/** What is chosen in a list of choices. @param {HTMLSelectElement} select @returns {HTMLOptionElement | undefined} */
const chosenIn = select => select.selectedOptions[0];
/** @param {HTMLElement} row @param {string} name */
const selectIn = (row, name) => /** @type {any} @returns {HTMLSelectElement} */ (fieldIn(row, `[data-${name}]`));
let saved = '';

function read() {
  const parts = rowsOf('parts');
  return {
    version: Number(form.dataset.version),
    project: fieldById('project').value,
    story: fieldById('story').value,
    loudnessLufs: Number(fieldById('lufs').value),
    ceilingDbtp: Number(fieldById('dbtp').value),
    shortest: fieldById('shortest').value,
    longest: fieldById('longest').value,
    dueDay: fieldById('due').value,
    outputFormat: fieldById('format').value,
    recipe: fieldById('recipe').value,
    actions: fieldById('actions').value,
    parts: parts.map(row => ({ id: Number(row.dataset.id), name: valueOf(row, 'name'), shortest: valueOf(row, 'shortest'), longest: valueOf(row, 'longest') })),
    lines: rowsOf('lines').map(row => ({ id: Number(row.dataset.id), part: parts.findIndex(part => part === partOf.get(row)), words: valueOf(row, 'words'), cue: valueOf(row, 'cue') })),
    rubric: rowsOf('rubric').map(row => ({ name: valueOf(row, 'name'), mostPoints: Number(valueOf(row, 'points')), sentence: valueOf(row, 'sentence'), levels: valueOf(row, 'levels') })),
    starter: rowsOf('starter').map(row => {
      const [soundId, excerptId] = valueOf(row, 'sound').split('/').map(Number);
      return { trackName: valueOf(row, 'track'), soundId, excerptId, start: valueOf(row, 'start'), gainDb: Number(valueOf(row, 'gain')) };
    }),
  };
}

// which part a line belongs to is kept by the part's row, so that it follows when parts are renamed or moved
/** @type {Map<Element, HTMLElement | null>} */
const partOf = new Map();

function linkParts() {
  const parts = rowsOf('parts');
  for (const row of rowsOf('lines')) {
    const select = selectIn(row, 'part');
    if (!partOf.has(row)) {
      const chosen = parts.find(part => part.dataset.id === select.dataset.chosen && part.dataset.id !== '0');
      const before = row.previousElementSibling && !select.dataset.chosen ? partOf.get(row.previousElementSibling) : null;
      partOf.set(row, chosen ?? (row.dataset.id === '0' ? before : null) ?? null);
    }
    select.replaceChildren(new Option('none', '-1'),
      ...parts.map((part, i) => new Option(valueOf(part, 'name') || 'unnamed', String(i), false, part === partOf.get(row))));
  }
}

function drawStarter() {
  const clips = rowsOf('starter').map(row => {
    const option = chosenIn(selectIn(row, 'sound'));
    return { track: valueOf(row, 'track'), name: option?.textContent ?? '', start: framesOf(valueOf(row, 'start')) ?? 0, frames: Number(option?.dataset.frames ?? 0) };
  });
  const picture = byId('starter-picture');
  const whole = Math.max(framesOf(fieldById('longest').value) ?? 1, ...clips.map(clip => clip.start + clip.frames));
  const tracks = [...new Set(clips.map(clip => clip.track))];
  picture.style.height = `${Math.max(1, tracks.length) * 30}px`;
  picture.setAttribute('viewBox', `0 0 1000 ${Math.max(1, tracks.length) * 30}`);
  render([
    tracks.map((_track, i) => svg`<rect x="0" y=${i * 30 + 3} width="1000" height="24" rx="3" class="skyline-band"/>`),
    clips.map(clip => svg`<rect x=${1000 * clip.start / whole} y=${30 * tracks.indexOf(clip.track) + 3} width=${Math.max(3, 1000 * clip.frames / whole)} height="24"
      rx="3" class="skyline-body"><title>${clip.track}: ${clip.name} from ${clock(clip.start)}</title></rect>`),
  ], picture);
  picture.setAttribute('aria-label', clips.length === 0 ? 'The starter layout is empty'
    : clips.map(clip => `${clip.track}: ${clip.name} from ${clock(clip.start)} to ${clock(clip.start + clip.frames)}`).join('; '));
}

function showPreset() {
  const match = [...selectById('preset').options].find(option => Number(option.dataset.lufs) === Number(fieldById('lufs').value)
    && Number(option.dataset.dbtp) === Number(fieldById('dbtp').value));
  selectById('preset').value = match?.value ?? '';
}

/** @param {string | null} words */
function complain(words) {
  byId('brief-problem').hidden = !words;
  within(byId('brief-problem'), ':first-child').textContent = words ?? '';
}

function changed() {
  linkParts();
  drawStarter();
  showPreset();
  byId('brief-state').textContent = JSON.stringify(read()) === saved ? 'Everything is saved.' : 'Not saved yet.';
}

/** Asks first where crews have begun; resolves whether it was done. @param {(evenSo: boolean) => Promise<{ changes: string[] }>} send */
async function askThen(send) {
  complain(null);
  try {
    const { changes } = await send(false);
    if (changes.length === 0) {
      return true;
    }
    render(changes.map(words => html`<li>${words}</li>`), byId('changes-list'));
    dialogById('changes').showModal();
    const evenSo = await new Promise(resolve => {
      byId('even-so').onclick = () => resolve(true);
      byId('not-so').onclick = () => resolve(false);
      byId('changes').oncancel = () => resolve(false);
    });
    dialogById('changes').close();
    return evenSo && (await send(true)).changes.length === 0;
  } catch (refused) {
    complain(/** @type {Error} */ (refused).message);
    return false;
  }
}

form.addEventListener('submit', async event => {
  event.preventDefault();
  if (await askThen(evenSo => postJson(address, { ...read(), evenSo }))) {
    saved = JSON.stringify(read());
    // rows that were new have ids now
    window.location.reload();
  }
});
document.getElementById('copy')?.addEventListener('click', async () => {
  const to = selectById('copy-to');
  if (await askThen(evenSo => postJson(`${address}/copy`, { toClassId: Number(to.value), evenSo }))) {
    byId('brief-state').textContent = `Copied to ${chosenIn(to)?.textContent}.`;
  }
});
// heard before the form hears it, which shows the preset that fits the numbers
byId('preset').addEventListener('input', () => {
  const { lufs, dbtp } = chosenIn(selectById('preset'))?.dataset ?? {};
  if (lufs && dbtp) {
    fieldById('lufs').value = lufs;
    fieldById('dbtp').value = dbtp;
  } else {
    byId('lufs').focus();
  }
});
form.addEventListener('input', event => {
  const field = /** @type {HTMLSelectElement} */ (sourceOf(event));
  const line = field.closest('li');
  if (line && field.matches('[data-part]')) {
    partOf.set(line, rowsOf('parts')[Number(field.value)] ?? null);
  }
  changed();
});
attachRows(changed);
window.addEventListener('beforeunload', event => JSON.stringify(read()) !== saved && event.preventDefault());

linkParts();
saved = JSON.stringify(read());
changed();
