// The colours of the theme, as the styles name them.

const styles = getComputedStyle(document.documentElement);
/** To ask for a style makes the browser work out all that has changed in the page, so each is asked for once. @type {Map<string, string>} */
const colours = new Map();
/** Called when the theme is another one. @type {(() => void)[]} */
const others = [];
window.matchMedia('(prefers-color-scheme: dark)').addEventListener('change', () => {
  colours.clear();
  others.forEach(forget => forget());
});

/** @param {string} name */
export function colour(name) {
  const known = colours.get(name) ?? styles.getPropertyValue(name).trim();
  colours.set(name, known);
  return known;
}

/** What is made of colours is forgotten with them. @param {() => void} forget */
export const onTheme = forget => others.push(forget);
