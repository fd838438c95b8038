// The brief: its rows, the presets of the house sound, a picture of the starter layout, and saving it as one.
import { postJson } from '../shared/http.js';
import { clock, framesOf } from '../shared/time.js';
import { attachRows } from './rows.js';

const byId = id => document.getElementById(id);
const form = byId('brief');
const rowsOf = id => [...byId(id).querySelectorAll(':scope > li')];
const valueOf = (row, name) => row.querySelector(`[data-${name}]`).value.trim();
let saved = '';

function read() {
  const parts = rowsOf('parts');
  return {
    version: Number(form.dataset.version),
    project: byId('project').value,
    story: byId('story').value,
    loudnessLufs: Number(byId('lufs').value),
    ceilingDbtp: Number(byId('dbtp').value),
    shortest: byId('shortest').value,
    longest: byId('longest').value,
    dueDay: byId('due').value,
    outputFormat: byId('format').value,
    recipe: byId('recipe').value,
    parts: parts.map(row => ({ id: Number(row.dataset.id), name: valueOf(row, 'name'), shortest: valueOf(row, 'shortest'), longest: valueOf(row, 'longest') })),
    lines: rowsOf('lines').map(row => ({ id: Number(row.dataset.id), part: parts.indexOf(partOf.get(row)), words: valueOf(row, 'words'), cue: valueOf(row, 'cue') })),
    rubric: rowsOf('rubric').map(row => ({ name: valueOf(row, 'name'), mostPoints: Number(valueOf(row, 'points')) })),
    starter: rowsOf('starter').map(row => {
      const [soundId, excerptId] = valueOf(row, 'sound').split('/').map(Number);
      return { trackName: valueOf(row, 'track'), soundId, excerptId, start: valueOf(row, 'start'), gainDb: Number(valueOf(row, 'gain')) };
    }),
  };
}

// which part a line belongs to is kept by the part's row, so that it follows when parts are renamed or moved
const partOf = new Map();

function linkParts() {
  const parts = rowsOf('parts');
  for (const row of rowsOf('lines')) {
    const select = row.querySelector('[data-part]');
    if (!partOf.has(row)) {
      const chosen = parts.find(part => part.dataset.id === select.dataset.chosen && part.dataset.id !== '0');
      const before = row.previousElementSibling && !select.dataset.chosen ? partOf.get(row.previousElementSibling) : null;
      partOf.set(row, chosen ?? (row.dataset.id === '0' ? before : null));
    }
    select.replaceChildren(new Option('none', '-1'),
      ...parts.map((part, i) => new Option(valueOf(part, 'name') || 'unnamed', i, false, part === partOf.get(row))));
  }
}

function drawStarter() {
  const clips = rowsOf('starter').map(row => {
    const option = row.querySelector('[data-sound]').selectedOptions[0];
    return { track: valueOf(row, 'track'), name: option?.textContent ?? '', start: framesOf(valueOf(row, 'start')) ?? 0, frames: Number(option?.dataset.frames ?? 0) };
  });
  const picture = byId('starter-picture');
  const whole = Math.max(framesOf(byId('longest').value) ?? 1, ...clips.map(clip => clip.start + clip.frames));
  const tracks = [...new Set(clips.map(clip => clip.track))];
  picture.style.height = `${Math.max(1, tracks.length) * 30}px`;
  picture.setAttribute('viewBox', `0 0 1000 ${Math.max(1, tracks.length) * 30}`);
  const make = (name, attributes) => {
    const element = document.createElementNS('http://www.w3.org/2000/svg', name);
    Object.entries(attributes).forEach(([key, value]) => element.setAttribute(key, value));
    return element;
  };
  picture.replaceChildren(...tracks.map((track, i) => make('rect', { x: 0, y: i * 30 + 3, width: 1000, height: 24, rx: 3, class: 'skyline-band' })),
    ...clips.map(clip => {
      const box = make('rect', { x: 1000 * clip.start / whole, y: 30 * tracks.indexOf(clip.track) + 3, width: Math.max(3, 1000 * clip.frames / whole), height: 24, rx: 3, class: 'skyline-body' });
      const title = make('title', {});
      title.textContent = `${clip.track}: ${clip.name} from ${clock(clip.start)}`;
      box.append(title);
      return box;
    }));
  picture.setAttribute('aria-label', clips.length === 0 ? 'The starter layout is empty'
    : clips.map(clip => `${clip.track}: ${clip.name} from ${clock(clip.start)} to ${clock(clip.start + clip.frames)}`).join('; '));
}

function showPreset() {
  const match = [...byId('preset').options].find(option => Number(option.dataset.lufs) === Number(byId('lufs').value)
    && Number(option.dataset.dbtp) === Number(byId('dbtp').value));
  byId('preset').value = match?.value ?? '';
}

function complain(words) {
  byId('brief-problem').hidden = !words;
  byId('brief-problem').firstElementChild.textContent = words ?? '';
}

function changed() {
  linkParts();
  drawStarter();
  showPreset();
  byId('brief-state').textContent = JSON.stringify(read()) === saved ? 'Everything is saved.' : 'Not saved yet.';
}

/** Asks first where crews have begun; resolves whether it was done. */
async function askThen(send) {
  complain(null);
  try {
    const { changes } = await send(false);
    if (changes.length === 0) {
      return true;
    }
    byId('changes-list').replaceChildren(...changes.map(words => {
      const item = document.createElement('li');
      item.textContent = words;
      return item;
    }));
    byId('changes').showModal();
    const evenSo = await new Promise(resolve => {
      byId('even-so').onclick = () => resolve(true);
      byId('not-so').onclick = () => resolve(false);
      byId('changes').oncancel = () => resolve(false);
    });
    byId('changes').close();
    return evenSo && (await send(true)).changes.length === 0;
  } catch (refused) {
    complain(refused.message);
    return false;
  }
}

form.addEventListener('submit', async event => {
  event.preventDefault();
  if (await askThen(evenSo => postJson(form.dataset.address, { ...read(), evenSo }))) {
    saved = JSON.stringify(read());
    // rows that were new have ids now
    window.location.reload();
  }
});
byId('copy')?.addEventListener('click', async () => {
  const to = byId('copy-to');
  if (await askThen(evenSo => postJson(`${form.dataset.address}/copy`, { toClassId: Number(to.value), evenSo }))) {
    byId('brief-state').textContent = `Copied to ${to.selectedOptions[0].textContent}.`;
  }
});
// heard before the form hears it, which shows the preset that fits the numbers
byId('preset').addEventListener('input', event => {
  const { lufs, dbtp } = event.target.selectedOptions[0].dataset;
  if (lufs) {
    byId('lufs').value = lufs;
    byId('dbtp').value = dbtp;
  } else {
    byId('lufs').focus();
  }
});
form.addEventListener('input', event => {
  if (event.target.matches('[data-part]')) {
    partOf.set(event.target.closest('li'), rowsOf('parts')[Number(event.target.value)] ?? null);
  }
  changed();
});
attachRows(changed);
window.addEventListener('beforeunload', event => JSON.stringify(read()) !== saved && event.preventDefault());

linkParts();
saved = JSON.stringify(read());
changed();
