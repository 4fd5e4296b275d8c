import { codeKey } from '../../core/codes/codeKey';
import { testConditionsOf } from '../../../../library/codes';
import { codeNumber, suffixOf } from '../../core/codes/codeId';
import type { NamedCondition } from '../../core/live/conditionsOver';
import type { CaseCode } from '../codes/caseCode';
import { makerOf } from '../thread/vehicleOf';
import type { CaseFacts } from '../codes/caseFacts';

/** What must happen on the road before the test of each code completes, where a source says so. */
export interface TestCondition extends NamedCondition {
	code: CaseCode;
}

/** Codes that nothing says anything of are left out. The name is `address/dtc`. */
export function caseTestConditions({
	entries,
	book,
	codes
}: Pick<CaseFacts, 'entries' | 'book' | 'codes'>): TestCondition[] {
	const maker = makerOf(entries);
	return codes.flatMap((code) => {
		const condition = testConditionsOf(book, {
			code: codeNumber(code.dtc),
			failureType: suffixOf(code.dtc),
			maker
		});
		return condition ? [{ name: codeKey(code), condition, code }] : [];
	});
}
