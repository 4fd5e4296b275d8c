import { SLCAN_SPEEDS } from '../core/can/slcan';
import { fail, ok, type Result } from '../core/result';

/** Where a vehicle is reached, and how. */
export interface LinkPlace {
	kind: 'doip' | 'can-tcp' | 'can-serial';
	/** `host:port`, or the path of a serial device. */
	at: string;
	/** Bits a second on the bus; of no account for a network. */
	bitrate: number;
}

const USUAL_BITRATE = 500_000;
const EXPECTED =
	'Write it as host:port, for example 192.168.4.1:13400; a CAN adapter as slcan://192.168.4.1:3333 or slcan:/dev/ttyACM0, with ?kbit=250 where the bus is not at 500.';

/**
 * `HOST:PORT` or `tcp://HOST:PORT` for diagnostics over a network, `slcan://HOST:PORT` for a CAN adapter on the network,
 * `slcan:/dev/NAME` for one at a serial device; `?kbit=250` says the speed of a bus that is not at 500.
 */
export function parseLinkAddress(text: string): Result<LinkPlace> {
	const match = /^(tcp:\/\/|slcan:\/\/|slcan:(?=\/dev\/))?([^?]+)(?:\?kbit=(\d{1,4}))?$/.exec(text.trim());
	if (!match) return fail(EXPECTED);
	const [, scheme = '', at = '', kbit] = match;
	const bitrate = kbit === undefined ? USUAL_BITRATE : Number(kbit) * 1000;
	const can = scheme.startsWith('slcan');
	if (kbit !== undefined && (!can || !SLCAN_SPEEDS.has(bitrate))) return fail(EXPECTED);
	if (scheme === 'slcan:')
		return /^\/dev\/[A-Za-z0-9_.-]+$/.test(at) ? ok({ kind: 'can-serial', at, bitrate }) : fail(EXPECTED);
	const [, port] = /^[A-Za-z0-9.-]+:(\d{1,5})$/.exec(at) ?? [];
	if (port === undefined) return fail(EXPECTED);
	if (Number(port) > 65_535 || Number(port) === 0) return fail('A port goes from 1 to 65535.');
	return ok({ kind: can ? 'can-tcp' : 'doip', at, bitrate });
}
