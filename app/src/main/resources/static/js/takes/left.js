// Somebody has signed out: of what they did, nothing stays on this laptop but takes that wait to be sent, sealed.
import { forgetFiles } from './kept-files.js';

localStorage.clear();
sessionStorage.clear();
forgetFiles();
