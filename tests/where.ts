/** Where the shop under test answers. */
export const PORT = Number(process.env.JALDI_TEST_PORT ?? 4790);
export const FIRST_BENCH_PORT = PORT + 20;
export const ORIGIN = `http://127.0.0.1:${PORT}`;
export const DATA = 'data/test';

/** Signed-in browsers, kept by role. */
export const SIGNED_IN = {
	ana: 'data/test/ana.json',
	marit: 'data/test/marit.json',
	office: 'data/test/office.json'
};
