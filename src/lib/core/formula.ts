/**
 * A cell that a spreadsheet might take for a formula and run: anything that begins like one and is not simply a number. Files
 * that go out as CSV have a quote before it (OWASP, CSV injection).
 */
export const FORMULA = /^(?![+-]?[\d.]+(?:e[+-]?\d+)?$)[=+\-@\t\r]/i;
