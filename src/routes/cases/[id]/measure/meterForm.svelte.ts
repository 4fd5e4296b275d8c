import type { ExpectedWindow } from '$lib/core/electrical/expectedWindow';
import {
	judgeMeasurement,
	quantityOf,
	windowOf,
	type MeterContext,
	type MeterJudgement
} from '$lib/case/measure/meterJudgement';
import type { MeterReading } from '$lib/case/entries/meter-reading/payload';
import type { OfferedMeasurement } from '$lib/case/measure/measureView';
import type { Measurement } from '$library/measure';
import type { Position } from '$library/positions';
import type { SensorKind } from '$library/sensorKinds';
import { readMeter, saidBy } from './readMeter';

/** A measurement as the page is handed it. */
export interface Offered extends Omit<OfferedMeasurement, 'reading' | 'mateReading'> {
	shop: number[];
	reading: (MeterReading & { id: string; time: string }) | null;
	mateReading: MeterReading | null;
	cautions: string;
}

const FACTORS = { mV: 0.001, V: 1, Ω: 1, kΩ: 1_000, MΩ: 1_000_000 } as const;
export type Unit = keyof typeof FACTORS;
export const unitsOf = (mode: Measurement['mode']): Unit[] =>
	mode === 'ohms' ? ['Ω', 'kΩ', 'MΩ'] : ['V', 'mV'];

/** What a reading belongs to. */
export interface MeterAbout {
	caseId: string;
	at: Position;
	typeId: string;
	family: SensorKind;
	senseResistorOhms: number | null;
	/** The same feed without a load, where it was read before. */
	openFeedVolts: number | null;
}

/** One reading while it is being taken: what the display says, and what that means. */
export class MeterForm {
	text = $state('');
	unit = $state<Unit>('V');
	over = $state(false);
	temperatureC = $state(20);
	supplyVolts = $state<number | null>(null);
	by = $state<'hand' | 'instrument'>('hand');
	keepAsGood = $state(false);
	trouble = $state<string | null>(null);
	reading = $state(false);

	constructor(private readonly about: () => MeterAbout & { one: Offered }) {
		this.unit = unitsOf(about().one.measurement.mode)[0] ?? 'V';
	}

	get context(): MeterContext {
		const { one, family, senseResistorOhms, openFeedVolts } = this.about();
		const { mateReading, shop } = one;
		return {
			family,
			vehicle: { senseResistorOhms, supplyVolts: this.supplyVolts },
			mate: mateReading?.judged === 'in' ? mateReading.judgedValue : null,
			shop,
			temperatureC: this.temperatureC,
			openFeedVolts
		};
	}

	get window(): ExpectedWindow | null {
		return windowOf(this.about().one.measurement, this.context);
	}

	/** As shown, in volts or ohms; Infinity = over the range, null = nothing yet. */
	get shown(): number | null {
		if (this.over) return Infinity;
		const text = this.text.trim().replace(',', '.');
		if (text === '' || !/^-?\d*\.?\d+(e-?\d+)?$/i.test(text)) return null;
		return Number(text) * FACTORS[this.unit];
	}

	get judgement(): MeterJudgement | null {
		const { shown } = this;
		if (shown === null || !(this.temperatureC >= -60 && this.temperatureC <= 200)) return null;
		return judgeMeasurement(this.about().one.measurement, shown, this.context);
	}

	/** Takes the value from the meter that is connected here. */
	async read(): Promise<void> {
		const { caseId, at, one } = this.about();
		this.reading = true;
		this.trouble = null;
		const ask = (measurement: string) => readMeter(caseId, { measurement, position: at });
		try {
			if (one.measurement.windows[this.about().family]?.kind === 'supply')
				this.supplyVolts = await ask('supply');
			const value = await ask(one.measurement.id);
			this.over = value === null;
			this.unit = unitsOf(one.measurement.mode)[0] ?? 'V';
			this.text = value === null ? '' : String(Number(value.toPrecision(6)));
			this.by = 'instrument';
		} catch (error) {
			this.trouble = saidBy(error);
		} finally {
			this.reading = false;
		}
	}

	get payload(): MeterReading | null {
		const { judgement, shown } = this;
		if (!judgement || shown === null) return null;
		const { at, typeId, one } = this.about();
		const { measurement, red, black } = one;
		const finite = (value: number) => (Number.isFinite(value) ? value : null);
		return {
			position: at,
			typeId,
			measurement: measurement.id,
			name: measurement.name,
			red,
			black,
			quantity: quantityOf(measurement.mode),
			value: finite(shown),
			judgedValue: finite(judgement.judgedValue),
			temperatureC: measurement.atTemperature ? this.temperatureC : null,
			accuracy: judgement.accuracy,
			window: { ...judgement.window, high: finite(judgement.window.high) },
			judged: judgement.judged,
			by: this.by,
			opened: measurement.open.map((plug) => (plug === 'sensor' ? at : 'module')),
			hiddenOhms: judgement.hiddenOhms,
			knownGood: this.keepAsGood && judgement.judged === 'in',
			says: judgement.says,
			proves: judgement.proves,
			implicates: judgement.implicates
		};
	}
}
