// The grips of a clip: what each moves, what the clip would cover then, and which edit that is.

/** @typedef {import('./types.js').ClipView} ClipView */
/** @typedef {keyof GRIPS} Grip */

export const GRIPS = {
  start: { icon: 'chevrons-right', words: 'Trim the start of', title: 'trim' },
  'fade-in': { icon: 'fade-in', words: 'Fade the start of', title: 'fade' },
  move: { icon: 'move-horizontal', words: 'Move', title: 'move' },
  'fade-out': { icon: 'fade-out', words: 'Fade the end of', title: 'fade' },
  end: { icon: 'chevrons-left', words: 'Trim the end of', title: 'trim' },
};

/** The button of a grip, which is copied for each clip: hundreds are made while the page scrolls. @param {Grip} grip @param {string} icons where they are */
export function gripButton(grip, icons) {
  const button = document.createElement('button');
  button.type = 'button';
  button.className = `clip-grip clip-grip-${grip}`;
  button.dataset.grip = grip;
  button.title = GRIPS[grip].title;
  showIcon(button, icons);
  return button;
}

/** Gives a grip its icon. @param {HTMLElement} button @param {string} icons where they are */
export function showIcon(button, icons) {
  const { icon } = GRIPS[/** @type {Grip} */ (button.dataset.grip)];
  button.innerHTML = `<svg class="icon" aria-hidden="true"><use href="${icons}#${icon}"></use></svg>`;
}

/** @param {ClipView} clip */
export const endOf = clip => clip.startFrame + clip.frames;

/** Where what a grip moves stands on the page. @param {Grip} grip @param {ClipView} clip */
export function placeOf(grip, clip) {
  switch (grip) {
    case 'fade-in': return clip.startFrame + clip.fadeIn.frames;
    case 'fade-out': return endOf(clip) - clip.fadeOut.frames;
    case 'end': return endOf(clip);
    default: return clip.startFrame;
  }
}

/** What a clip, or its fade, would cover. @param {Grip} grip @param {ClipView} clip @param {number} frame @returns {[number, number]} */
export function spanFor(grip, clip, frame) {
  switch (grip) {
    case 'start': return [Math.max(0, frame), endOf(clip)];
    case 'fade-in': return [clip.startFrame, frame];
    case 'fade-out': return [frame, endOf(clip)];
    case 'end': return [clip.startFrame, frame];
    default: return [Math.max(0, frame), Math.max(0, frame) + clip.frames];
  }
}

/** @param {Grip} grip @param {ClipView} clip @param {number} trackId @param {number} frame @returns {import('./types.js').Wish} */
export function wishFor(grip, clip, trackId, frame) {
  const at = Math.max(0, frame);
  switch (grip) {
    case 'start': return { type: 'trim', clipId: clip.id, edge: 'START', frame: at };
    case 'end': return { type: 'trim', clipId: clip.id, edge: 'END', frame: at };
    case 'fade-in': return { type: 'set-fade', clipId: clip.id, edge: 'START', frames: Math.max(0, at - clip.startFrame), shape: clip.fadeIn.shape };
    case 'fade-out': return { type: 'set-fade', clipId: clip.id, edge: 'END', frames: Math.max(0, endOf(clip) - at), shape: clip.fadeOut.shape };
    default: return { type: 'move', clipId: clip.id, trackId, startFrame: at };
  }
}
