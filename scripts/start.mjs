// npm start: the built server, with nothing that has to be set first.
import { existsSync } from 'node:fs';
import { createServer } from 'node:net';
import { completeEnvironment, ROOT } from './environment.mjs';

process.umask(0o077);
process.chdir(ROOT);
try {
	Object.assign(process.env, completeEnvironment(process.env));
} catch (error) {
	giveUp(
		`Jaldi could not start: its data folder cannot be made ready (${error instanceof Error ? error.message : error}).`
	);
}
const { HOST, PORT, ORIGIN } = process.env;

/** @param {string} why */
function giveUp(why) {
	console.error(why);
	process.exit(1);
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
	await import('../build/index.js');
	console.log(`Jaldi is open at ${ORIGIN}. More people come in by: npm run member -- USERNAME "NAME" ROLE`);
} catch (error) {
	giveUp(`Jaldi could not start: ${error instanceof Error ? error.message : error}`);
}
