// What the server sends of a timeline, unfolded (see unfold.js). A test of the server holds these and its records together.

/** @typedef {{ frames: number, shape: string, skippedFrames: number, edgeFrames: number, seam: string }} Fade */
/** @typedef {{ takeId: number, soundId: number | null, roomFrame: number | null, roomFrames: number | null, drawnAnew: boolean, keepsTime: boolean, trick: string | null }} SourceView */
/** @typedef {{ id: number, source: SourceView, startFrame: number, sourceFrame: number, frames: number, gainDb: number, fadeIn: Fade, fadeOut: Fade }} ClipView */
/** @typedef {{ id: number, name: string, group: number, gainDb: number, pan: number, muted: boolean, curve: CurvePoint[], clips: ClipView[] }} TrackView */
/** @typedef {{ frame: number, gainDb: number }} CurvePoint */
/** @typedef {{ id: number, trackId: number, frame: number, name: string }} Flag */
/** @typedef {{ startFrame: number, endFrame: number, runs: number }} ClippedSpot */
/** @typedef {{ name: string, trackName: string, frames: number, voice: boolean, clipped: ClippedSpot[] | null }} TakeView */
/** @typedef {number[][]} Pieces stretches [fromFrame, toFrame, newFrame] of old frames that are still there */
/** @typedef {{ [trackId: string]: Pieces }} Maps */
/** @typedef {{ revision: number, canUndo: boolean, canRedo: boolean, frames: number, tracks: TrackView[], sources: SourceView[], fades: Fade[], flags: Flag[], takes: { [takeId: string]: TakeView }, finish: string, finishOf: number, since: number, maps: Maps }} TimelineView */

export {};
