import { setTimeout as pause } from 'node:timers/promises';
import { identifiers } from '../../../../../library';
import { hex } from '../../../core/bytes';
import { decodeIdentifier } from '../../../core/uds/identifierValue';
import { NEGATIVE, negativeResponseText } from '../../../core/uds/negativeResponse';
import { securityKey } from '../../../core/uds/securityKey';
import { linkIsLost, type VehicleLink } from '../../../link/vehicleLink';

/** Negative response code: busy, repeat the request (ISO 14229-1). */
const BUSY = 0x21;
const BUSY_TRIES = 10;
const BUSY_MS = 200;
const ROUTINE_OFFSET = { start: 0x01, stop: 0x02, result: 0x03 } as const;

export const numberBytes = (id: string): [number, number] => [
	parseInt(id.slice(0, 2), 16),
	parseInt(id.slice(2), 16)
];

/** A module refused, or the line broke: in words. */
export class Trouble extends Error {
	constructor(
		message: string,
		readonly lost: boolean
	) {
		super(message);
	}
}

/** One module while it is calibrated. */
export class ModuleTalk {
	constructor(
		private readonly link: VehicleLink,
		private readonly address: number
	) {}

	/** The module's answer. One that is busy is asked again for a while. */
	async ask(request: number[]): Promise<Uint8Array> {
		for (let left = BUSY_TRIES; ; left--) {
			const answer = await this.link.request(this.address, request);
			if (!answer.ok) throw new Trouble(answer.error.text, linkIsLost(answer.error));
			if (answer.value[0] !== NEGATIVE) return answer.value;
			const nrc = answer.value[2] ?? 0;
			if (nrc !== BUSY || left === 0)
				throw new Trouble(`The module refused: ${negativeResponseText(nrc)}.`, false);
			await pause(BUSY_MS);
		}
	}

	/** A value in its unit; null where the module has none. */
	async read(id: string): Promise<number | string | null> {
		const rule = identifiers.get(id);
		const answer = await this.ask([0x22, ...numberBytes(id)]);
		const value = rule && decodeIdentifier(rule, hex(answer.slice(3)));
		if (value?.kind === 'number')
			return Number(value.value.toFixed(rule && rule.as !== 'text' ? rule.decimals : 0));
		return value?.kind === 'text' && value.text !== '' ? value.text : null;
	}

	async unlock(): Promise<void> {
		const seed = await this.ask([0x27, 0x01]);
		const given = ((seed[2] ?? 0) << 8) | (seed[3] ?? 0);
		if (given === 0) return;
		const key = securityKey(given);
		await this.ask([0x27, 0x02, key >> 8, key & 0xff]);
	}

	routine(part: keyof typeof ROUTINE_OFFSET, routine: string): Promise<Uint8Array> {
		return this.ask([0x31, ROUTINE_OFFSET[part], ...numberBytes(routine)]);
	}
}
