/** Version of the entry shapes; apart from them, so that a page can name it without loading them all. */
export const ENTRY_VERSION = 1;
