// Names of tracks as a person would say them where there is little room: first names in full, never two letters of them.

const FITS = 14;

/** @param {string} name */
export function shortName(name) {
  if (name.length <= FITS) {
    return name;
  }
  return name.split(/\s*(?:,|&|\+|\band\b)\s*/).filter(Boolean).map(part => part.split(/\s+/)[0]).join(', ');
}
