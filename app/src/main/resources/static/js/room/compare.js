// Takes of one line beside each other: lengths and levels, heard one after the other, one of them chosen.

const byId = id => document.getElementById(id);

function row(audio) {
  const item = document.createElement('li');
  item.className = 'flex items-center gap-3 border-t border-line py-2 first:border-t-0';
  item.dataset.take = audio.dataset.take;
  const about = document.createElement('span');
  about.className = 'grow';
  const level = audio.dataset.level ? `level ${Number(audio.dataset.level).toFixed(1).replace('-', '−')} dBFS` : 'silent';
  about.textContent = `${audio.dataset.name} · ${Number(audio.dataset.seconds).toFixed(1)} s · ${level}`;
  const hear = button('Hear', `Hear ${audio.dataset.name} alone`, () => playAll([audio]));
  const choose = button('Choose', `Choose ${audio.dataset.name}`,
    () => document.querySelector(`form[action$="/takes/${audio.dataset.take}/choose"]`).submit());
  item.append(about, hear, choose);
  return item;
}

function button(words, label, act) {
  const made = document.createElement('button');
  made.type = 'button';
  made.className = 'button text-sm px-2';
  made.textContent = words;
  made.setAttribute('aria-label', label);
  made.addEventListener('click', act);
  return made;
}

async function playAll(audios) {
  document.querySelectorAll('audio').forEach(audio => audio.pause());
  for (const audio of audios) {
    const item = byId('compare-takes').querySelector(`[data-take="${audio.dataset.take}"]`);
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

export function compare(line) {
  const audios = [...document.querySelectorAll(`audio[data-line="${line.dataset.line}"]`)].reverse();
  byId('compare-line').textContent = line.firstElementChild.textContent;
  byId('compare-takes').replaceChildren(...audios.map(row));
  byId('compare-play').onclick = () => playAll(audios);
  byId('compare').onclose = () => audios.forEach(audio => audio.pause());
  byId('compare').showModal();
}
