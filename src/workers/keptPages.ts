/** Where this device keeps a page for the time without a server, and the files that it is made of. */
export const KEPT_PAGES = 'jaldi:pages';
export const KEPT_PARTS = 'jaldi:parts';
