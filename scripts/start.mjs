// npm start: the built server, with nothing that has to be set first.
import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { completeEnvironment, ROOT, SHOP_PROTOCOL } from './environment.mjs';

process.umask(0o077);
process.chdir(ROOT);
try {
	Object.assign(process.env, completeEnvironment(process.env));
} catch (error) {
	giveUp(
		`Jaldi could not start; its settings or its data folder are not right: ${error instanceof Error ? error.message : error}.`
	);
}
const { HOST, PORT, ORIGIN, JALDI_SHOPS } = process.env;

/** @param {string} why */
function giveUp(why) {
	console.error(why);
	process.exit(1);
}

/**
 * Has each request say by what protocol people reach the shop it is for, whatever it said itself.
 * @param {import('node:http').Server} server
 * @param {string} file the shops, as the server has read them
 * @returns {string[]} their addresses
 */
function sayProtocols(server, file) {
	/** @type {string[]} */
	const origins = JSON.parse(readFileSync(file, 'utf8')).shops.map(
		(/** @type {{ origin: string }} */ { origin }) => origin
	);
	const plain = new Set(
		origins.filter((origin) => origin.startsWith('http:')).map((origin) => new URL(origin).host)
	);
	const hostHeader = process.env.HOST_HEADER?.toLowerCase() ?? 'host';
	server.prependListener('request', ({ headers }) => {
		headers[SHOP_PROTOCOL] = plain.has(String(headers[hostHeader] ?? headers.host).toLowerCase())
			? 'http'
			: 'https';
	});
	return origins;
}

if (!existsSync('build/index.js')) giveUp('Jaldi is not built yet: run "npm ci" and "npm run build" first.');
await new Promise((resolve) => {
	const probe = createServer();
	probe.once('error', (error) =>
		giveUp(
			`Nothing can listen at ${HOST}:${PORT} (${error.message}). Stop what does, or choose another PORT.`
		)
	);
	probe.listen(Number(PORT), HOST, () => probe.close(resolve));
});
try {
	const { server } = await import('../build/index.js');
	if (JALDI_SHOPS) {
		const origins = sayProtocols(server.server, JALDI_SHOPS);
		console.log(`Jaldi listens at ${HOST}:${PORT} for ${origins.join(', ')}.`);
	} else
		console.log(`Jaldi is open at ${ORIGIN}. More people come in by: npm run member -- USERNAME "NAME" ROLE`);
} catch (error) {
	giveUp(`Jaldi could not start: ${error instanceof Error ? error.message : error}`);
}
