import { CodeBroadcasts, type Broadcast } from '../core/bus/codeBroadcasts';
import type { Bus } from './canSearch';

/** Messages of SAE J1939-73 that are asked for: active codes and those that were. */
const ASKED = [0xfeca, 0xfecb];
/** A request to all (SAE J1939-21), from the address of a service tool. */
const REQUEST_TO_ALL = 0x18eafff9;
const BETWEEN_MS = 300;
/** Active codes are told once a second (SAE J1939-73). */
const EVERY_MS = 1000;

const delay = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** A long message that broke on the way. */
export interface BrokenBroadcast {
	id: string;
	reason: string;
}

/**
 * Hears what the modules of a heavy vehicle tell everybody of their codes (DM1, DM2). A long message that breaks is told
 * as broken, never put together from what is left of it.
 */
export class HeavyListener {
	readonly broken: BrokenBroadcast[] = [];
	private readonly codes = new CodeBroadcasts((_atS, id, reason) => this.broken.push({ id, reason }));
	readonly stop: () => void;

	constructor(private readonly bus: Bus) {
		this.stop = bus.listen(({ id, extended, data }) => {
			if (!extended) return;
			const timeS = performance.now() / 1000;
			this.codes.expire(timeS);
			this.codes.frame({ timeS, channel: 0, id, extended, remote: false, data, length: data.length }, timeS);
		});
	}

	/** Asks everybody, and gives them the time to answer. */
	async ask(): Promise<void> {
		for (const pgn of ASKED) {
			this.bus.send(REQUEST_TO_ALL, true, Uint8Array.of(pgn & 0xff, pgn >> 8, 0));
			await delay(BETWEEN_MS);
		}
	}

	/** Waits until every module has told its active codes once more. */
	listenOn(): Promise<unknown> {
		return delay(EVERY_MS + BETWEEN_MS);
	}

	/** What was told until now. */
	get broadcasts(): Broadcast[] {
		this.codes.expire(performance.now() / 1000);
		return this.codes.list;
	}
}
