// How far arrows move what they move.
import { RATE } from '../shared/time.js';

export const STEP = RATE / 100;
export const LONG_STEP = RATE / 10;
