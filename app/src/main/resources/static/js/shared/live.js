// Pages follow what others do: a stream says only that something has changed.

/**
 * Hears of changes. What happened before the stream was open, or while it was away, is not told again: each opening counts as a change.
 *
 * @param {HTMLElement} part names the stream in data-live
 * @param {() => void} onChange
 */
export function follow(part, onChange) {
  const stream = new EventSource(part.dataset.live ?? '');
  stream.onopen = onChange;
  stream.onmessage = onChange;
}
