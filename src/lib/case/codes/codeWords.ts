import type { Position } from '../../../../library/positions';
import { wheelCircuitOf, type Group } from '../../../../library/codePack';
import { shippedBook, titleSource, type CodeBook } from '../../../../library/codes';
import { kindOfFailure } from '../../../../library/failureTypes';
import { codeName, codeNumber, suffixOf, type CodeId } from '../../core/codes/codeId';

/** A code in words, by a book. */
export interface CodeWords {
	text: string;
	/** Null where no source describes it for this maker. */
	title: string | null;
	/** What to print for it: its title, or what another tool prints, or that nobody has said what it means. */
	called: string;
	/** Empty where it does not say how it failed. */
	failureType: string;
	/** What to look at first for this kind of failure; null where none is told. */
	checkFirst: string | null;
	corner: Position | null;
	group: Group | null;
}

const NOT_DESCRIBED = 'Not in the library yet';

/**
 * Plain words for a code.
 *
 * @param told what another tool prints beside it
 */
export function describeCode(
	id: CodeId,
	book: CodeBook = shippedBook,
	maker: string | null = null,
	told: string | null = null
): CodeWords {
	const source = titleSource(book, { code: codeNumber(id), failureType: suffixOf(id), maker });
	const kind = kindOfFailure(id, source);
	return {
		text: codeName(id),
		title: source?.title ?? null,
		called: source?.title ?? (told ? `“${told}”` : NOT_DESCRIBED),
		failureType: kind?.text ?? '',
		checkFirst: kind?.checkFirst ?? null,
		corner: wheelCircuitOf(source),
		group: source?.group ?? null
	};
}
