import { knownCircumferenceM, knownSenseOhms, knownTeeth } from '$library/vehicle/known';
import { inTheWayNow } from '$lib/case/thread/inTheWay';
import { benchPage } from '$lib/server/cases/benchPage';
import { wheelSignal } from '../../../../../../library/liveSignals';
import { nodeOf, wheelReaderOf } from '../../../../../../library/measurePoints';
import type { VehicleType } from '../../../../../../library';
import { substituteMethods, unsuitedFor } from '../../../../../../library/measure';

const readerIn = (type: VehicleType) => {
	const reader = wheelReaderOf(type);
	return reader && { address: reader.address, name: reader.name.toLowerCase() };
};

export const load = async (event) => {
	const { row, view, type, shared, cautions, ...bench } = await benchPage(event);
	const { at } = shared;
	const family = bench.family?.family ?? null;
	return {
		...shared,
		family,
		teeth: knownTeeth(type, at),
		circumferenceM: knownCircumferenceM(type, at),
		senseResistorOhms: knownSenseOhms(type),
		/** The module whose code freezes this wheel's value. */
		reader: type ? readerIn(type) : null,
		linkAddress: row.vehicle.linkAddress,
		/** A signal of ours stands in for this wheel's sensor. */
		held: inTheWayNow(view.entries).held.has(at),
		/** Whether live data of this wheel can be watched here. */
		signal: type && wheelSignal(type, at),
		nodes: type && { feed: nodeOf(type, at, 'wire:feed'), signal: nodeOf(type, at, 'wire:signal') },
		methods: substituteMethods.map((method) => ({
			...method,
			unfit: family ? unsuitedFor(method, family) : null,
			cautions: cautions.words(method.exposes)
		}))
	};
};
