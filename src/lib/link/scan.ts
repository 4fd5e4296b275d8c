import type { NetworkScan, ScannedCode, ScannedModule } from '../case/entries/network-scan/payload';
import { parseCodeList, parseExtended, parseSnapshots, ReadCodes } from '../core/uds/readCodes';
import { dtcBytes } from '../core/codes/dtc';
import { tellsOfFault } from '../core/codes/status';
import { fail } from '../core/result';
import { identifiers, type VehicleType } from '../../../library';
import { modulesToAsk } from '../../../library/vehicle/linkRoutes';
import { withBroadcasts } from './broadcastCodes';
import { Conversation } from './conversation';
import type { VehicleLink } from './vehicleLink';

const lengthOf = (id: string): number | null => identifiers.get(id)?.bytes ?? null;
const TESTER_PRESENT = [0x3e, 0x00];

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
	const talk = new Conversation(link, parseInt(address, 16), cancelled);
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
	module.software = software.ok && software.value !== null ? String(software.value) : null;

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
async function readDetails(talk: Conversation, code: ScannedCode): Promise<string | null> {
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

/** More no vehicle has driven. */
const MOST_KM = 5_000_000;
const CANCELLED = 'It was cancelled.';

/** A scan that has not begun: partial until something completes it. */
const emptyScan = (asked: number): NetworkScan => ({
	outcome: 'partial',
	stoppedBecause: 'It was cut short.',
	vin: null,
	keyCycles: null,
	modulesExpected: asked,
	modules: []
});

/** Scans every module of a vehicle in turn. Never throws for what the vehicle does: the scan says what it got. */
export async function scanVehicle(
	link: VehicleLink,
	type: VehicleType,
	watcher: ScanWatcher
): Promise<NetworkScan> {
	const asked = modulesToAsk(type, link.over);
	const scan = emptyScan(asked.length);
	for (const { address, name } of asked) {
		if (watcher.cancelled()) return { ...scan, stoppedBecause: CANCELLED };
		watcher.begins(name);
		const { module, lost } = await readModule(link, address, name, watcher.cancelled);
		scan.modules.push(module);
		if (address === type.gateway && module.answered)
			Object.assign(scan, await readIdentity(link, address), await readOdometer(link, address));
		await watcher.sofar(scan);
		if (lost) return { ...scan, stoppedBecause: lost };
	}
	if (watcher.cancelled()) return { ...scan, stoppedBecause: CANCELLED };
	if (link.broadcasts && isHeavy(type)) {
		watcher.begins('what is told to all');
		const { broadcasts, broken } = await link.broadcasts();
		scan.modules = withBroadcasts(scan.modules, broadcasts, type);
		const [first] = broken;
		if (first)
			return {
				...scan,
				stoppedBecause: `A message told to all broke on the way (${first.id}): ${first.reason}.`
			};
		// Whoever tells its codes is awake, whatever it answers to requests.
		if (broadcasts.length > 0) return { ...scan, outcome: 'complete', stoppedBecause: null };
	}
	const asleep = await whyAsleep(link, type, scan);
	return { ...scan, outcome: asleep ? 'partial' : 'complete', stoppedBecause: asleep };
}

/** A supply of 24 V is a heavy vehicle’s. */
const isHeavy = ({ volts }: VehicleType): boolean => volts === HEAVY_VOLTS;
const HEAVY_VOLTS = 24;

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

/** What the vehicle itself counts, from the gateway; nothing where it does not say. */
async function readOdometer(link: VehicleLink, gateway: string): Promise<{ odometerKm?: number }> {
	const told = await new Conversation(link, parseInt(gateway, 16), () => false).identifier('F4A6');
	return told.ok && typeof told.value === 'number' && told.value >= 0 && told.value <= MOST_KM
		? { odometerKm: told.value }
		: {};
}

/** The vehicle's number and how often its key was turned, from the gateway. */
export async function readIdentity(
	link: VehicleLink,
	gateway: string
): Promise<{ vin: string | null; keyCycles: number | null }> {
	const talk = new Conversation(link, parseInt(gateway, 16), () => false);
	const vin = await talk.identifier('F190');
	const keyCycles = await talk.identifier('D0A0');
	return {
		vin: vin.ok && typeof vin.value === 'string' && vin.value !== '' ? vin.value : null,
		keyCycles: keyCycles.ok && typeof keyCycles.value === 'number' ? keyCycles.value : null
	};
}
