import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Layout } from '../../src/main/resources/static/js/page/layout.js';
import { shortName } from '../../src/main/resources/static/js/page/names.js';
import { snapped } from '../../src/main/resources/static/js/page/snapping.js';
import { RATE } from '../../src/main/resources/static/js/shared/time.js';

const clip = (id, startFrame, frames) => ({ id, startFrame, frames });
const track = (id, ...clips) => ({ id, name: `Track ${id}`, clips });
const timeline = (seconds, ...tracks) => ({ frames: seconds * RATE, tracks, flags: [] });
const HEIGHT = 640;

test('time wraps from row to row, and every frame has one place', () => {
  const layout = new Layout(timeline(25, track(1, clip(2, 0, 25 * RATE))), 10);
  assert.equal(layout.rowCount, 3);
  assert.equal(layout.rowOf(10 * RATE - 1), 0);
  assert.equal(layout.rowOf(10 * RATE), 1);
  assert.equal(layout.rowOf(99 * RATE), 2);
  assert.equal(layout.rowEnd(2), 25 * RATE);
  for (const frame of [0, 1, 123_456, 10 * RATE - 1]) {
    assert.equal(layout.frameAt(0, layout.part(0, frame)), frame);
  }
  assert.equal(layout.frameAt(1, -5), 10 * RATE, 'held inside the row');
});

test('a track is left out of rows where it has no clip', () => {
  const layout = new Layout(timeline(30, track(1, clip(3, 0, 30 * RATE)), track(2, clip(4, 12 * RATE, RATE))), 10);
  assert.deepEqual([0, 1, 2].map(row => layout.tracksIn(row).map(({ id }) => id)), [[1], [1, 2], [1]]);
});

test('a minute of one voice fills the window with rows of eight to ten seconds', () => {
  const layout = Layout.fitting(timeline(60, track(1, clip(2, 0, 60 * RATE))), HEIGHT);
  assert.ok(layout.rowSeconds >= 8 && layout.rowSeconds <= 10, `${layout.rowSeconds} s`);
  const used = layout.rowCount * (layout.laneHeight(HEIGHT) + 24 + 16);
  assert.ok(used <= HEIGHT && used > 0.8 * HEIGHT, `${used} of ${HEIGHT} pixels`);
});

test('whatever its length, an episode fits the window as long as rows can hold it, and lanes stay within bounds', () => {
  for (let seconds = 1; seconds < 700; seconds += 7) {
    const layout = Layout.fitting(timeline(seconds, track(1, clip(3, 0, seconds * RATE)), track(2, clip(4, 0, seconds * RATE))), HEIGHT);
    const lane = layout.laneHeight(HEIGHT);
    assert.ok(lane >= 62 && lane <= 140);
    if (layout.rowSeconds < 80) {
      assert.ok(layout.rowCount * (2 * (lane + 24) + 16) <= HEIGHT, `${seconds} s: ${layout.rowCount} rows of ${lane} pixels`);
    }
  }
});

test('names are shortened as a person would, to whole first names', () => {
  assert.equal(shortName('Noor'), 'Noor');
  assert.equal(shortName('Noor and Ravi'), 'Noor and Ravi');
  assert.equal(shortName('Noor Haddad and Ravi Menon'), 'Noor, Ravi');
  assert.equal(shortName('Maximiliana Oyelaran'), 'Maximiliana');
  assert.equal(shortName('Alexandra and friends'), 'Alexandra, friends', 'an "and" inside a name is no joint');
});

test('frames snap to edges, flags and the position that are near on the screen, and to steps of 10 ms otherwise', () => {
  const page = timeline(20, track(1, clip(2, 100_000, 50_000), clip(3, 200_007, 1_000)));
  page.flags = [{ frame: 400_003 }];
  const layout = new Layout(page, 20);
  const bench = { layout: () => layout, rows: { all: [{ sound: { clientWidth: 960 } }] }, timeline: () => page, position: () => 300_001 };
  assert.equal(snapped(100_900, bench), 100_000);
  assert.equal(snapped(399_000, bench), 400_003);
  assert.equal(snapped(303_000, bench), 300_001);
  assert.equal(snapped(500_111, bench), 500_160, 'a hundredth of a second');
  assert.equal(snapped(200_100, bench, { id: 3 }), 200_160, 'its own edges do not count');
});

test('each row has its place, and the rows of any stretch of the page are found', () => {
  const layout = new Layout(timeline(3600, track(1, clip(3, 0, 3600 * RATE)), track(2, clip(4, 600 * RATE, 60 * RATE))), 0.05);
  layout.place(62);
  assert.equal(layout.rowCount, 72_000);
  assert.equal(layout.tops[12_000], 12_000 * (62 + 24 + 16));
  assert.equal(layout.tops[12_001] - layout.tops[12_000], 2 * (62 + 24) + 16);
  for (const row of [0, 1, 11_999, 12_000, 71_999]) {
    assert.deepEqual(layout.rowsBetween(layout.tops[row], layout.tops[row] + 1), [row, row]);
  }
  assert.deepEqual(layout.rowsBetween(-500, 0), [0, 0]);
  assert.deepEqual(layout.rowsBetween(0, 1e9), [0, 71_999]);
});

test('every part starts a row of its own, and later parts keep their rows when an earlier one is edited', () => {
  const episode = (intro, flags) => ({ ...timeline(intro + 25, track(1, clip(2, 0, (intro + 25) * RATE))), flags });
  const at = intro => new Layout(episode(intro, [{ name: 'Interview', frame: intro * RATE }, { name: 'door slams', frame: 3 * RATE }]), 10, {}, ['Intro', 'Interview']);
  const layout = at(14);
  assert.deepEqual([0, 1, 2, 3, 4].map(row => layout.rowStart(row) / RATE), [0, 10, 14, 24, 34]);
  assert.deepEqual([layout.rowEnd(1) / RATE, layout.rowEnd(4) / RATE, layout.rowReach(4) / RATE], [14, 39, 44]);
  assert.equal(layout.rowOf(13.9 * RATE), 1);
  assert.equal(layout.rowOf(14 * RATE), 2);
  const shorter = at(11);
  assert.deepEqual([2, 3, 4].map(row => (shorter.rowStart(row) / RATE) - 11), [2, 3, 4].map(row => (layout.rowStart(row) / RATE) - 14));
});

test('a track that is not shown takes no room, and a high one more', () => {
  const two = timeline(10, track(1, clip(3, 0, 10 * RATE)), track(2, clip(4, 0, 10 * RATE)));
  const tops = shares => {
    const layout = new Layout(two, 10, shares);
    layout.place(100);
    return layout.tops[1];
  };
  assert.equal(tops({}), 2 * 124 + 16);
  assert.equal(tops({ 2: 0 }), 124 + 16);
  assert.equal(tops({ 2: 1.7 }), 124 + 194 + 16);
  assert.deepEqual(new Layout(two, 10, { 2: 0 }).tracksIn(0).map(({ id }) => id), [1]);
});

test('the magnifier has one row, from where it starts to where it ends, with the tracks that sound there', () => {
  const two = timeline(60, track(1, clip(3, 0, 60 * RATE)), track(2, clip(4, 30 * RATE, RATE)));
  const layout = new Layout(two, 0.5, {}, ['Intro'], 12 * RATE);
  assert.equal(layout.rowCount, 1);
  assert.deepEqual([layout.rowStart(0), layout.rowEnd(0), layout.part(0, 12 * RATE), layout.part(0, 12.5 * RATE)], [12 * RATE, 12.5 * RATE, 0, 1]);
  assert.equal(layout.frameAt(0, 0.5), 12.25 * RATE);
  assert.deepEqual(layout.tracksIn(0).map(({ id }) => id), [1]);
});
