/** Where the shop under test answers. */
export const PORT = Number(process.env.JALDI_TEST_PORT ?? 4790);
export const FIRST_BENCH_PORT = PORT + 20;
export const ORIGIN = `http://127.0.0.1:${PORT}`;
export const DATA = 'data/test';

/** Signed-in browsers, kept by role. */
export const SIGNED_IN = {
	ana: 'data/test/ana.json',
	marit: 'data/test/marit.json',
	office: 'data/test/office.json',
	guest: 'data/test/guest.json'
};

/** How Chromium is started, wherever it runs. */
export const CHROMIUM = process.env.JALDI_CHROMIUM ?? '/usr/bin/chromium';
export const CHROMIUM_FLAGS = [
	'--no-sandbox',
	'--disable-gpu',
	'--disable-quic',
	'--no-first-run',
	'--disable-background-networking',
	'--disable-component-update',
	'--disable-sync'
];
