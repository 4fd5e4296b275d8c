import type { Position } from '../../../../library/positions';
import { wheelCircuitOf, type Group } from '../../../../library/codePack';
import { shippedBook, titleSource, type CodeBook } from '../../../../library/codes';
import { failureType } from '../../../../library/failureTypes';
import { codeText, codeWithSuffix, failureTypeByte } from '../../core/codes/dtc';

/** A code in words, by a book. */
export interface CodeWords {
	text: string;
	title: string | null;
	failureType: string;
	corner: Position | null;
	group: Group | null;
}

/** Plain words for a code; the title is null where no source describes it for this maker. */
export function describeCode(
	dtc: string,
	book: CodeBook = shippedBook,
	maker: string | null = null
): CodeWords {
	const suffix = failureTypeByte(dtc);
	const source = titleSource(book, { code: codeText(dtc), failureType: suffix, maker });
	return {
		text: codeWithSuffix(dtc),
		title: source?.title ?? null,
		failureType: failureType(suffix).text,
		corner: wheelCircuitOf(source),
		group: source?.group ?? null
	};
}
