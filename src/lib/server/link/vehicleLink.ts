import type { Result } from '../../core/result';

/** What can go wrong between us and the vehicle, each with a sentence a technician can act on. */
export type LinkErrorKind =
	'refused' | 'closed' | 'garbage' | 'no-answer' | 'unreachable' | 'denied' | 'cancelled';

export interface LinkError {
	kind: LinkErrorKind;
	text: string;
}

/** Whether the line itself is gone, so that asking the next module is pointless. */
export const linkIsLost = (error: LinkError): boolean =>
	error.kind === 'refused' || error.kind === 'closed' || error.kind === 'garbage' || error.kind === 'denied';

/**
 * The narrow door to a vehicle: bytes to a module, bytes back. Knows nothing of codes, cases or the simulated vehicle;
 * another kind of interface is another implementation of this.
 */
export interface VehicleLink {
	/**
	 * Sends one request to one module and waits for its final answer (positive or negative; "still working" is waited
	 * through). One request at a time.
	 */
	request(address: number, bytes: ArrayLike<number>): Promise<Result<Uint8Array, LinkError>>;
	close(): void;
}
