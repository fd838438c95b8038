import { html } from '../vendor/lit-html/lit-html.js';

/** A drawing beside words, for no screen reader. @param {string} icons where they are @param {string} name */
export const icon = (icons, name) => html`<svg class="icon" aria-hidden="true"><use href="${icons}#${name}"></use></svg>`;
