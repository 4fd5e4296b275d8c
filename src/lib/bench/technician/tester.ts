import { hexToBytes } from '@noble/hashes/utils.js';
import { identifiers } from '../../../../library';
import { codeForSigns } from '../../../../library/reason/codeMoment';
import type { CodeForSigns } from '../../../../library/reason/codeSigns';
import { tellsOfFault } from '../../core/codes/status';
import { decodeIdentifier } from '../../core/uds/identifierValue';
import { parseCodeList, parseSnapshots } from '../../core/uds/readCodes';
import type { BenchVehicle } from '../vehicle';

/** What a person reads and does with a tester on the vehicle's plug: by the services, never past them. */
export class Tester {
	constructor(private readonly vehicle: BenchVehicle) {}

	private ask(role: string, request: string): Uint8Array | null {
		const module = this.vehicle.world.type.modules.find((one) => one.role === role);
		const answers = module && this.vehicle.request(parseInt(module.address, 16), hexToBytes(request));
		const bytes = answers?.at(-1)?.bytes;
		return bytes ? Uint8Array.from(bytes) : null;
	}

	answers(role: string): boolean {
		const module = this.vehicle.world.type.modules.find((one) => one.role === role);
		return module !== undefined && this.vehicle.reachable(parseInt(module.address, 16));
	}

	/** Codes that tell of a fault. */
	codes(role: string): string[] {
		return this.list(role).map(({ dtc }) => dtc);
	}

	/** The same with their status and what the module keeps of the moment they were set. */
	codesInFull(role: string): CodeForSigns[] {
		return this.list(role).map(({ dtc, status, mask }) => {
			const answer = this.ask(role, `1904${dtc}FF`);
			const parsed = answer && parseSnapshots(answer, (id) => identifiers.get(id)?.bytes ?? null);
			const snapshots = parsed?.ok ? parsed.value : [];
			return codeForSigns({ dtc, status, ageingCycles: null, snapshots }, mask);
		});
	}

	private list(role: string): { dtc: string; status: number; mask: number }[] {
		const list = this.ask(role, '1902FF');
		const parsed = list && parseCodeList(list);
		if (!parsed?.ok) return [];
		const { codes, availabilityMask: mask } = parsed.value;
		return codes.filter(({ status }) => tellsOfFault(status)).map((one) => ({ ...one, mask }));
	}

	/** Codes that fail at this moment. */
	failing(role: string): string[] {
		const list = this.ask(role, '190201');
		const parsed = list && parseCodeList(list);
		return parsed?.ok ? parsed.value.codes.map(({ dtc }) => dtc) : [];
	}

	/** A number; null = not available or not told. */
	value(role: string, id: string): number | null {
		const rule = identifiers.get(id);
		const raw = rule && this.raw(role, id);
		const decoded = raw ? decodeIdentifier(rule, raw) : null;
		return decoded?.kind === 'number' ? decoded.value : null;
	}

	text(role: string, id: string): string | null {
		const rule = identifiers.get(id);
		const raw = rule && this.raw(role, id);
		const decoded = raw ? decodeIdentifier(rule, raw) : null;
		return decoded?.kind === 'text' ? decoded.text : null;
	}

	private raw(role: string, id: string): string | null {
		const answer = this.ask(role, `22${id}`);
		if (!answer || answer[0] !== 0x62) return null;
		return [...answer.slice(3)].map((byte) => byte.toString(16).toUpperCase().padStart(2, '0')).join('');
	}

	clearAll(): void {
		for (const { role } of this.vehicle.world.type.modules) this.ask(role, '14FFFFFF');
	}
}
