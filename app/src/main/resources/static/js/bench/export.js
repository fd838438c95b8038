// A file of the episode, or of a part of it: what it will hold and how large it will be is said before it is made.
import { byId, dialogById } from '../shared/elements.js';
import { getJson } from '../shared/http.js';
import { clock } from '../shared/time.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @typedef {{ frames: number, mono: boolean, silent: string[], sizes: { [format: string]: { bytes: number, exact: boolean } } }} Facts */

const FORMATS = [['MP3', 'small, plays everywhere'], ['WAV', 'large, for other editors'], ['FLAC', 'nothing lost, with tags'], ['OPUS', 'smallest']];

const ASK_AGAIN_MS = 400;

/** @param {number} bytes */
const sized = bytes => (bytes < 1e6 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`);

/** @param {string} episodeId @param {import('./types.js').Bench} bench */
export function attachExport(episodeId, bench) {
  const dialog = dialogById('export');
  const form = /** @type {HTMLFormElement} */ (byId('export-form'));

  function query() {
    const { selection } = bench.page;
    const part = form.elements.namedItem('part');
    const query = new URLSearchParams();
    if (selection && part instanceof RadioNodeList && part.value === 'selection') {
      query.set('from', String(selection.start));
      query.set('to', String(selection.end));
    }
    const boxes = /** @type {NodeListOf<HTMLInputElement>} */ (form.querySelectorAll('input[name=track]'));
    const ticked = [...boxes].filter(box => box.checked).map(box => box.value);
    if (ticked.length < boxes.length) {
      query.set('tracks', ticked.join(',') || '0');
    }
    return query;
  }

  const address = () => `/episodes/${episodeId}/export/${bench.timeline().revision}`;

  async function show() {
    await bench.attempt(async () => {
      if (query().get('tracks') === '0') {
        byId('export-facts').textContent = 'Tick at least one track.';
        render(null, byId('export-formats'));
        return;
      }
      const facts = /** @type {Facts} */ (await getJson(`${address()}?${query()}`));
      byId('export-facts').textContent = [`${clock(facts.frames)} long, as loud as you hear it here.`,
        facts.mono ? 'One channel: both sides are the same.' : 'Stereo.',
        facts.silent.length > 0 ? `Left out: ${facts.silent.join(', ')}.` : ''].filter(Boolean).join(' ');
      render(FORMATS.map(([format, what]) => html`<li class="flex items-center gap-3 py-1"><a class="button text-sm px-3 w-20" download href="${address()}/file?${query()}&format=${format}"
        @click=${(/** @type {Event} */ event) => tell(/** @type {HTMLAnchorElement} */ (event.currentTarget))}>${format}</a>
        <span class="grow">${what}</span><span class="text-muted whitespace-nowrap">${facts.sizes[format].exact ? '' : 'about '}${sized(facts.sizes[format].bytes)}</span></li>`), byId('export-formats'));
    });
  }

  /** Says how far the file has come that a link asks for. @param {HTMLAnchorElement} link */
  async function tell(link) {
    const key = crypto.randomUUID().replaceAll('-', '');
    const asked = new URL(link.href);
    asked.searchParams.set('key', key);
    link.href = asked.href;
    const said = byId('export-making');
    let percent = 0;
    while (percent >= 0 && percent < 100 && dialog.open) {
      said.textContent = `It is being made: ${percent} %. The browser keeps it when it is there.`;
      await new Promise(done => { setTimeout(done, ASK_AGAIN_MS); });
      percent = (await getJson(`/episodes/${episodeId}/export/progress/${key}`).catch(() => ({ percent }))).percent;
    }
    said.textContent = percent === 100 ? 'It is made.' : 'It could not be made. Nothing is lost. Try again.';
  }

  byId('open-export').addEventListener('click', () => {
    const { tracks } = bench.timeline();
    byId('export-part').hidden = !bench.page.selection;
    byId('export-making').textContent = '';
    render(tracks.map(track => html`<label class="inline-flex items-center gap-1.5"><input type="checkbox" name="track" value=${track.id} checked @change=${show}>${track.name}${track.muted ? ' (left out)' : ''}</label>`), byId('export-tracks'));
    dialog.showModal();
    show();
  });
  byId('export-part').addEventListener('change', show);
}
