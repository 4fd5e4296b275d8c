import { knownSenseOhms } from '$library/vehicle/known';
import { isBadBenchTest, isBenchTest } from '$lib/case/measure/benchTests';
import { describeEntry } from '$lib/case/thread/describe';
import { cornerChain, offeredMeasurements, unsuitedMeasurements } from '$lib/case/measure/measureView';
import { exposedByTest } from '$library/exposedBySteps';
import { testKindOf } from '$library/reason/tests';
import { benchPage } from '$lib/server/cases/benchPage';
import { clock } from '$lib/server/cases/clock';
import { usualFamilies } from '$library/wheelSensors';
import type { SensorKind } from '$library/sensorKinds';
import { sensorQuestions, substituteMethods, warnedOf } from '../../../../../library/measure';

export const load = async (event) => {
	const { view, type, family, shared, cautions } = await benchPage(event);
	const { at } = shared;
	const kind = family?.family ?? null;
	const good = type ? await event.locals.services.goodReadings.ofType(type.id) : {};
	return {
		...shared,
		family,
		typeId: type?.id ?? '',
		senseResistorOhms: knownSenseOhms(type),
		questions: sensorQuestions,
		prior: Object.fromEntries(usualFamilies(type?.tells ?? 'link', at)) as Record<SensorKind, number>,
		chain: cornerChain(view.entries, at),
		offered: kind
			? offeredMeasurements(view.entries, type, at, kind).map((one) => ({
					...one,
					shop: good[one.measurement.id] ?? [],
					reading: one.reading && {
						id: one.reading.id,
						...one.reading.payload,
						time: clock(one.reading.observedAt)
					},
					mateReading: one.mateReading?.payload ?? null,
					cautions: cautions.words(
						type
							? exposedByTest({ kind: testKindOf(`meter:${one.measurement.id}`), place: at }, type)
							: one.measurement.exposes
					)
				}))
			: [],
		unsuited: kind
			? [
					...unsuitedMeasurements(kind),
					...substituteMethods.flatMap((method) => {
						const told = warnedOf(method, kind);
						return told ? [{ name: method.name, ...told }] : [];
					})
				]
			: [],
		done: view.entries
			.filter(isBenchTest)
			.map((entry) => ({
				id: entry.id,
				kind: entry.kind,
				...describeEntry(entry),
				bad: isBadBenchTest(entry),
				time: clock(entry.observedAt)
			}))
			.reverse()
			.slice(0, 30)
	};
};
