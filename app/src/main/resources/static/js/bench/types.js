// What the parts of the bench know of each other.

/** @typedef {import('../page/types.js').TimelineView} TimelineView */
/** @typedef {import('../page/types.js').TrackView} TrackView */
/** @typedef {import('../page/types.js').ClipView} ClipView */
/** @typedef {import('../page/types.js').Flag} Flag */
/** @typedef {import('./edits.js').Gesture} Gesture */
/** An edit as it is sent. @typedef {{ type?: string, [of: string]: unknown }} Wish */
/** Does an edit, shows the page as it is then, and says what was done. @typedef {(wish: Wish, gesture?: Gesture | null, said?: string | null) => Promise<void>} EditIt */
/**
 * The bench, for its parts: the page it shows, what it is made on, and what may be done.
 *
 * @typedef {{ page: import('../page/page.js').Page, rows: import('../page/rows.js').Rows, layout: () => import('../page/layout.js').Layout,
 *   timeline: () => TimelineView, position: () => number, gesture: () => Gesture, edit: EditIt, goTo: (frame: number) => void,
 *   change: (work: () => Promise<unknown>) => Promise<void>, load: () => Promise<unknown>,
 *   onChosen: (clipId: number | null) => void, marginFree: () => boolean, attempt: (work: () => Promise<unknown>) => Promise<void>,
 *   offer: (wish: Wish, words: string, said: string, at: number, tab?: string | null) => Promise<void>, hearAsIfGone: (start: number, end: number, trackIds: readonly number[]) => void,
 *   addPoint: (trackId: number) => void, readLines: () => { [takeId: string]: string }, cards: () => { element: HTMLElement, frame: number | null }[] }} Bench
 */

export {};
