import { wheelReaderOf } from '../measurePoints';
import { codeNumber, suffixOf, type CodeId } from '../../src/lib/core/codes/codeId';
import { accusationIn } from '../accusations';
import { wheelCircuitOf } from '../codePack';
import { titleSource, type CodeBook } from '../codes';
import { failureType, failureTypeLike } from '../failureTypes';
import type { VehicleType } from '../vehicles';
import { airOf } from './ruledSigns';
import { signKey, type Seen, type SignKey } from './signs';

/** What a reading of all modules brought, as far as it is judged. */
export interface ScannedForSigns {
	/** Module role in the vehicle's network. */
	role: string;
	answered: boolean;
	/** Codes that tell of a fault. */
	codes: readonly CodeForSigns[];
}

/** One code as it was read, with what the module keeps of the moment it was set. */
export interface CodeForSigns {
	dtc: CodeId;
	/** Status byte (ISO 14229-1, annex D.2) of a reading with the key on and the vehicle standing; null = not told. */
	status: number | null;
	/** Whether a whole cycle has gone by in which its test passed, since it last failed. */
	passedSince: boolean;
	/** Of the first snapshot; null = not kept. */
	setAtKmh: number | null;
	setAtVolts: number | null;
	/** Outside temperature. */
	setAtC: number | null;
}

/** Slower than this a vehicle stands, by what its modules say. */
const STANDING_KMH = 3;
/** Slower than this it crawls: a sensor without a supply of its own says nothing yet. */
const CRAWLING_KMH = 15;
/** Below this a 12 V supply was not sound when the code was set. */
const LOW_VOLTS = 10.5;
const TEST_FAILED = 0x01;
const NOT_RUN_THIS_CYCLE = 0x40;

/** What status and counters say of the present: one code that fails now is a fault that is there now. */
function nowOf(codes: readonly CodeForSigns[]): string | null {
	const known = codes.flatMap(({ status, passedSince }) =>
		status === null ? [] : [{ status, passedSince }]
	);
	if (known.length === 0) return null;
	if (known.some(({ status }) => (status & TEST_FAILED) !== 0)) return 'failing';
	// Not tested since the key was turned, it is as it was left: failed, or passed.
	return known.every(({ status, passedSince }) => (status & NOT_RUN_THIS_CYCLE) !== 0 && !passedSince)
		? 'not-run'
		: 'passes';
}

/** At what speed the first of them was set. */
function setAtOf(codes: readonly CodeForSigns[]): string | null {
	const speeds = codes.flatMap(({ setAtKmh }) => (setAtKmh === null ? [] : [setAtKmh]));
	if (speeds.length === 0) return null;
	const slowest = Math.min(...speeds);
	return slowest < STANDING_KMH ? 'standing' : slowest < CRAWLING_KMH ? 'crawling' : 'driving';
}

/** Kinds of failure of a wheel's circuit, the one that tells most first. By failure type byte (SAE J2012-DA). */
const WHEEL_KINDS: readonly [outcome: string, failureTypes: readonly string[]][] = [
	// Short to ground, or open with the same look (14); too little voltage or resistance, too much current.
	['to-ground', ['11', '14', '16', '19', '1A']],
	// Short to supply, or open with the same look (15); too much voltage.
	['to-supply', ['12', '15', '17']],
	// Too little current, too much resistance.
	['open', ['13', '18', '1B']],
	['no-signal', ['31', '23', '24']],
	['erratic', ['2F', '29', '38', '1F', '26', '27', '28', '35', '36', '37']]
];
/** A module that misses so many is deaf itself. */
const DEAF_FROM = 3;
const REPEATS = new Set(['82', '83', '84']);

/** The signs of a scan: what stands at each wheel and module, who is silent, whom the others miss. */
export function codeSigns(scan: readonly ScannedForSigns[], type: VehicleType, book: CodeBook): Seen {
	const seen: Seen = {};
	const wheel = new Map<string, Set<string>>();
	const wheelCodes = new Map<string, CodeForSigns[]>();
	const accusers = new Map<string, { missing: Set<string>; invalid: boolean; repeats: boolean }>();
	const missedBy = new Map<string, Set<string>>();
	const down = segmentsDown(scan, type);
	for (const [representative, isDown] of down.signs)
		seen[signKey('down', representative)] = isDown ? 'yes' : 'no';
	for (const { role, answered, codes } of scan) {
		// A whole segment that is silent is one thing seen, and not one for each of its modules.
		const hushed = down.roles.has(role);
		seen[signKey('hushed', role)] = hushed ? 'yes' : 'no';
		if (!hushed) seen[signKey('silent', role)] = answered ? 'answers' : 'silent';
		if (!answered) continue;
		const own: string[] = [];
		const ownCodes: CodeForSigns[] = [];
		for (const one of codes) {
			const { dtc } = one;
			const code = codeNumber(dtc);
			const source = titleSource(book, { code, failureType: suffixOf(dtc), maker: type.maker });
			const suffix = failureTypeLike(dtc, source);
			const corner = wheelCircuitOf(source);
			const accused = accusationIn(code, source);
			if (source && corner) {
				wheelCodes.set(corner, [...(wheelCodes.get(corner) ?? []), one]);
				const kinds = wheel.get(corner) ?? new Set();
				const ring = source.group === 'tone-ring';
				kinds.add(ring ? 'ring' : (WHEEL_KINDS.find(([, types]) => types.includes(suffix))?.[0] ?? 'other'));
				wheel.set(corner, kinds);
			} else if (accused) {
				const { sender, says } = accused;
				const about = accusers.get(sender) ?? { missing: new Set(), invalid: false, repeats: false };
				if (REPEATS.has(suffix)) about.repeats = true;
				else if (says === 'missing') about.missing.add(role);
				else about.invalid = true;
				if (about.missing.has(role)) {
					const missed = missedBy.get(role) ?? new Set();
					missedBy.set(role, missed.add(sender));
				}
				accusers.set(sender, about);
			} else {
				own.push(
					ownOutcome(source?.component ?? source?.group ?? null, suffix, role === wheelReaderOf(type)?.role)
				);
				ownCodes.push(one);
			}
		}
		seen[signKey('own-code', role)] = own.sort()[0] ?? 'none';
		note(seen, signKey('own-now', role), nowOf(ownCodes));
		const volts = ownCodes.flatMap(({ setAtVolts }) => (setAtVolts === null ? [] : [setAtVolts]));
		if (volts.length > 0)
			seen[signKey('own-set-volts', role)] = Math.min(...volts) < LOW_VOLTS ? 'low' : 'in';
	}
	const deaf = new Set([...missedBy].filter(([, missed]) => missed.size >= DEAF_FROM).map(([role]) => role));
	for (const { role, answered } of scan) {
		if (answered) seen[signKey('deaf', role)] = deaf.has(role) ? 'yes' : 'no';
		if (down.roles.has(role)) continue;
		const about = accusers.get(role);
		const by = [...(about?.missing ?? [])].filter((accuser) => !deaf.has(accuser));
		seen[signKey('accused', role)] =
			by.length > 1
				? 'missing-many'
				: by.length === 1
					? 'missing-one'
					: about?.repeats
						? 'repeats'
						: about?.invalid
							? 'invalid'
							: 'none';
	}
	for (const { position } of type.wheels) {
		const kinds = wheel.get(position);
		const told = ['ring', ...WHEEL_KINDS.map(([kind]) => kind), 'other'].find((kind) => kinds?.has(kind));
		// Nobody can say that a wheel has no code while its reader is silent.
		const reads = scan.some(({ role, answered }) => answered && wheelReaderOf(type)?.role === role);
		if (reads) seen[signKey('wheel-code', position)] = told ?? 'none';
		const own = wheelCodes.get(position) ?? [];
		note(seen, signKey('wheel-now', position), nowOf(own));
		note(seen, signKey('wheel-set-at', position), setAtOf(own));
		const air = own.flatMap(({ setAtC }) => (setAtC === null ? [] : [setAtC]));
		if (air[0] !== undefined) seen[signKey('wheel-set-air', position)] = airOf(air[0]);
	}
	return seen;
}

const OF_MODULE = 'module';
/** A module tells of a failure inside itself. */
export const INTERNAL = `${OF_MODULE}-04`;
const NOT_CONFIGURED = `${OF_MODULE}-55`;

/**
 * A code that is of no wheel and of no other module, by what it is about and its failure type. A failure inside, whichever byte
 * of the standard names it (04, 41 to 49), is one thing. What is not configured is described of the module that reads the wheels
 * alone: told by another it stays something that is not described.
 */
function ownOutcome(about: string | null, suffix: string, readsWheels: boolean): string {
	const { class: kind } = failureType(suffix);
	const ofModule = about === null || about === OF_MODULE;
	if (kind === 'internal' && ofModule) return INTERNAL;
	if (kind === 'configuration' && about === null && readsWheels) return NOT_CONFIGURED;
	return `${about ?? 'unknown'}-${suffix}`;
}

/** What was not told is not seen. */
function note(seen: Seen, key: SignKey, outcome: string | null): void {
	if (outcome !== null) seen[key] = outcome;
}

/** Fewer modules than this are no segment that can be told from single silences. */
const SEGMENT_FROM = 3;

/** Segments on which nobody but the gateway could answer and nobody does; a segment's first module stands for it. */
function segmentsDown(
	scan: readonly ScannedForSigns[],
	type: VehicleType
): { signs: Map<string, boolean>; roles: Set<string> } {
	const answered = new Map(scan.map((one) => [one.role, one.answered]));
	const signs = new Map<string, boolean>();
	const roles = new Set<string>();
	for (const { name } of type.harness.segments) {
		const on = type.modules
			.map(({ role, segment }) => ({ role: role as string, segment }))
			.filter(({ role, segment }) => segment === name && role !== 'gateway' && answered.has(role));
		const [first] = on;
		if (!first || on.length < SEGMENT_FROM) continue;
		const isDown = on.every(({ role }) => answered.get(role) === false);
		signs.set(first.role, isDown);
		if (isDown) for (const { role } of on) roles.add(role);
	}
	return { signs, roles };
}

/** Whether a sign says that the module it is about does not answer, alone or with its segment. */
export const isSilent = (sign: string, outcome: string): boolean =>
	(sign === 'silent' && outcome === 'silent') || (sign === 'hushed' && outcome === 'yes');
