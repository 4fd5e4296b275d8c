/** As much of a file as tells what it is, in bytes or signs. */
export const SNIFF_LENGTH = 65_536;
const FRAME_LINE = /^\s*\(\d+(?:\.\d+)?\)\s+\S+\s+[0-9A-F]+#/im;

/** Whether a text begins like a frame log: one of its first lines is a frame, `(seconds) interface ID#DATA`. */
export const isFrameLog = (text: string): boolean => FRAME_LINE.test(text.slice(0, SNIFF_LENGTH));
