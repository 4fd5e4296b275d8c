import type { Over } from '../../../library/vehicle/linkRoutes';
import type { Broadcast } from '../core/bus/codeBroadcasts';
import type { Result } from '../core/result';

/** What can go wrong between us and the vehicle, each with a sentence a technician can act on. */
export type LinkErrorKind =
	'refused' | 'closed' | 'garbage' | 'no-answer' | 'unreachable' | 'denied' | 'cancelled';

export interface LinkError {
	kind: LinkErrorKind;
	text: string;
}

export const trouble = (kind: LinkErrorKind, text: string): LinkError => ({ kind, text });

/** How long to wait, in milliseconds. */
export interface LinkTimes {
	connectMs: number;
	/** Until a module's first answer. */
	answerMs: number;
	/** Until the next answer after "still working". */
	pendingMs: number;
}

export const LINK_TIMES: LinkTimes = { connectMs: 3000, answerMs: 1200, pendingMs: 5500 };

/** Whether the line itself is gone, so that asking the next module is pointless. */
export const linkIsLost = (error: LinkError): boolean =>
	error.kind === 'refused' || error.kind === 'closed' || error.kind === 'garbage' || error.kind === 'denied';

/** A module that a search came upon. */
export interface FoundModule {
	address: number;
	/** Where it is known to be there and says nothing: why. */
	silent: string | null;
}

/** What was told to everybody, and what of it broke on the way. */
export interface ToldToAll {
	broadcasts: Broadcast[];
	broken: { id: string; reason: string }[];
}

/**
 * The narrow door to a vehicle: bytes to a module, bytes back. Knows nothing of codes, cases or the simulated vehicle;
 * another kind of interface is another implementation of this.
 */
export interface VehicleLink {
	readonly over: Over;
	/**
	 * Sends one request to one module, by the address by which a case knows it, and waits for its final answer (positive or negative; "still working" is waited
	 * through). One request at a time.
	 */
	request(address: number, bytes: ArrayLike<number>): Promise<Result<Uint8Array, LinkError>>;
	/** Finds out who is there, politely: by asking whether somebody is present, and nothing else. */
	search(): Promise<Result<FoundModule[], LinkError>>;
	/** What the modules of a heavy vehicle tell everybody of their codes, where this link hears that. */
	broadcasts?(): Promise<ToldToAll>;
	close(): void;
}
