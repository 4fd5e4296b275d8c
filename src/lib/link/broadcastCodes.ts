import { codeId, type CodeId } from '../core/codes/codeId';
import { encodeStatus, decodeStatus } from '../core/codes/status';
import type { Broadcast } from '../core/bus/codeBroadcasts';
import { parsePair } from '../core/bus/diagnosticPair';
import type { ScannedCode, ScannedModule } from '../case/entries/network-scan/payload';
import type { VehicleType } from '../../../library';

/** Codes that the modules of a heavy vehicle tell everybody (SAE J1939-73), as part of a reading. */

const none = decodeStatus(0);
const bits = (status: Partial<typeof none>): number => encodeStatus({ ...none, ...status });
/** What a message says of the codes in it: DM1 active, DM2 previously active, DM6 not yet sure. */
const STATUS: Readonly<Record<number, number>> = {
	65226: bits({ testFailed: true, confirmed: true }),
	65227: bits({ confirmed: true }),
	65231: bits({ pending: true })
};
/** Of such a code no more is known than what those messages say. */
const KNOWN = bits({ testFailed: true, confirmed: true, pending: true });

/** The sender's address of 29 bits at which a module of the description speaks; null where it is none. */
function sourceOf({ address, can }: VehicleType['modules'][number]): string | null {
	const pair = can === undefined ? null : parsePair(can);
	if (pair?.ok) return pair.value.extended ? byteText(pair.value.response & 0xff) : null;
	return address.startsWith('00') ? address.slice(2) : null;
}
const byteText = (byte: number) => byte.toString(16).toUpperCase().padStart(2, '0');

/**
 * A reading with the codes that were told to all: at the module that told them, or at one of its own where no module of the
 * description speaks under that address. Who tells its codes is there, whatever it answers to a request.
 */
export function withBroadcasts(
	read: readonly ScannedModule[],
	broadcasts: readonly Broadcast[],
	{ modules: described }: Pick<VehicleType, 'modules'>
): ScannedModule[] {
	const modules = read.map((module) => ({ ...module, codes: [...module.codes] }));
	for (const { source, pgn, codes } of broadcasts) {
		const status = STATUS[pgn];
		if (status === undefined) continue;
		const own = described.find((module) => sourceOf(module) === source);
		const address = own?.address ?? `00${source}`;
		const known = modules.find((module) => module.address === address);
		const module = known ?? senderAt(address, source);
		if (!known) modules.push(module);
		if (!module.answered) {
			module.answered = true;
			module.availabilityMask = KNOWN;
			module.trouble = 'It answers no request; its codes are those that it tells everybody.';
		}
		const byId = new Map<CodeId, ScannedCode>(module.codes.map((code) => [code.dtc, code]));
		for (const code of codes) {
			const id = codeId({ kind: 'j1939', ...code });
			const before = byId.get(id);
			if (before) before.status |= status;
			else
				byId.set(id, {
					dtc: id,
					status,
					snapshots: [],
					occurrences: code.occurrences,
					ageingCycles: null,
					troubles: []
				});
		}
		module.codes = [...byId.values()];
	}
	return modules;
}

const senderAt = (address: string, source: string): ScannedModule => ({
	address,
	name: `Sender ${source}`,
	answered: true,
	trouble: null,
	software: null,
	availabilityMask: KNOWN,
	codes: [],
	supported: [],
	exchanges: []
});
