import assert from 'node:assert/strict';
import { test } from 'node:test';
import { unfold } from '../../src/main/resources/static/js/page/unfold.js';

test('clips get the sources and fades that they name by their places', () => {
  const fades = [{ frames: 240 }, { frames: 0 }];
  const sources = [{ takeId: 7 }, { takeId: 9 }];
  const timeline = unfold({ sources, fades, tracks: [{ clips: [{ id: 1, source: 1, fadeIn: 1, fadeOut: 0 }, { id: 2, source: 0, fadeIn: 0, fadeOut: 0 }] },
    { clips: [] }] });
  assert.deepEqual(timeline.tracks[0].clips, [{ id: 1, source: { takeId: 9 }, fadeIn: { frames: 0 }, fadeOut: { frames: 240 } },
    { id: 2, source: { takeId: 7 }, fadeIn: { frames: 240 }, fadeOut: { frames: 240 } }]);
});
