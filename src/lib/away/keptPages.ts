/** Where this device keeps pages for the time without a server, and the files that they are made of. */
export const KEPT_PAGES = 'jaldi:pages';
export const KEPT_PARTS = 'jaldi:parts';
/** Shown in place of a page that is not kept here; it names those that are. */
export const NOT_KEPT = '/away.html';

const ULID = '[0-9A-Z]{26}';
const CASE = new RegExp(`^/cases/${ULID}$`);
/** Pages that say something without a server: the floor, cases, what codes mean, and what is reckoned on the device itself. */
const READABLE = [
	/^\/$/,
	/^\/(decode|tyres|waiting|closed)$/,
	/^\/cases\/new$/,
	/^\/codes\/[^/]+$/,
	/^\/library(\/(?!aside|shops|learned|frame-signals)[0-9a-z-]+)?$/,
	/^\/library\/vehicles\/[^/]+$/,
	new RegExp(`^/cases/${ULID}(/(listen|read|measure|reason|watch|mend|prove|hand-over|vehicle)(/[^.]*)?)?$`)
];

/** Whether a page may be kept on a device. What is of people, or of the server itself, never is. */
export const mayBeKept = (path: string): boolean => READABLE.some((one) => one.test(path));

/** The first of these are its stations. */
const STATIONS = 8;
/** The pages of a case that are of use in the yard, from its own address on. */
export const PAGES_OF_CASE = [
	'listen',
	'read',
	'measure',
	'reason',
	'watch',
	'mend',
	'prove',
	'hand-over',
	'read/other',
	'read/lamp',
	'measure/look',
	'measure/halve',
	'measure/substitute',
	'measure/swap',
	'measure/provoke',
	'measure/scope',
	'watch/tyres',
	'mend/fit',
	'mend/plan',
	'mend/calibrate',
	'prove/drive'
];
/** Where a case's own address may lead, best first; nothing for any other address. */
export const stationsOf = (path: string): string[] =>
	CASE.test(path) ? PAGES_OF_CASE.slice(0, STATIONS).map((page) => `${path}/${page}`) : [];

export const PAGES_OF_SHOP = ['/', '/decode', '/tyres', '/waiting', '/library', '/cases/new'];
