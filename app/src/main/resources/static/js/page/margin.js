// The margin: cards stand beside the rows they speak of and never over each other. What is being worked on has its place first,
// and notes make room for it; where there is no room for all of them they are folded to a line.

const GAP = 8;
/** @type {WeakMap<HTMLElement, () => void>} */
const again = new WeakMap();

/**
 * Arranges cards under everything that stands fixed in the margin.
 *
 * @param {{ besideRow(frame: number): number }} page
 * @param {HTMLElement} list the last of what stands fixed: the cards begin where it begins
 * @param {{ element: HTMLElement, frame: number | null }[]} first at most one of them is shown
 * @param {{ element: HTMLElement, frame: number | null }[]} notes each at its row or below the one before it; those without a frame last
 */
export function arrange(page, list, first, notes) {
  if (notes.length === 0 && first.every(({ element }) => element.hidden)) {
    // nothing to measure, for which the browser would lay out the page
    list.style.height = '0px';
    return;
  }
  const fold = (/** @type {boolean} */ on) => notes.forEach(({ element }) => element.classList.toggle('folded', on && !element.matches(':focus-within')));
  fold(false);
  const rows = /** @type {HTMLElement} */ (document.getElementById('rows'));
  // down to the end of the rows, or to what the window shows over its foot
  const margin = (list.offsetParent?.getBoundingClientRect().top ?? 0) + window.scrollY;
  const seen = window.innerHeight - margin - (document.getElementById('foot')?.offsetHeight ?? 0);
  if (placed(page, list, first, notes) > Math.max(rows.offsetTop + rows.offsetHeight, seen)) {
    fold(true);
    placed(page, list, first, notes);
  }
  // one that is looked at is opened
  if (!again.has(list)) {
    ['focusin', 'focusout'].forEach(event => list.addEventListener(event, () => again.get(list)?.()));
  }
  again.set(list, () => arrange(page, list, first, notes));
}

/**
 * Gives each card its place; returns where the last one ends.
 *
 * @type {(...args: Parameters<typeof arrange>) => number}
 */
function placed(page, list, first, notes) {
  const top = list.offsetTop + GAP;
  const shown = first.find(({ element }) => !element.hidden);
  let taken = null;
  if (shown) {
    const start = Math.max(top, page.besideRow(shown.frame ?? 0));
    shown.element.style.top = `${start}px`;
    taken = { start, end: start + shown.element.offsetHeight + GAP };
  }
  let free = top;
  notes.map(({ element, frame }) => ({ element, wanted: frame === null ? Infinity : page.besideRow(frame) }))
    .sort((a, b) => a.wanted - b.wanted).forEach(({ element, wanted }) => {
      let start = Number.isFinite(wanted) ? Math.max(free, wanted) : free;
      if (taken && start < taken.end && start + element.offsetHeight + GAP > taken.start) {
        start = taken.end;
      }
      element.style.top = `${start}px`;
      free = start + element.offsetHeight + GAP;
    });
  const end = Math.max(free, taken?.end ?? 0);
  list.style.height = `${Math.max(0, end - top)}px`;
  return end;
}
