import { isReturned, isSettled, VERDICT_WORDS } from '../../core/prove/proof';
import { meterReading } from '../entries/meter-reading';
import { latest, ofKind } from '../thread/thread';
import type { CaseView } from './project';

/** How a code of its own ended on one visit. */
export interface CodeThen {
	text: string;
	called: string;
	state: 'good' | 'suspect' | 'bad';
	says: string;
}

/** One case of a vehicle, as its history tells it. */
export interface Visit {
	id: string;
	number: string;
	/** When it came in. */
	at: string;
	signed: boolean;
	complaint: string | null;
	odometerKm: number | null;
	codes: CodeThen[];
	/** What was done, and the parts that went in. */
	repairs: { title: string; parts: string[] }[];
	/** Meter readings, in words. */
	readings: { words: string; judged: 'in' | 'out' | 'borderline' }[];
	verdict: string;
}

/** What a case says of its vehicle. Codes that only follow from others are theirs and not told again. */
export function visitOf(
	{ id, number, signed, at }: { id: string; number: string; signed: boolean; at: string },
	view: CaseView
): Visit {
	const { entries, codes, verdict } = view;
	return {
		id,
		number,
		at,
		signed,
		complaint: latest(entries, 'complaint')?.payload.words ?? null,
		odometerKm: latest(entries, 'vehicle-checked')?.payload.odometerKm ?? null,
		codes: codes
			.filter(({ followsFrom, madeByUs }) => followsFrom === null && madeByUs === null)
			.map(({ text, called, proof }) => ({
				text,
				called,
				state: isReturned(proof.verdict) ? 'bad' : isSettled(proof.verdict) ? 'good' : 'suspect',
				says: VERDICT_WORDS[proof.verdict]
			})),
		repairs: ofKind(entries, 'repair').map(({ payload }) => ({
			title: payload.title,
			parts: payload.parts.map(({ name, number: of }) => (of === '' ? name : `${name}, ${of}`))
		})),
		readings: ofKind(entries, 'meter-reading').map(({ payload }) => {
			const { title, detail } = meterReading.line(payload);
			return { words: `${title}, ${detail}`, judged: payload.judged };
		}),
		verdict
	};
}

/** A code over the visits of a vehicle. */
export interface CodeOver {
	key: string;
	text: string;
	called: string;
	/** By visit, the first one first; null = it was not there. */
	then: (CodeThen | null)[];
}

const WORST = { bad: 2, suspect: 1, good: 0 } as const;

/** Every code over the visits, those that were there most often first. @param visits the first one first */
export function codesOver(visits: readonly Visit[]): CodeOver[] {
	const texts = [...new Set(visits.flatMap(({ codes }) => codes.map(({ text }) => text)))];
	const worst = (codes: readonly CodeThen[]): CodeThen | null =>
		[...codes].sort((a, b) => WORST[b.state] - WORST[a.state])[0] ?? null;
	const rows = texts.map((text): CodeOver => {
		const then = visits.map(({ codes }) => worst(codes.filter((code) => code.text === text)));
		return { key: text, text, called: then.find((one) => one !== null)?.called ?? '', then };
	});
	const times = ({ then }: CodeOver) => then.filter((one) => one !== null).length;
	return rows.sort((a, b) => times(b) - times(a) || a.text.localeCompare(b.text));
}

const YEAR_MS = 365.25 * 24 * 3_600_000;

/** How far it goes in a year, by the first and the last count; null where they are less than a month apart or go backwards. */
export function kmPerYear(visits: readonly Visit[]): number | null {
	const counted = visits.flatMap(({ at, odometerKm }) =>
		odometerKm === null ? [] : [{ ms: new Date(at).getTime(), km: odometerKm }]
	);
	const [first, last] = [counted[0], counted.at(-1)];
	if (!first || !last) return null;
	const years = (last.ms - first.ms) / YEAR_MS;
	return years < 1 / 12 || last.km < first.km ? null : (last.km - first.km) / years;
}
