// What can wait: it is done once what was asked for is painted, and nothing presses.

const nextFrame = () => new Promise(resolve => { requestAnimationFrame(resolve); });
const MOST_MS = 200;

/** Resolves when the page has shown what has changed, and is idle. */
export async function whenIdle() {
  // in the first frame it is drawn, in the second it is seen
  await nextFrame();
  await nextFrame();
  await new Promise(resolve => {
    if ('requestIdleCallback' in window) {
      window.requestIdleCallback(resolve, { timeout: MOST_MS });
    } else {
      setTimeout(resolve);
    }
  });
}
