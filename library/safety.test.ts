import { describe, expect, it } from 'vitest';
import { calibrations, placesOf } from './calibrations';
import { exposedByVehicle, makersAlone } from './exposed';
import { exposedByCalibration, exposedByTest } from './exposedBySteps';
import { allPlaces } from './faultPlaces';
import { fittingSheets } from './fittingSheets';
import { vehicleTypes } from './index';
import { lampTables } from './lampTables';
import { inspections, measurements, substituteMethods } from './measure';
import { testsFor } from './reason/tests';
import { reasonModel } from './reason/model';
import { MAKERS_PROCEDURE } from './repairs';
import { cautionsOf, checkedExposures, exposedOrSaid, exposures, NO_DANGER } from './safety';

const types = [...vehicleTypes.values()];
const placed = types.flatMap((type) => testsFor(type).map((test) => ({ type, test })));
const saysOf = (exposed: readonly string[]) => cautionsOf(exposed).map(({ id }) => id);

describe('nobody is sent to a module whose maker alone says how', () => {
	it('no test of any vehicle is done at such a module, at wiring of its own, or needs its plug open', () => {
		const alone = types.filter((type) => type.modules.some(({ role }) => makersAlone(type, role)));
		expect(alone.length).toBeGreaterThan(4);
		for (const { type, test } of placed) {
			const touches = test.access.map(({ id }) => id.split(':')[1] ?? '');
			const here = test.kind.access.length > 0 || ['fuse', 'ground', 'splice'].includes(test.kind.about);
			for (const place of [...touches, ...(here ? [test.place] : [])])
				expect(makersAlone(type, place)?.role ?? null, `${test.id} on ${type.id}`).toBeNull();
		}
	});

	it('it counts as its own what feeds nobody else, and not what it shares', () => {
		const type = vehicleTypes.get('norvane-heath');
		if (!type) throw new Error('no such type');
		expect(makersAlone(type, 'F18')?.role).toBe('restraint');
		expect(makersAlone(type, 'G3')).toBeNull();
		expect(makersAlone(type, 'brake')).toBeNull();
		const shared = testsFor(type).find(({ id }) => id === 'ground@G3');
		if (!shared) throw new Error('the shared ground point is looked at');
		expect(saysOf(exposedByTest(shared, type))).toContain('restraint');
	});

	it('whatever is wrong there leads to the maker’s procedure and to nothing else', () => {
		for (const type of types) {
			const { faults, repairs } = reasonModel(type);
			for (const { place, curedBy, fault } of faults) {
				const kinds = new Set(curedBy.map((index) => repairs[index]?.kind));
				if (makersAlone(type, place)) expect([...kinds], `${fault.id}@${place}`).toEqual([MAKERS_PROCEDURE]);
				else expect(kinds.has(MAKERS_PROCEDURE), `${fault.id}@${place}`).toBe(false);
			}
		}
	});

	it('what sits behind the airbag of the steering wheel says so, by whatever way it is reached', () => {
		const behind = placed.filter(({ test }) => test.place === 'steering-angle' && test.access.length > 0);
		expect(behind.length).toBeGreaterThan(10);
		for (const { type, test } of behind)
			expect(saysOf(exposedByTest(test, type)), test.id).toContain('restraint-behind');
	});
});

describe('cautions come from what a step exposes', () => {
	it('an exposure without a caution, and a step without an exposure, do not load', () => {
		const texts = new Map([['hot', 'Brakes may be hot.']]);
		expect(() => checkedExposures({ oven: { what: 'heat', cautions: [] } }, texts)).toThrow(
			/"oven".*no caution/
		);
		expect(() => checkedExposures({ oven: { what: 'heat', cautions: ['cold'] } }, texts)).toThrow(/"cold"/);
		expect(() => exposedOrSaid('a new test', [])).toThrow(/a new test does not say/);
	});

	it('every step of every kind says something, or by name that it exposes nothing', () => {
		const all = [
			...placed.map(({ type, test }) => [test.id, exposedByTest(test, type)] as const),
			...measurements.map(({ id, exposes }) => [id, exposes] as const),
			...inspections.map(({ id, exposes }) => [id, exposes] as const),
			...substituteMethods.map(({ id, exposes }) => [id, exposes] as const),
			...[...fittingSheets.values()].map(({ id, exposes }) => [id, exposes] as const),
			...[...lampTables.values()].map(({ id, exposes }) => [id, exposes] as const),
			...types.flatMap((type) =>
				[...calibrations.values()].flatMap((one) =>
					placesOf(one, type).map(
						({ module }) => [one.id, exposedByCalibration(one, type, module.role)] as const
					)
				)
			)
		];
		for (const [id, exposed] of all) {
			for (const one of exposed) expect(exposures.has(one), `${id}: ${one}`).toBe(true);
			const silent = exposed.every((one) => one === NO_DANGER);
			expect(silent ? exposed : saysOf(exposed), id).not.toEqual([]);
		}
	});

	it('follows from the data: stands for what is lifted, a dead circuit for ohms, key off for an open plug', () => {
		for (const { type, test } of placed) {
			const cautions = saysOf(exposedByTest(test, type));
			if (test.kind.access.includes('lifted')) expect(cautions, test.id).toContain('stands');
			if (test.kind.access.includes('wheel')) expect(cautions, test.id).toContain('dust');
		}
		for (const { id, mode, open, wheel, exposes } of measurements) {
			if (mode === 'ohms') expect(saysOf(exposes), id).toContain('dead');
			if (open.length > 0) expect(saysOf(exposes), id).toContain('key-off');
			if (wheel === 'turns') expect(saysOf(exposes), id).toContain('wheel-plane');
		}
	});

	it('hands near a wheel that turns: by hand, slowly, never the engine', () => {
		const near = placed.filter(({ test }) => /wiggle-(sensor|plug|lead)|^spray@|^true@/.test(test.id));
		expect(near.length).toBeGreaterThan(50);
		for (const { type, test } of near) {
			expect(saysOf(exposedByTest(test, type)), test.id).toEqual(
				expect.arrayContaining(['by-hand-only', 'hands-clear'])
			);
			expect(test.kind.name, test.id).toMatch(/by hand/);
		}
		expect(saysOf(['wheels-driven'])).toContain('in-gear');
	});

	it('a motor that moves by itself is warned of, and a clamp run is done with everything fitted', () => {
		const says = (id: string) => saysOf(calibrations.get(id)?.exposes ?? []);
		expect(says('end-stops')).toContain('wheel-moves');
		expect(says('steering-zero')).toContain('wheel-moves');
		expect(says('clamp-run')).toContain('clamp');
		const wheelOff = placed.filter(
			({ type, test }) =>
				type.id === 'norvane-heath' && test.place === 'rear-left' && test.kind.access.includes('wheel')
		);
		for (const { type, test } of wheelOff)
			expect(saysOf(exposedByTest(test, type)), test.id).toContain('service-position');
	});

	it('a high-voltage vehicle says who may work at it, and nothing asked for needs more than 12 V', () => {
		const exposing = (id: string) =>
			types.filter((type) => exposedByVehicle(type).includes(id)).map((type) => type.id);
		expect(exposing('high-voltage')).toEqual(['ottaro-pip']);
		expect(exposing('air-brakes')).toEqual(['hexley-drover']);
		expect(saysOf(['high-voltage'])).toEqual(['high-voltage', 'twelve-volts']);
		const volts = measurements.filter(({ mode }) => mode !== 'ohms');
		for (const { id, windows } of volts)
			for (const window of Object.values(windows))
				if (window.kind === 'fixed') expect(window.high ?? window.low, id).toBeLessThan(60);
	});

	it('a shop adds its own after the library’s, and takes nothing away', () => {
		const said = cautionsOf(['wheel-off'], { 'wheel-off': 'Bay 3: the left post is out of order.' });
		expect(said.map(({ id }) => id)).toEqual(['stands', 'dust', 'hot', 'shop:wheel-off']);
	});
});

describe('all places are known', () => {
	it('exposures are worked out for every place of every vehicle', () => {
		for (const type of types)
			for (const kind of ['corner', 'module', 'fuse', 'ground', 'splice', 'vehicle'] as const)
				for (const place of allPlaces(kind, type)) expect(() => makersAlone(type, place)).not.toThrow();
	});
});
