import { z } from 'zod';
import { Position } from '../../../../../library/positions';
import { WINDOW_SOURCES } from '../../../core/electrical/expectedWindow';
import { Text, Words } from '../fields';
import { Finite, LibraryId, says } from '../shapes';

export const MeterReading = z.object({
	position: Position.nullable(),
	typeId: z.string().max(60),
	measurement: LibraryId,
	name: Words,
	/** Where the two leads were, in words. */
	red: Words,
	black: Words,
	quantity: z.enum(['V', 'Ω']),
	/** As the display had it; null = over its range. */
	value: Finite.nullable(),
	/** What was judged: corrected to 20 °C where that belongs to it. */
	judgedValue: Finite.nullable(),
	temperatureC: z.number().min(-60).max(200).nullable(),
	accuracy: z.number().min(0),
	window: z.object({
		low: Finite,
		/** Null = no upper end. */
		high: Finite.nullable(),
		source: z.enum(WINDOW_SOURCES),
		because: Words
	}),
	judged: z.enum(['in', 'out', 'borderline']),
	by: z.enum(['hand', 'instrument']),
	/** Plugs that were open. */
	opened: z.array(Text).max(10),
	/** Resistance that a voltage under load gives away. */
	hiddenOhms: Finite.nullable(),
	/** Kept as a good reading of this type of vehicle. */
	knownGood: z.boolean(),
	...says
});
export type MeterReading = z.infer<typeof MeterReading>;
