/** Colours on paper: those of the pages by day, as numbers, because a printer knows no style sheet. */
export const INK = '#17332f';
export const QUIET = '#5b6661';
export const RULE = '#d8cdb8';
export const GOOD = '#1f6f5f';
export const SUSPECT = '#b3801b';
export const BAD = '#cf3a1f';
