// Requests to our own server: the CSRF token goes along, and a refusal becomes an error with the server's own words.

/** @param {string} name */
const meta = name => /** @type {HTMLMetaElement | null} */ (document.querySelector(`meta[name="${name}"]`))?.content ?? '';

export class Refused extends Error {
  /** @param {number} status @param {string} words @param {string} [code] */
  constructor(status, words, code) {
    super(words);
    this.status = status;
    this.code = code;
  }
}

/** What was asked for is being made, and will be there in a moment. */
export class NotYet extends Error {
}

export function csrfHeaders() {
  return { [meta('csrf-header')]: meta('csrf-token'), 'X-Requested-With': 'fetch', 'X-Build': meta('build') };
}

/** The words for a failed answer; plain ones where the server gave none. @param {number} status @param {{ detail?: string } | null} body */
export function wordsFor(status, body) {
  if (status === 401 || status === 403) {
    return 'You are signed out. What was sent is kept. Sign in again.';
  }
  return body?.detail ?? 'Something went wrong. What was saved is kept. Try again.';
}

/** @param {Response} response */
async function checked(response) {
  if (response.ok) {
    return response;
  }
  const body = await response.json().catch(() => null);
  throw new Refused(response.status, wordsFor(response.status, body), body?.code);
}

/** @param {string} address @param {RequestInit} options */
async function ask(address, options) {
  let response;
  try {
    response = await fetch(address, options);
  } catch {
    throw new Refused(0, 'The network is gone. Nothing is lost. Try again.');
  }
  return checked(response);
}

/** @param {string} address */
export async function getJson(address) {
  const response = await ask(address, { headers: { Accept: 'application/json', ...csrfHeaders() } });
  return response.json();
}

/** A piece of a page. @param {string} address */
export async function getHtml(address) {
  const response = await ask(address, { headers: { Accept: 'text/html', ...csrfHeaders() } });
  return response.text();
}

/** @param {string} address @param {AbortSignal} [signal] */
export async function getBytes(address, signal) {
  const response = await ask(address, { headers: { Accept: 'application/octet-stream', ...csrfHeaders() }, signal });
  if (response.status === 202) {
    throw new NotYet();
  }
  return response.arrayBuffer();
}

/** @param {string} address @param {object} body */
export async function postJson(address, body, options = {}) {
  const headers = { 'Content-Type': 'application/json', Accept: 'application/json', ...csrfHeaders() };
  const response = await ask(address, { method: 'POST', headers, body: JSON.stringify(body), ...options });
  return response.status === 204 ? null : response.json();
}

/** @param {string} address @param {FormData} form with files */
export async function postForm(address, form) {
  await ask(address, { method: 'POST', headers: { Accept: 'application/json', ...csrfHeaders() }, body: form });
}
