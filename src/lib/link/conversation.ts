import { identifiers } from '../../../library';
import type { ScannedModule } from '../case/entries/network-scan/payload';
import { hex } from '../core/bytes';
import { fail, ok, type Result } from '../core/result';
import { decodeIdentifier } from '../core/uds/identifierValue';
import { NEGATIVE, negativeResponseText } from '../core/uds/negativeResponse';
import { linkIsLost, type VehicleLink } from './vehicleLink';

/** Asking a module for something: its positive answer, or why there is none. */
export interface AskTrouble {
	text: string;
	/** The line itself is gone. */
	lost: boolean;
	/** It said nothing, as against refusing. */
	silent: boolean;
}
type Asked = Result<Uint8Array, AskTrouble>;

const bytesOfId = (id: string): [number, number] => [parseInt(id.slice(0, 2), 16), parseInt(id.slice(2), 16)];

/** One module that is asked this and that: keeps every exchange as it went over the line. */
export class Conversation {
	readonly exchanges: ScannedModule['exchanges'] = [];

	constructor(
		private readonly link: VehicleLink,
		private readonly address: number,
		private readonly cancelled: () => boolean
	) {}

	/** A module that is merely slow or busy answers the second time: silence is a finding, so it is asked for twice. */
	async ask(request: number[]): Promise<Asked> {
		const first = await this.once(request);
		const again = !first.ok && first.error.silent && !first.error.lost && !this.cancelled();
		return again ? this.once(request) : first;
	}

	private async once(request: number[]): Promise<Asked> {
		const answer = await this.link.request(this.address, request);
		const sent = hex(Uint8Array.from(request));
		if (!answer.ok) {
			this.exchanges.push({ request: sent, response: null, note: answer.error.text });
			return fail({ text: answer.error.text, lost: linkIsLost(answer.error), silent: true });
		}
		const bytes = answer.value;
		if (bytes[0] === NEGATIVE) {
			const text = negativeResponseText(bytes[2] ?? 0);
			this.exchanges.push({ request: sent, response: hex(bytes), note: text });
			return fail({ text: `It ${text}.`, lost: false, silent: false });
		}
		this.exchanges.push({ request: sent, response: hex(bytes), note: null });
		return ok(bytes);
	}

	/** One identifier's value as text or number; null where what it tells cannot be made sense of. */
	async identifier(id: string): Promise<Result<string | number | null, AskTrouble>> {
		const rule = identifiers.get(id);
		const answer = await this.ask([0x22, ...bytesOfId(id)]);
		if (!answer.ok) return answer;
		const value = rule && decodeIdentifier(rule, hex(answer.value.slice(3)));
		if (value?.kind === 'text') return ok(value.text);
		return ok(value?.kind === 'number' ? value.value : null);
	}
}
