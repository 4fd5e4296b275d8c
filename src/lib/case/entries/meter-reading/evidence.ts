import { wheelReaderOf } from '../../../../../library/measurePoints';
import { signKey, signs, type Seen } from '../../../../../library/reason/signs';
import type { Around } from '../kind';
import type { MeterReading } from './payload';

export function meterSeen(payload: MeterReading, { type }: Pick<Around, 'type'>): Seen {
	const { measurement, judged, judgedValue, window } = payload;
	const sign = signs.get(`meter:${measurement}`);
	if (!sign || judged === 'borderline') return {};
	const place = sign.about === 'corner' ? payload.position : (wheelReaderOf(type)?.role ?? null);
	if (!place) return {};
	const side = judged === 'in' ? 'in' : judgedValue !== null && judgedValue < window.low ? 'low' : 'high';
	return { [signKey(sign.id, place)]: side };
}
