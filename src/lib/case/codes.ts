import { identifiers, vehicleTypes, type Position, type VehicleType } from '../../../library';
import { shippedBook, titleSource, type CodeBook } from '../../../library/codes';
import { failureType } from '../../../library/failureTypes';
import { codeText, codeWithSuffix, failureTypeByte } from '../core/codes/dtc';
import { tellsOfFault } from '../core/codes/status';
import { proveCode, type CodeEvent, type CodeProof } from '../core/prove/codeVerdict';
import { decodeIdentifier } from '../core/uds/identifierValue';
import type { Entry, ScannedCode, ScannedModule } from './entry';
import { circuitOpenedBy } from './benchTests';
import { expectedAfter, restoresCode } from './calibrations';
import { latest, standing } from './thread';

/** One code in one module over the whole case, with how far it is proven. */
export interface CaseCode {
	dtc: string;
	/** `C0045-13`. */
	text: string;
	title: string | null;
	failureType: string;
	corner: Position | null;
	address: string;
	moduleName: string;
	/** As read last. */
	status: number;
	proof: CodeProof;
	/** The test of ours that set it, by its entry; null where it was there by itself. */
	madeByUs: string | null;
	/** The repair after which it is expected until the module is told or taught; null where it is not. */
	expected: string | null;
}

/** Plain words for a code; the title is null where no source describes it for this maker. */
export function describeCode(
	dtc: string,
	book: CodeBook = shippedBook,
	maker: string | null = null
): Pick<CaseCode, 'text' | 'title' | 'failureType' | 'corner'> {
	const suffix = failureTypeByte(dtc);
	const source = titleSource(book, { code: codeText(dtc), failureType: suffix, maker });
	return {
		text: codeWithSuffix(dtc),
		title: source?.title ?? null,
		failureType: failureType(suffix).text,
		corner: source?.corner ?? null
	};
}

/** The vehicle of this case by the library, null where its type is not described. */
export function typeOf(thread: readonly Entry[]): VehicleType | null {
	const opened = latest(thread, 'case-opened');
	return (opened && vehicleTypes.get(opened.payload.typeId)) ?? null;
}

/** Who made the vehicle of this case, where the library knows its type. */
export const makerOf = (thread: Entry[]): string | null => typeOf(thread)?.maker ?? null;

/** Every code that is named anywhere on a thread, written without its suffix. */
export function codesOn(thread: Entry[]): Set<string> {
	const found = new Set<string>();
	for (const entry of thread) {
		if (entry.kind === 'network-scan')
			for (const { codes } of entry.payload.modules) for (const { dtc } of codes) found.add(codeText(dtc));
		if (entry.kind === 'frame-log')
			for (const { codes } of entry.payload.modules) for (const { code } of codes) found.add(code);
		if (entry.kind === 'codes-reported')
			for (const { codes } of entry.payload.modules)
				for (const { code } of codes) if (code.kind === 'dtc') found.add(code.code);
	}
	return found;
}

const VEHICLE_SPEED_ID = 'F40D';

/** Vehicle speed in the latest snapshot of a code, in km/h. */
export function snapshotSpeedKmh(code: ScannedCode): number | null {
	const rule = identifiers.get(VEHICLE_SPEED_ID);
	const raw = code.snapshots.at(-1)?.values.find((value) => value.id === VEHICLE_SPEED_ID)?.raw;
	if (!rule || raw === undefined) return null;
	const value = decodeIdentifier(rule, raw);
	return value.kind === 'number' ? value.value : null;
}

/** Status of a code by this reading of its module: null = not listed. */
function statusIn(module: ScannedModule, dtc: string): number | null {
	return (
		module.codes.find((code) => code.dtc === dtc)?.status ??
		module.supported.find((code) => code.dtc === dtc)?.status ??
		null
	);
}

/** What happened to one code of one module, in order, for the proof. */
function storyOf(
	entries: Entry[],
	address: string,
	dtc: string,
	madeByUs: { atScan: number } | null
): CodeEvent[] {
	const story = entries.flatMap((entry, at): CodeEvent[] => {
		switch (entry.kind) {
			case 'network-scan': {
				const module = entry.payload.modules.find((m) => m.address === address && m.answered);
				if (!module) return [];
				const code = module.codes.find((c) => c.dtc === dtc);
				return [
					{
						at,
						kind: 'read',
						status: statusIn(module, dtc),
						availabilityMask: module.availabilityMask,
						snapshotKmh: code ? snapshotSpeedKmh(code) : null
					}
				];
			}
			case 'repair':
				return [{ at, kind: 'mended' }];
			case 'calibration':
				return restoresCode(entry, address, dtc) ? [{ at, kind: 'mended' }] : [];
			case 'codes-cleared':
				return entry.payload.modules.some((m) => m.address === address && m.outcome === 'cleared')
					? [{ at, kind: 'cleared' }]
					: [];
			case 'key-cycled':
				return [{ at, kind: 'key-cycled' }];
			case 'proving-drive':
				return [{ at, kind: 'driven' }];
			default:
				return [];
		}
	});
	// What our own test set needs no repair: the test is over.
	return madeByUs ? [...story, { at: madeByUs.atScan + 0.5, kind: 'mended' }] : story;
}

/** Every code that ever told of a fault on this case, in the order in which it was first seen. */
export function caseCodes(thread: Entry[], book: CodeBook = shippedBook): CaseCode[] {
	const entries = standing(thread);
	const maker = makerOf(entries);
	const found = new Map<string, CaseCode>();
	const opened = new Map<Position, string>();
	let scansBefore = 0;
	for (const [atScan, entry] of entries.entries()) {
		const circuit = circuitOpenedBy(entry);
		if (circuit) opened.set(circuit, entry.id);
		if (entry.kind !== 'network-scan') continue;
		for (const module of entry.payload.modules) {
			for (const code of module.codes.filter((c) => tellsOfFault(c.status))) {
				const key = `${module.address}/${code.dtc}`;
				const known = found.get(key);
				const words = describeCode(code.dtc, book, maker);
				// New since a reading before, in a circuit that we have opened since.
				const test = !known && scansBefore > 0 && words.corner ? (opened.get(words.corner) ?? null) : null;
				found.set(key, {
					...words,
					dtc: code.dtc,
					address: module.address,
					moduleName: module.name,
					status: code.status,
					madeByUs: known ? known.madeByUs : test,
					expected: known
						? known.expected
						: expectedAfter(entries.slice(0, atScan), module.address, code.dtc),
					proof:
						known?.proof ?? proveCode(storyOf(entries, module.address, code.dtc, test ? { atScan } : null))
				});
			}
		}
		if (entry.payload.outcome === 'complete') {
			scansBefore += 1;
			opened.clear();
		}
	}
	return [...found.values()];
}
