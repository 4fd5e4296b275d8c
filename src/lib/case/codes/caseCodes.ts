import { codeKey } from '../../core/codes/codeKey';
import { shippedBook, type CodeBook } from '../../../../library/codes';
import { codeNumber, numberOf } from '../../core/codes/codeId';
import { tellsOfFault } from '../../core/codes/status';
import { unsettled } from '../../core/calibrate/dueWork';
import { proveCode } from '../../core/prove/codeVerdict';
import type { Origin } from '../../core/prove/proof';
import type { CaseCode } from './caseCode';
import { describeCode } from './codeWords';
import type { Entry } from '../entries/entry';
import { undisturbed } from '../thread/inTheWay';
import { SetByTests } from '../measure/setByTests';
import { caseCalibrations, expectedAfter } from '../mend/calibrations';
import { comesOf } from '../proof/comesAndGoes';
import { provokedAt } from '../proof/provocations';
import { historyOf, wasSeenLive } from '../proof/proofHistory';
import { cascadeOf } from '../reason/cascade';
import { latest, standing } from '../thread/thread';
import { makerOf, typeOf } from '../thread/vehicleOf';

/** The number of every code that is named anywhere on a thread. */
export function codesOn(thread: Entry[]): Set<string> {
	const found = new Set<string>();
	for (const entry of thread) {
		if (entry.kind === 'network-scan')
			for (const { codes } of entry.payload.modules) for (const { dtc } of codes) found.add(codeNumber(dtc));
		if (entry.kind === 'frame-log') {
			for (const { codes } of entry.payload.modules) for (const { code } of codes) found.add(code);
			for (const { codes } of entry.payload.broadcasts)
				for (const code of codes) found.add(numberOf({ kind: 'j1939', ...code }));
		}
		if (entry.kind === 'codes-reported')
			for (const { codes } of entry.payload.modules)
				for (const { code } of codes) if (code.kind !== 'lamp') found.add(numberOf(code));
	}
	return found;
}

/** What a code is before it is judged. */
type Found = Omit<CaseCode, 'proof' | 'followsFrom'> & { atScan: number };

/** Every code that ever told of a fault on this case, in the order in which it was first seen. */
export function caseCodes(thread: Entry[], book: CodeBook = shippedBook): CaseCode[] {
	const entries = standing(thread);
	const counting = undisturbed(entries);
	const found = foundIn(entries, book);
	const type = typeOf(entries);
	const scan = latest(entries, 'network-scan');
	const follows = type ? cascadeOf(found, scan, type, book).consequences : [];
	const listed = new Set(
		(scan?.payload.modules ?? []).flatMap(({ address, codes }) =>
			codes.filter(({ status }) => tellsOfFault(status)).map(({ dtc }) => codeKey({ address, dtc }))
		)
	);
	const followsNow = new Set(
		type
			? cascadeOf(
					found.filter((code) => listed.has(codeKey(code))),
					scan,
					type,
					book
				).consequences.map(({ key }) => key)
			: []
	);
	const all = caseCalibrations(entries);
	const calibrationsDue = all.length > 0 ? unsettled(all).length : null;
	return found.map(({ atScan, ...code }) => {
		const consequence = code.madeByUs === null ? follows.find(({ key }) => key === codeKey(code)) : undefined;
		const followsFrom = consequence?.because ?? null;
		const origin = originOf(code, followsFrom, followsNow.has(codeKey(code)));
		const proof = proveCode(historyOf(entries, code, code.madeByUs ? { atScan } : null), {
			origin,
			exposure: comesOf(counting, code, found, origin.kind === 'own'),
			provoked: origin.kind === 'own' ? provokedAt(counting, code.corner) : [],
			calibrationsDue,
			seenLive: wasSeenLive(entries, code.corner)
		});
		return { ...code, followsFrom, proof };
	});
}

function originOf(
	{ madeByUs, expected }: Pick<CaseCode, 'madeByUs' | 'expected'>,
	followsFrom: string | null,
	now: boolean
): Origin {
	if (madeByUs !== null) return { kind: 'made-by-us' };
	if (expected !== null) return { kind: 'expected', because: expected };
	return followsFrom === null ? { kind: 'own' } : { kind: 'consequence', because: followsFrom, now };
}

function foundIn(entries: Entry[], book: CodeBook): Found[] {
	const maker = makerOf(entries);
	const found = new Map<string, Found>();
	const byTests = new SetByTests(typeOf(entries));
	let scansBefore = 0;
	for (const [atScan, entry] of entries.entries()) {
		byTests.follow(entry);
		if (entry.kind !== 'network-scan') continue;
		for (const module of entry.payload.modules) {
			for (const code of module.codes.filter((c) => tellsOfFault(c.status))) {
				const key = codeKey({ address: module.address, dtc: code.dtc });
				const known = found.get(key);
				if (known) {
					known.status = code.status;
					continue;
				}
				const words = describeCode(code.dtc, book, maker, code.told ?? null);
				found.set(key, {
					...words,
					dtc: code.dtc,
					address: module.address,
					moduleName: module.name,
					status: code.status,
					// New since a reading before, and what a test of ours since then sets.
					madeByUs: scansBefore > 0 ? byTests.of(words.corner, code.dtc) : null,
					expected: expectedAfter(entries.slice(0, atScan), module.address, code.dtc),
					atScan
				});
			}
		}
		if (entry.payload.outcome === 'complete') {
			scansBefore += 1;
			byTests.read();
		}
	}
	return [...found.values()];
}
