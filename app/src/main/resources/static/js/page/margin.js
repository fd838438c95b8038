// @ts-check
// The margin: cards stand beside the rows they speak of and never over each other. What is being worked on has its place first,
// and notes make room for it.

const GAP = 8;

/**
 * Arranges cards under everything that stands fixed in the margin.
 *
 * @param {{ besideRow(frame: number): number }} page
 * @param {HTMLElement} list the last of what stands fixed: the cards begin where it begins
 * @param {{ element: HTMLElement, frame: number | null }[]} first at most one of them is shown
 * @param {{ element: HTMLElement, frame: number | null }[]} notes each at its row or below the one before it; those without a frame last
 */
export function arrange(page, list, first, notes) {
  const top = list.offsetTop;
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
  list.style.height = `${Math.max(0, Math.max(free, taken?.end ?? 0) - top)}px`;
}
