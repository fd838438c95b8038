// Takes of one line beside each other: lengths and levels, heard one after the other, one of them chosen.
import { byId, dialogById, within } from '../shared/elements.js';
import { html, render } from '../vendor/lit-html/lit-html.js';

/** @param {HTMLAudioElement} audio carries what is known of its take */
function row(audio) {
  const { take, name, level, seconds, onPage } = audio.dataset;
  const words = level ? `level ${Number(level).toFixed(1).replace('-', '−')} dBFS` : 'silent';
  const choose = () => /** @type {HTMLFormElement} */ (within(document, `form[action$="/takes/${take}/choose"]`)).submit();
  return html`
    <li class="flex items-center gap-3 border-t border-line py-2 first:border-t-0" data-take=${take}>
      <span class="grow">${name} · ${Number(seconds).toFixed(1)} s · ${words}</span>
      <button type="button" class="button text-sm px-2" aria-label="Hear ${name} alone" @click=${() => playAll([audio])}>Hear</button>
      ${onPage === 'true' ? html`<b class="marked text-sm">on the page</b>`
    : html`<button type="button" class="button text-sm px-2" aria-label="Choose ${name}" @click=${choose}>Choose</button>`}
    </li>`;
}

/** @param {HTMLAudioElement[]} audios */
async function playAll(audios) {
  document.querySelectorAll('audio').forEach(audio => audio.pause());
  for (const audio of audios) {
    const item = within(byId('compare-takes'), `[data-take="${audio.dataset.take}"]`);
    audio.currentTime = Number(/#t=([\d.]+)/.exec(audio.src)?.[1] ?? 0);
    item.setAttribute('aria-current', 'true');
    await audio.play();
    await new Promise(resolve => {
      audio.addEventListener('ended', resolve, { once: true });
      audio.addEventListener('pause', resolve, { once: true });
    });
    item.removeAttribute('aria-current');
    if (!audio.ended) {
      return;
    }
  }
}

/** @param {HTMLElement} line of the script */
export function compare(line) {
  const audios = /** @type {HTMLAudioElement[]} */ ([...document.querySelectorAll(`audio[data-line="${line.dataset.line}"]`)]).reverse();
  byId('compare-line').textContent = line.firstElementChild?.textContent ?? '';
  render(audios.map(row), byId('compare-takes'));
  byId('compare-play').onclick = () => playAll(audios);
  byId('compare').onclose = () => audios.forEach(audio => audio.pause());
  dialogById('compare').showModal();
}
