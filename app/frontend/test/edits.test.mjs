import assert from 'node:assert/strict';
import { webcrypto } from 'node:crypto';
import { beforeEach, test } from 'node:test';

const FOREVER = 2 ** 61;
let server;

// Node 18 does not show it yet
globalThis.crypto ??= webcrypto;

/** A server that has one timeline, and answers as the test says. */
globalThis.document = { querySelector: () => ({ content: 'x' }) };
globalThis.fetch = async (address, options = {}) => server(address, options.body ? JSON.parse(options.body) : null);
const { Edits } = await import('../../src/main/resources/static/js/bench/edits.js');

const answer = body => ({ ok: true, status: 200, json: async () => body });
const view = (revision, since = 0, maps = {}) => ({ revision, since, maps, tracks: [], takes: {} });

let sent;
beforeEach(() => { sent = []; });

async function editsAt(revision) {
  server = async () => answer(view(revision));
  const edits = new Edits(1);
  await edits.load();
  return edits;
}

test('the revision is that of the gesture, also when news of another one came before it was sent', async () => {
  const edits = await editsAt(5);
  const gesture = edits.gesture();
  server = async () => answer(view(6, 5, { 1: [[0, 10, 0], [20, FOREVER, 10]] }));
  await edits.load();
  server = async (address, body) => { sent.push(body); return answer(view(7, 6)); };
  await edits.edit({ type: 'remove' }, gesture);
  assert.equal(sent[0].base, 5);
  assert.equal(sent[0].shown, 6);
});

test('sent again when the network was away, it is the same edit', async () => {
  const edits = await editsAt(5);
  let attempts = 0;
  server = async (address, body) => {
    sent.push(body.clientId);
    attempts++;
    if (attempts === 1) {
      throw new TypeError('network');
    }
    return answer(view(6, 5));
  };
  await edits.edit({ type: 'soften' });
  assert.equal(sent.length, 2);
  assert.equal(sent[0], sent[1]);
});

test('of keys pressed on while an edit is on its way each counts as made on the one before, if nobody came between', async () => {
  const edits = await editsAt(5);
  server = async (address, body) => { sent.push(body); return answer(view(body.shown + 1, body.shown)); };
  await Promise.all([edits.edit({ type: 'trim', frame: 1 }), edits.edit({ type: 'trim', frame: 2 }), edits.edit({ type: 'trim', frame: 3 })]);
  assert.deepEqual(sent.map(body => body.base), [5, 6, 7]);
});

test('if somebody came between, the later ones stay as made on what was seen', async () => {
  const edits = await editsAt(5);
  server = async (address, body) => { sent.push(body); return answer(view(body.shown + 2, body.shown)); };
  await Promise.all([edits.edit({ type: 'trim', frame: 1 }), edits.edit({ type: 'trim', frame: 2 })]);
  assert.deepEqual(sent.map(body => body.base), [5, 5]);
});

test('a second press on the same words while they are being removed is still about these words', async () => {
  const edits = await editsAt(5);
  server = async (address, body) => { sent.push(body); return answer(view(body.shown + 1, body.shown, { 1: [[0, 10, 0], [20, FOREVER, 10]] })); };
  await Promise.all([edits.edit({ type: 'remove' }), edits.edit({ type: 'remove' })]);
  assert.deepEqual(sent.map(body => body.base), [5, 5], 'times moved: the server knows where the words went');
});

test('undo pressed while an edit is on its way undoes that edit', async () => {
  const edits = await editsAt(5);
  server = async (address, body) => { sent.push([address, body.base]); return answer(view(body.shown + 1, body.shown, { 1: [[0, 10, 0]] })); };
  await Promise.all([edits.edit({ type: 'remove' }), edits.undo(() => true)]);
  assert.deepEqual(sent, [['/episodes/1/edits', 5], ['/episodes/1/undo', 6]]);
});

test('what stands at a time hears where times have gone, with the tracks as they were', async () => {
  const edits = await editsAt(5);
  const moved = [];
  edits.onMoved = (maps, tracks) => moved.push([Object.keys(maps), tracks]);
  server = async () => answer(view(6, 5, { 3: [[0, 10, 0]] }));
  await edits.load();
  server = async () => answer(view(9, 2, { 3: [[0, 10, 0]] }));
  await edits.load();
  assert.deepEqual(moved, [[['3'], []]], 'maps from another revision than the one that is shown move nothing');
});

test('when the stream of news comes back, the page asks for what it has missed', async () => {
  let stream;
  globalThis.EventSource = class { constructor() { stream = this; } };
  const edits = await editsAt(5);
  const news = [];
  edits.follow(newer => news.push(newer));
  stream.onopen();
  server = async () => answer(view(8, 5));
  stream.onopen();
  await edits.edit({ type: 'soften' });
  assert.deepEqual(news, [true]);
  assert.equal(edits.timeline.revision, 8);
});
