import { LOW_A } from '../../core/electrical/twoWire';
import type { Measurement } from '../../../../library/measure';
import type { Link } from '../../../../library/links';
import { drawsCurrent, type SensorKind } from '../../../../library/sensorKinds';
import { busResistance } from '../../core/electrical/busResistance';
import { coilResistanceAt20C } from '../../core/electrical/coilResistance';
import { dividerOhms } from '../../core/electrical/divider';
import { expectedWindow, type ExpectedWindow, type KnownVehicle } from '../../core/electrical/expectedWindow';
import { judgeReading, meterAccuracy, type Judgement } from '../../core/electrical/judgeReading';
import { seriesResistance } from '../../core/electrical/seriesResistance';
import { valueWords } from './measureWords';

/** What is known beside the reading itself. */
export interface MeterContext {
	family: SensorKind;
	vehicle: KnownVehicle;
	/** The mate's good reading of the same measurement, as it was judged. */
	mate: number | null;
	/** Readings that the shop has kept as good. */
	shop: readonly number[];
	temperatureC: number;
	/** The same feed without a load. */
	openFeedVolts: number | null;
}

export interface MeterJudgement {
	judged: Judgement;
	/** Corrected to 20 °C where that belongs to it; Infinity = over the range. */
	judgedValue: number;
	accuracy: number;
	window: ExpectedWindow;
	hiddenOhms: number | null;
	says: string;
	proves: Link[];
	implicates: Link[];
}

/** Bias of a passive sensor's lines: 5 V through two resistors of 10 kΩ is usual. */
const BIAS_V = 5;
const BIAS_OHMS = 20_000;

export const quantityOf = (mode: Measurement['mode']): 'V' | 'Ω' => (mode === 'ohms' ? 'Ω' : 'V');

/** The window that a reading of this will be judged by; null where this family is not measured so. */
export function windowOf(measurement: Measurement, context: MeterContext): ExpectedWindow | null {
	const rule = measurement.windows[context.family];
	const { mate, shop, vehicle } = context;
	return rule ? expectedWindow(rule, quantityOf(measurement.mode), vehicle, { mate, shop }) : null;
}

/** A reading judged at once, with what it says. @param shown as the display has it, Infinity = over the range */
export function judgeMeasurement(
	measurement: Measurement,
	shown: number,
	context: MeterContext
): MeterJudgement | null {
	const window = windowOf(measurement, context);
	if (!window) return null;
	const corrects = measurement.atTemperature && Number.isFinite(shown);
	const judgedValue = corrects ? coilResistanceAt20C(shown, context.temperatureC) : shown;
	const accuracy = meterAccuracy(quantityOf(measurement.mode), judgedValue);
	const judged = judgeReading(judgedValue, window, accuracy);
	const hiddenOhms = judged === 'in' ? null : hiddenResistance(measurement, shown, context);
	const said =
		judged === 'in'
			? measurement.good.says
			: judged === 'out'
				? measurement.bad.says
				: 'On the edge: the meter cannot tell. Measure again, warm and still, or against the mate.';
	return {
		judged,
		judgedValue,
		accuracy,
		window,
		hiddenOhms,
		says: [said, aside(measurement, shown, hiddenOhms)].filter((text) => text !== null).join(' '),
		proves: judged === 'in' ? measurement.good.proves : [],
		implicates: judged === 'out' ? measurement.bad.implicates : []
	};
}

function hiddenResistance(
	{ hidden }: Measurement,
	volts: number,
	{ openFeedVolts, family }: MeterContext
): number | null {
	const fed = drawsCurrent(family);
	if (!hidden || !fed || openFeedVolts === null || !(volts < openFeedVolts)) return null;
	return seriesResistance(openFeedVolts, volts, LOW_A);
}

/** What more can be read off a number. */
function aside({ id }: Measurement, shown: number, hiddenOhms: number | null): string | null {
	if (hiddenOhms !== null) return `That is about ${valueWords(hiddenOhms, 'Ω')} hidden in the feed at 7 mA.`;
	if (id === 'bus-ohms') return busResistance(shown).text;
	if (id === 'bias-across' && shown >= 0 && shown < BIAS_V)
		return `At a usual bias that is a loop of about ${valueWords(dividerOhms(BIAS_V, shown, BIAS_OHMS), 'Ω')}.`;
	return null;
}
