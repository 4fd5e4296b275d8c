import { answerId, requestId } from '../core/bus/diagnosticPair';
import { routeOfAddress } from '../core/can/canRoute';
import type { CanFrame } from '../core/can/slcan';
import { NEGATIVE } from '../core/uds/negativeResponse';
import { fail, ok, type Result } from '../core/result';
import type { FoundModule, LinkError } from './vehicleLink';

/** What a search needs of a bus. */
export interface Bus {
	listen(hear: (frame: CanFrame) => void): () => void;
	send(id: number, extended: boolean, data: Uint8Array): void;
	readonly broken: LinkError | null;
}

const PRESENCE = Uint8Array.from([0x02, 0x3e, 0x00, 0xcc, 0xcc, 0xcc, 0xcc, 0xcc]);
const TESTER_PRESENT = 0x3e;
/** Requests to every module at once. */
const TO_ALL = [
	{ id: 0x7df, extended: false },
	{ id: 0x18db33f1, extended: true },
	{ id: 0x18dbfff1, extended: true }
];
const LISTEN_MS = 250;
const ANSWER_MS = 250;
/** Between two questions: no bus is filled by them. */
const PACE_MS = 8;

const delay = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const keyOf = (id: number, extended: boolean) => (extended ? 0x20000000 : 0) + id;

/** Whether a frame answers "is somebody present": yes, or not so. */
const answersPresence = ({ data }: CanFrame): boolean =>
	(data[0] === 2 && data[1] === TESTER_PRESENT + 0x40) ||
	(data[0] === 3 && data[1] === NEGATIVE && data[2] === TESTER_PRESENT);

/** The address of the module that answers on an identifier; null where modules do not answer on such a one. */
function addressOf({ id, extended }: CanFrame): number | null {
	const request = requestId(id, extended);
	const address = extended ? id & 0xff : request;
	const route = routeOfAddress(address);
	return route?.response === id && route.extended === extended ? address : null;
}

/**
 * Finds out which modules answer on a bus. First it only listens, then it asks all at once, then each address that may be
 * a module's; identifiers that carry traffic of their own are never sent on.
 */
export async function searchCan(bus: Bus): Promise<Result<FoundModule[], LinkError>> {
	const found = new Set<number>();
	const taken = new Set<number>();
	const stop = bus.listen((frame) => {
		const address = answersPresence(frame) ? addressOf(frame) : null;
		if (address === null) taken.add(keyOf(frame.id, frame.extended));
		else {
			found.add(address);
			// Nobody else asks on what a module answers on.
			taken.add(keyOf(frame.id, frame.extended));
		}
	});
	try {
		await delay(LISTEN_MS);
		for (const { id, extended } of TO_ALL) {
			bus.send(id, extended, PRESENCE);
			await delay(ANSWER_MS);
		}
		for (const address of addresses()) {
			const route = routeOfAddress(address);
			if (!route || found.has(address) || taken.has(keyOf(route.request, route.extended))) continue;
			// A module that is asked on its neighbour's answers would take that for its own.
			if (taken.has(keyOf(answerId(route.request, route.extended), route.extended))) continue;
			bus.send(route.request, route.extended, PRESENCE);
			await delay(PACE_MS);
			if (bus.broken) return fail(bus.broken);
		}
		await delay(ANSWER_MS);
	} finally {
		stop();
	}
	const modules = [...found].sort((a, b) => a - b);
	return ok(modules.map((address) => ({ address, silent: null })));
}

function* addresses(): Generator<number> {
	for (let id = 0x700; id <= 0x7f7; id++) if (id !== 0x7df) yield id;
	for (let byte = 0; byte <= 0xff; byte++) if (byte !== 0xf1) yield byte;
}
