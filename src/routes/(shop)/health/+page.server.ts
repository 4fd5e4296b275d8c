import { clock } from '$lib/server/cases/clock';
import { healthOfServer } from '$lib/server/watch/healthOfServer';

export const load = async ({ locals }) => {
	const { db, databaseFile, troubles, backups, stalls, peers } = locals.services;
	const kept = backups.state();
	return {
		health: await healthOfServer(db, databaseFile, kept),
		stallMs: stalls.mostMs(),
		/** Where the other servers on the same database are reached. */
		others: databaseFile === null ? (await peers.others()).map((origin) => new URL(origin).host) : [],
		backups: kept && { last: kept.last && clock(kept.last), everyHours: backups.plan?.everyHours ?? 0 },
		troubles: troubles.newest().map((one) => ({ ...one, at: clock(one.at) }))
	};
};
