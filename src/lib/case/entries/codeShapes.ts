import { z } from 'zod';
import { MAX_FMI, MAX_SPN } from '../../core/codes/diagnosticMessage';
import { CODE_TEXT } from '../../core/codes/dtc';
import { LONGEST_OWN, ownNotation } from '../../core/codes/ownNotation';

/** Codes as others told them: people, print-outs, logs, books. */

export const FailureTypeByte = z.string().regex(/^[0-9A-F]{2}$/);

const StatusByte = z.number().int().min(0).max(255);

export const CodeWritten = z.string().regex(CODE_TEXT);

export const DtcCode = z.object({
	code: CodeWritten,
	failureType: FailureTypeByte.nullable(),
	status: StatusByte.nullable()
});

export const HeavyVehicleCode = z.object({
	spn: z.number().int().min(0).max(MAX_SPN),
	fmi: z.number().int().min(0).max(MAX_FMI),
	occurrences: z.number().int().min(0).max(126).nullable(),
	conversion: z.literal([0, 1])
});

/** A code of any family, as it was told to us. */
export const ToldAnyCode = z.discriminatedUnion('kind', [
	DtcCode.extend({ kind: z.literal('dtc') }),
	HeavyVehicleCode.extend({ kind: z.literal('j1939') }),
	z.object({
		kind: z.literal('own'),
		written: z
			.string()
			.min(1)
			.max(LONGEST_OWN)
			.refine((text) => ownNotation(text) === text, 'It is to be written with single blanks.')
	}),
	z.object({ kind: z.literal('lamp'), groups: z.array(z.number().int().min(1).max(99)).min(1).max(20) })
]);
