import type { VehicleType } from '../../../../library';
import type { CodeBook } from '../../../../library/codes';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { codeForSigns } from '../../../../library/reason/codeMoment';
import { codeSigns, type CodeForSigns } from '../../../../library/reason/codeSigns';
import { roadOutcome, scopeOutcome } from '../../../../library/reason/liveSigns';
import { isKnownSight, replacedKey, searchKey } from '../../../../library/reason/ruledSigns';
import { againKey, signKey, signs, splitKey, type Seen } from '../../../../library/reason/signs';
import { isRepeated } from '../../../../library/reason/tests';
import { symptoms, works } from '../../../../library/vocabulary';
import { dtcHex } from '../../core/codes/dtc';
import { decodeStatus, tellsOfFault } from '../../core/codes/status';
import type { Observation } from '../../core/path/model';
import { isMending } from '../calibrations';
import { lampMeaningOf } from '../lampTold';
import type { CaseCode } from '../codes';
import type { Entry, EntryOf } from '../entry';
import { tyreSigns } from './tyreSigns';

/** Shorter than this a recording says nothing of a drive. */
const LEAST_DRIVE_S = 20;

/** What is known around a thread while it is turned into observations. */
interface Around {
	type: VehicleType;
	book: CodeBook;
	/** Codes that our own tests set, as address/dtc. */
	ours: ReadonlySet<string>;
}

/**
 * What every entry of a thread says in the words of the library's signs. Of a sign that was seen more than once between two
 * repairs the latest counts: the same thing looked at twice is one thing. Only what is done again to catch something that
 * comes and goes counts each time.
 *
 * @param entries standing entries in order
 */
export function observationsOf(
	entries: readonly Entry[],
	type: VehicleType,
	book: CodeBook,
	codes: readonly CaseCode[]
): Observation[] {
	const ours = new Set(
		codes.filter(({ madeByUs }) => madeByUs !== null).map(({ address, dtc }) => `${address}/${dtc}`)
	);
	const around: Around = { type, book, ours };
	const found = new Map<string, Observation>();
	const last = new Map<string, string>();
	const state = new Since();
	for (const entry of entries) {
		state.follow(entry);
		const seen = seenBy(entry, around, state);
		for (const [sign, outcome] of Object.entries(seen)) {
			if (!isKnownSight(sign, outcome)) continue;
			const once = `${state.epoch}/${sign}`;
			const before = last.get(once);
			last.set(once, outcome);
			const again = before !== undefined && isRepeated(splitKey(sign).sign);
			found.set(again ? `${once}/${entry.id}` : once, {
				sign: again ? againKey(sign, before) : sign,
				outcome,
				entry: entry.id,
				epoch: state.epoch
			});
		}
	}
	return [...found.values()];
}

function seenBy(entry: Entry, around: Around, since: Since): Seen {
	if (entry.kind === 'network-scan') return scanSeen(entry, around, since);
	if (entry.kind === 'lamp-read') return since.asItCame || since.driven ? lampSeen(entry) : {};
	return seenIn(entry, around);
}

/** What a lamp tells of a wheel. */
function lampSeen({ payload }: EntryOf<'lamp-read'>): Seen {
	const { corner, wheelCode } = lampMeaningOf(payload) ?? {};
	return corner && wheelCode ? { [signKey('wheel-code', corner)]: wheelCode } : {};
}

/** What has happened since the last repair, which decides what a reading of codes says. */
class Since {
	epoch = 0;
	cleared = false;
	cycled = false;
	driven = false;
	/** Codes of this epoch are as they came, not yet cleared. */
	get asItCame(): boolean {
		return this.epoch === 0 && !this.cleared;
	}

	follow(entry: Entry): void {
		if (isMending(entry)) {
			this.epoch += 1;
			this.cleared = this.cycled = this.driven = false;
		} else if (entry.kind === 'codes-cleared') {
			this.cleared = true;
			this.cycled = this.driven = false;
		} else if (entry.kind === 'key-cycled') this.cycled = true;
		else if (entry.kind === 'proving-drive' || (entry.kind === 'live-recording' && isDrive(entry)))
			this.driven = true;
	}
}

const isDrive = ({ payload }: EntryOf<'live-recording'>) =>
	payload.durationS >= LEAST_DRIVE_S && !payload.notes.some(({ text }) => text.includes('on stands'));

function scanSeen({ payload }: EntryOf<'network-scan'>, { type, book, ours }: Around, since: Since): Seen {
	const scanned = payload.modules.flatMap(({ address, answered, availabilityMask, codes }) => {
		const role = type.modules.find((module) => module.address === address)?.role;
		if (!role) return [];
		const counting = codes
			.filter(({ dtc, status }) => !ours.has(`${address}/${dtc}`) && counts(status, since))
			.map((code) => codeForSigns(code, availabilityMask));
		return [{ role, answered, codes: counting }];
	});
	const all = codeSigns(scanned, type, book);
	const seen: Seen = {};
	for (const [key, outcome] of Object.entries(all)) {
		const { sign, place } = splitKey(key);
		// Who is silent now is silent, whatever was cleared.
		if (SILENCE.includes(sign) || since.asItCame || (since.cleared && since.driven))
			seen[key as keyof Seen] = outcome;
		else if (since.cleared && since.cycled) {
			// Read again standing, after a clear and a key cycle.
			if (sign === 'wheel-code') seen[signKey('back', place)] = outcome === 'none' ? 'no' : 'yes';
			if (sign === 'own-code') seen[signKey('own-back', place)] = outcome === 'none' ? 'no' : 'yes';
		}
	}
	return seen;
}

/** Who is silent, alone or with its segment. */
const SILENCE = ['silent', 'down', 'hushed'];

/** What is stored counts as it came; after a clear only what has failed since. */
function counts(status: number, since: Since): boolean {
	if (!tellsOfFault(status)) return false;
	return since.asItCame || since.cleared || decodeStatus(status).testFailed;
}

function seenIn(entry: Entry, { type, book, ours }: Around): Seen {
	switch (entry.kind) {
		case 'complaint':
			return Object.fromEntries(
				(entry.payload.felt ?? []).flatMap((id) => {
					const sign = symptoms.get(id)?.sign;
					return sign ? [[signKey(sign, 'vehicle'), 'yes']] : [];
				})
			);
		case 'lamps-reported':
			return entry.payload.lamps.some(({ lamp }) => lamp === 'dead speedometer')
				? { [signKey('felt-dial', 'vehicle')]: 'yes' }
				: {};
		case 'prior-work':
			return Object.fromEntries(
				entry.payload.works.flatMap(({ work }) => {
					const repair = works.get(work ?? '')?.repair;
					return repair ? [[replacedKey(repair), 'did-not-help']] : [];
				})
			);
		case 'tyres-fitted':
			return tyreSigns(entry.payload.tyres, type);
		case 'codes-reported':
			return reportedSeen(entry, { type, book, ours });
		case 'live-recording':
			return isDrive(entry) ? roadSeen(entry, type) : {};
		case 'wheel-round':
			return Object.fromEntries(
				entry.payload.corners.map(({ position, result }) => [
					signKey('spin', position),
					result === 'turns-mate' ? 'answers' : result
				])
			);
		case 'meter-reading':
			return meterSeen(entry, type);
		case 'scope-capture':
			return scopeSeen(entry, type);
		case 'substitution':
			return entry.payload.seenKmh
				? { [signKey('substitute', entry.payload.position)]: entry.payload.outcome }
				: {};
		case 'harness-search': {
			const { position, found, implicates } = entry.payload;
			return found && implicates[0] ? { [searchKey(position)]: implicates[0] } : {};
		}
		case 'inspection': {
			const { position, inspection, result } = entry.payload;
			return result === 'unsure' ? {} : { [signKey(`look:${inspection}`, position)]: result };
		}
		case 'test-step':
			return Object.fromEntries(
				Object.entries(entry.payload.seen).filter(([key]) => signs.has(splitKey(key).sign))
			);
		default:
			return {};
	}
}

/** Codes of a print-out name wheels; which module they are of is not always told. */
function reportedSeen({ payload }: EntryOf<'codes-reported'>, { type, book }: Around): Seen {
	const reader = wheelReaderOf(type)?.role;
	if (!reader) return {};
	const told = payload.modules.flatMap(({ codes }) =>
		codes.flatMap(({ code }): CodeForSigns[] =>
			code.kind === 'dtc'
				? [
						{
							dtc: dtcHex(code.code, code.failureType ?? '00'),
							status: null,
							passedSince: false,
							setAtKmh: null,
							setAtVolts: null,
							setAtC: null
						}
					]
				: []
		)
	);
	const seen = codeSigns([{ role: reader, answered: true, codes: told }], type, book);
	// Only what is named: a print-out need not be whole.
	return Object.fromEntries(
		Object.entries(seen).filter(([key, outcome]) => key.startsWith('wheel-code@') && outcome !== 'none')
	);
}

function roadSeen({ payload }: EntryOf<'live-recording'>, type: VehicleType): Seen {
	return Object.fromEntries(
		type.wheels.flatMap(({ position }) => {
			const channel = position.replace('-', '_');
			return payload.channels.includes(channel)
				? [[signKey('road', position), roadOutcome(payload.findings, channel)]]
				: [];
		})
	);
}

function meterSeen({ payload }: EntryOf<'meter-reading'>, type: VehicleType): Seen {
	const { measurement, judged, judgedValue, window } = payload;
	const sign = signs.get(`meter:${measurement}`);
	if (!sign || judged === 'borderline') return {};
	const place = sign.about === 'corner' ? payload.position : (wheelReaderOf(type)?.role ?? null);
	if (!place) return {};
	const side = judged === 'in' ? 'in' : judgedValue !== null && judgedValue < window.low ? 'low' : 'high';
	return { [signKey(sign.id, place)]: side };
}

function scopeSeen({ payload }: EntryOf<'scope-capture'>, type: VehicleType): Seen {
	return Object.fromEntries(
		payload.channels.flatMap((channel) => {
			const { position, at } = channel;
			if (!position || at === 'elsewhere') return [];
			// Turned together, as on the road: the mate's pulses say how many there should be.
			const mate = payload.channels.find(
				(one) => one.position !== null && one.position !== position && one.findings.length === 0
			);
			return [[signKey(`scope-${at}`, position), scopeOutcome(channel, type, mate?.medianHz ?? null)]];
		})
	);
}
