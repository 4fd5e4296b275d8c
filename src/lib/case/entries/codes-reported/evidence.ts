import type { z } from 'zod';
import { wheelReaderOf } from '../../../../../library/measurePoints';
import { codeSigns, type CodeForSigns } from '../../../../../library/reason/codeSigns';
import type { Seen } from '../../../../../library/reason/signs';
import { codeId } from '../../../core/codes/codeId';
import type { Around } from '../kind';
import type { CodesReported } from './payload';

/** Codes of a print-out name wheels; which module they are of is not always told. */
export function reportedSeen({ modules }: z.output<typeof CodesReported>, { type, book }: Around): Seen {
	const reader = wheelReaderOf(type)?.role;
	if (!reader) return {};
	const told = modules.flatMap(({ codes }) =>
		codes.flatMap(({ code }): CodeForSigns[] =>
			code.kind !== 'lamp'
				? [
						{
							dtc: codeId(code),
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
