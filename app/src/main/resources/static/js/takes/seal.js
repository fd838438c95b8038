// Seals what a laptop keeps of a take, so that only the server can read what a page has left behind: AES-GCM, a nonce of 12 bytes in front.
const NONCE_BYTES = 12;

/** @typedef {import('./kept-takes.js').Chunk} Chunk */

/**
 * A way to seal chunks with a key that stays in this page's memory.
 *
 * @param {string} key in Base64
 * @returns {Promise<(chunk: Chunk) => Promise<Chunk>>}
 */
export async function sealedWith(key) {
  const raw = Uint8Array.from(atob(key), letter => letter.charCodeAt(0));
  const secret = await crypto.subtle.importKey('raw', raw, 'AES-GCM', false, ['encrypt']);
  return async chunk => {
    const nonce = crypto.getRandomValues(new Uint8Array(NONCE_BYTES));
    const sealed = new Uint8Array(await crypto.subtle.encrypt({ name: 'AES-GCM', iv: nonce }, secret, chunk.pcm));
    const whole = new Uint8Array(NONCE_BYTES + sealed.length);
    whole.set(nonce);
    whole.set(sealed, NONCE_BYTES);
    return { ...chunk, pcm: whole.buffer, sealed: true };
  };
}
