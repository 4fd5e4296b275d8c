import { sourcesFor } from '../../../../library/codes';
import { liveSignals } from '../../../../library/liveSignals';
import { codeNumber, suffixOf } from '../../core/codes/codeId';
import { signalsOf, type Condition } from '../../core/conditions/condition';
import { isWheel } from '../../core/live/recording';
import { makerOf, typeOf } from '../thread/vehicleOf';
import type { CaseFacts } from '../codes/caseFacts';

/**
 * Signals worth recording for what is at hand, each with why (empty where it goes without saying): every wheel, the vehicle's speed, and whatever the set
 * conditions of the case's codes speak of.
 */
export function watchDefaults({
	entries,
	codes,
	book
}: Pick<CaseFacts, 'entries' | 'codes' | 'book'>): Map<string, string> {
	const type = typeOf(entries);
	const offered = type ? liveSignals(type).map(({ signal }) => signal) : [];
	const why = new Map<string, string>();
	for (const signal of offered) if (isWheel(signal)) why.set(signal, '');
	if (offered.includes('vehicle')) why.set('vehicle', '');
	for (const { text, condition } of codeConditions({ entries, codes, book })) {
		for (const signal of signalsOf(condition)) {
			if (offered.includes(signal) && !why.has(signal)) why.set(signal, `${text} depends on it`);
		}
	}
	return why;
}

/** A condition of a code at hand. */
export interface CodeCondition {
	text: string;
	/** `set`: the code is set by it; `test`: its test has run once it was met. */
	what: 'set' | 'test';
	condition: Condition;
}

/** Set and test conditions of the case's codes, each from the most trusted source that has one. */
export function codeConditions({
	entries,
	codes,
	book
}: Pick<CaseFacts, 'entries' | 'codes' | 'book'>): CodeCondition[] {
	const maker = makerOf(entries);
	const texts = new Map(codes.map(({ dtc, text }) => [text, dtc]));
	return [...texts].flatMap(([text, dtc]): CodeCondition[] => {
		const sources = sourcesFor(book, { code: codeNumber(dtc), failureType: suffixOf(dtc), maker });
		const set = sources.find(({ setConditions }) => setConditions !== null)?.setConditions;
		const test = sources.find(({ testConditions }) => testConditions !== null)?.testConditions;
		return [
			...(set ? [{ text, what: 'set' as const, condition: set }] : []),
			...(test ? [{ text, what: 'test' as const, condition: test }] : [])
		];
	});
}
