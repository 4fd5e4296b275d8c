import type { NetworkScan, ScannedCode, ScannedModule } from '../case/entries/network-scan/payload';
import { decodeIdentifier } from '../core/uds/identifierValue';
import { NEGATIVE, negativeResponseText } from '../core/uds/negativeResponse';
import { hex } from '../core/bytes';
import { parseCodeList, parseExtended, parseSnapshots, ReadCodes } from '../core/uds/readCodes';
import { dtcBytes } from '../core/codes/dtc';
import { tellsOfFault } from '../core/codes/status';
import { fail, ok, type Result } from '../core/result';
import { identifiers, type VehicleType } from '../../../library';
import { linkIsLost, type VehicleLink } from './vehicleLink';

/** Asking a module for something: its positive answer, or why there is none. `lost` = the line itself is gone. */
type Asked = Result<Uint8Array, { text: string; lost: boolean; silent: boolean }>;

const lengthOf = (id: string): number | null => identifiers.get(id)?.bytes ?? null;
const bytesOfId = (id: string): [number, number] => [parseInt(id.slice(0, 2), 16), parseInt(id.slice(2), 16)];

const TESTER_PRESENT = [0x3e, 0x00];

/** One module's side of a scan: keeps every exchange as it went over the line. */
class ScanConversation {
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

	/** One identifier's value as text or number, null where the module does not tell it. */
	async identifier(id: string): Promise<string | number | null> {
		const rule = identifiers.get(id);
		const answer = await this.ask([0x22, ...bytesOfId(id)]);
		if (!rule || !answer.ok) return null;
		const value = decodeIdentifier(rule, hex(answer.value.slice(3)));
		if (value.kind === 'text') return value.text;
		return value.kind === 'number' ? value.value : null;
	}
}

interface ReadModule {
	module: ScannedModule;
	/** Set when the line broke while reading this module. */
	lost: string | null;
}

/** Reads everything one module has to say about its codes. Whatever fails is said in words; the rest is kept. */
export async function readModule(
	link: VehicleLink,
	address: string,
	name: string,
	cancelled: () => boolean
): Promise<ReadModule> {
	const talk = new ScanConversation(link, parseInt(address, 16), cancelled);
	const module: ScannedModule = {
		address,
		name,
		answered: false,
		trouble: null,
		software: null,
		availabilityMask: 0,
		codes: [],
		supported: [],
		exchanges: talk.exchanges
	};
	const present = await talk.ask(TESTER_PRESENT);
	if (!present.ok && present.error.silent) {
		module.trouble = present.error.text;
		return { module, lost: present.error.lost ? present.error.text : null };
	}
	module.answered = true;
	const software = await talk.identifier('F195');
	module.software = software === null ? null : String(software);

	const listed = await talk.ask([0x19, ReadCodes.byMask, 0xff]);
	const list = listed.ok ? parseCodeList(listed.value) : fail(listed.error.text);
	if (!list.ok) {
		module.trouble = `Its codes could not be read: ${list.error}`;
		return { module, lost: !listed.ok && listed.error.lost ? listed.error.text : null };
	}
	module.availabilityMask = list.value.availabilityMask;

	const supported = await talk.ask([0x19, ReadCodes.supported]);
	const all = supported.ok ? parseCodeList(supported.value) : null;
	module.supported = all?.ok ? all.value.codes : list.value.codes;

	for (const { dtc, status } of list.value.codes.filter((code) => tellsOfFault(code.status))) {
		const code: ScannedCode = {
			dtc,
			status,
			snapshots: [],
			occurrences: null,
			ageingCycles: null,
			troubles: []
		};
		module.codes.push(code);
		if (cancelled()) continue;
		const lost = await readDetails(talk, code);
		if (lost) return { module, lost };
	}
	return { module, lost: null };
}

/** Snapshot and extended data of one code. Returns why the line broke, if it did. */
async function readDetails(talk: ScanConversation, code: ScannedCode): Promise<string | null> {
	const snapshot = await talk.ask([0x19, ReadCodes.snapshot, ...dtcBytes(code.dtc), 0xff]);
	const snapshots = snapshot.ok ? parseSnapshots(snapshot.value, lengthOf) : fail(snapshot.error.text);
	if (snapshots.ok) code.snapshots = snapshots.value;
	else code.troubles.push(`Snapshot not read: ${snapshots.error}`);
	if (!snapshot.ok && snapshot.error.lost) return snapshot.error.text;

	const extended = await talk.ask([0x19, ReadCodes.extended, ...dtcBytes(code.dtc), 0xff]);
	const data = extended.ok ? parseExtended(extended.value) : fail(extended.error.text);
	if (data.ok) {
		code.occurrences = data.value.occurrences;
		code.ageingCycles = data.value.ageingCycles;
	} else code.troubles.push(`Counters not read: ${data.error}`);
	return !extended.ok && extended.error.lost ? extended.error.text : null;
}

export interface ScanWatcher {
	/** Called when a module's reading begins. */
	begins(name: string): void;
	/** Called after each module, with all that is known by now; what it returns is waited for. */
	sofar(scan: NetworkScan): Promise<void>;
	cancelled(): boolean;
}

const CANCELLED = 'It was cancelled.';

/** A scan that has not begun: partial until something completes it. */
const emptyScan = (type: VehicleType): NetworkScan => ({
	outcome: 'partial',
	stoppedBecause: 'It was cut short.',
	vin: null,
	keyCycles: null,
	modulesExpected: type.modules.length,
	modules: []
});

/** Scans every module of a vehicle in turn. Never throws for what the vehicle does: the scan says what it got. */
export async function scanVehicle(
	link: VehicleLink,
	type: VehicleType,
	watcher: ScanWatcher
): Promise<NetworkScan> {
	const scan = emptyScan(type);
	for (const { address, name } of type.modules) {
		if (watcher.cancelled()) return { ...scan, stoppedBecause: CANCELLED };
		watcher.begins(name);
		const { module, lost } = await readModule(link, address, name, watcher.cancelled);
		scan.modules.push(module);
		if (address === type.gateway && module.answered) Object.assign(scan, await readIdentity(link, address));
		await watcher.sofar(scan);
		if (lost) return { ...scan, stoppedBecause: lost };
	}
	if (watcher.cancelled()) return { ...scan, stoppedBecause: CANCELLED };
	const asleep = await whyAsleep(link, type, scan);
	return { ...scan, outcome: asleep ? 'partial' : 'complete', stoppedBecause: asleep };
}

/**
 * Tells silent modules from a vehicle that was switched off: asks one that answered before whether it still does. Null
 * where the silence is the modules' own and so a finding.
 */
async function whyAsleep(link: VehicleLink, type: VehicleType, scan: NetworkScan): Promise<string | null> {
	if (scan.modules.every((module) => module.answered)) return null;
	const awake = scan.modules.filter((module) => module.answered && module.address !== type.gateway);
	const witness = awake.at(-1);
	if (!witness) {
		return scan.modules.some((module) => module.answered)
			? 'Only the gateway answers: the key is off.'
			: 'No module answers: no power, or no network behind the interface.';
	}
	const still = await link.request(parseInt(witness.address, 16), TESTER_PRESENT);
	return still.ok ? null : 'The vehicle was switched off during the scan.';
}

/** The vehicle's number and how often its key was turned, from the gateway. */
export async function readIdentity(
	link: VehicleLink,
	gateway: string
): Promise<{ vin: string | null; keyCycles: number | null }> {
	const talk = new ScanConversation(link, parseInt(gateway, 16), () => false);
	const vin = await talk.identifier('F190');
	const keyCycles = await talk.identifier('D0A0');
	return {
		vin: typeof vin === 'string' && vin !== '' ? vin : null,
		keyCycles: typeof keyCycles === 'number' ? keyCycles : null
	};
}
