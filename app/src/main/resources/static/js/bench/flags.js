// Flags: named moments. They stand above the sound they speak of; pressing one goes there and offers what can be done.
import { fineClock } from '../shared/time.js';

const byId = id => document.getElementById(id);

export class Flags {
  #bench;
  #icons;
  #flag = null;
  #place = null;
  #gesture = null;

  /** @param bench rows, layout(), timeline(), goTo(frame), gesture(), edit(wish, gesture) */
  constructor(icons, bench) {
    this.#bench = bench;
    this.#icons = icons;
    byId('flag-form')?.addEventListener('submit', event => {
      const name = byId('flag-name').value.trim();
      if (name && event.submitter?.id !== 'flag-no') {
        bench.edit({ type: 'add-flag', ...this.#place, name }, this.#gesture);
      }
    });
    byId('flag-name-form')?.addEventListener('submit', () => {
      const name = byId('flag-new-name').value.trim();
      if (name && name !== this.#flag.name) {
        bench.edit({ type: 'name-flag', flagId: this.#flag.id, name }, this.#gesture);
      }
    });
    byId('flag-away')?.addEventListener('click', () => {
      byId('flag-card').close();
      bench.edit({ type: 'remove-flag', flagId: this.#flag.id }, this.#gesture);
    });
  }

  draw() {
    const layout = this.#bench.layout();
    for (const row of this.#bench.rows.all) {
      row.sound.querySelectorAll('.flag').forEach(old => old.remove());
      for (const flag of this.#bench.timeline().flags) {
        const lane = row.lanes.find(({ track }) => track.id === flag.trackId)?.lane;
        if (lane && flag.frame >= layout.rowStart(row.number) && flag.frame < layout.rowEnd(row.number)) {
          lane.append(this.#mark(flag, 100 * layout.part(row.number, flag.frame)));
        }
      }
    }
  }

  /** Asks for the name of a moment. */
  ask(trackId, frame) {
    this.#place = { trackId, frame };
    this.#gesture = this.#bench.gesture();
    byId('flag-when').textContent = fineClock(frame, 2);
    byId('flag-name').value = '';
    byId('flag-dialog').showModal();
    byId('flag-name').focus();
  }

  #mark(flag, left) {
    const mark = document.createElement('button');
    mark.type = 'button';
    mark.className = 'flag';
    mark.style.left = `${left}%`;
    mark.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${this.#icons}#flag"></use></svg>`;
    mark.append(flag.name);
    mark.setAttribute('aria-label', `Flag: ${flag.name}, ${fineClock(flag.frame)}`);
    mark.addEventListener('click', () => {
      this.#flag = flag;
      this.#gesture = this.#bench.gesture();
      this.#bench.goTo(flag.frame);
      byId('flag-card-name').textContent = flag.name;
      if (byId('flag-new-name')) {
        byId('flag-new-name').value = flag.name;
      }
      byId('flag-card-when').textContent = fineClock(flag.frame, 2);
      byId('flag-card').showModal();
    });
    return mark;
  }
}
