import { describe, expect, it } from 'vitest';
import { vehicleTypes, type VehicleType } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import type { Link } from '../../../../library/links';
import { inspections } from '../../../../library/measure';
import { isClearSight, linksSeenBy, outcomeOfLook, sightsSeen } from '../../../../library/reason/sights';
import { reasonModel } from '../../../../library/reason/model';
import { signOf } from '../../../../library/reason/signs';
import { familiesAt } from '../../../../library/wheelSensors';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseCodes } from '../codes/caseCodes';
import { standing } from '../thread/thread';
import { oneCodeRead } from '../thread/oneCode.fixture';
import type { ThreadMaker } from '../thread/threads.fixture';
import { reasonAbout, type Reasoning } from './reasoning';

const AT = 'rear-left';
const OPEN = '404513';
const ERRATIC = '40452F';
/** A short look that decides between two repairs of the same sight, such as the ring alone or with its hub. */
const DECIDES_MIN = 3;
/** The code that a fault of each link sets most. */
const CODE_OF: Partial<Record<Link, string>> = {
	ring: ERRATIC,
	gap: ERRATIC,
	harness: OPEN,
	'sensor-connector': OPEN
};
const types = ['norvane-heath', 'brindle-marlow-16', 'velmora-skiff'].map((id) => {
	const type = vehicleTypes.get(id);
	if (!type) throw new Error(`no ${id}`);
	return { type, model: reasonModel(type) };
});

const looked = (maker: ThreadMaker, inspection: string, sights: string[], at: string = AT) => {
	const look = inspections.find(({ id }) => id === inspection);
	return maker.add('inspection', {
		position: at as never,
		inspection,
		name: look?.name ?? '',
		result: 'bad',
		sights,
		found: [],
		gapMm: null,
		note: '',
		photos: [],
		says: '',
		proves: [],
		implicates: []
	});
};
const about = ({ thread }: ThreadMaker, { model }: (typeof types)[number]): Reasoning =>
	reasonAbout(standing(thread), model, {
		book: shippedBook,
		codes: caseCodes(thread, shippedBook),
		policy: PROVE_FIRST
	});
/** Chance that a fault of these links sits at a place. */
const atLinks = ({ model, belief }: Reasoning, links: readonly string[], at: string = AT) =>
	model.faults.reduce(
		(sum, { fault, place, id }, i) =>
			sum + (place === at && links.includes(fault.link) && id !== '' ? (belief.present[i] ?? 0) : 0),
		0
	);
const suits = (inspection: string, type: VehicleType) =>
	familiesAt(type, AT).some(([family]) =>
		(inspections.find(({ id }) => id === inspection)?.families ?? []).includes(family)
	);
const clearSights = inspections.flatMap(({ id, sights }) =>
	sights
		.filter((sight) => isClearSight(signOf(`look:${id}`), sight.id))
		.map((sight) => [id, sight.id] as const)
);

describe('seen is known', () => {
	it.each(clearSights)('%s, %s: settles its link, whatever the code, and leads to Mend', (look, sight) => {
		const links = linksSeenBy(look, sight);
		for (const one of types.filter(({ type }) => suits(look, type)))
			for (const dtc of [OPEN, ERRATIC]) {
				const maker = oneCodeRead(one.type, 'brake', dtc, 0x2f);
				const before = about(maker, one);
				// Some are of another family's part.
				if (!before.model.faults.some(({ fault, place }) => place === AT && links.includes(fault.link)))
					continue;
				looked(maker, look, [sight]);
				const after = about(maker, one);
				const which = `${one.type.id} ${dtc}`;
				expect(atLinks(after, links), which).toBeGreaterThan(0.97);
				// What its code says too leaves next to nothing to test; where it says another thing, that is still looked for.
				if (dtc === CODE_OF[links[0] as Link]) {
					expect(after.decision.test?.minutes ?? 0, which).toBeLessThanOrEqual(DECIDES_MIN);
					expect(after.model.repairs[after.decision.mending[0]?.repair ?? -1]?.place, which).toBe(AT);
				}
			}
	});

	it('a lead cut clean through asks for nothing more', () => {
		for (const one of types)
			for (const sight of ['cut', 'rubbed']) {
				const maker = oneCodeRead(one.type, 'brake', OPEN, 0x2f);
				looked(maker, 'lead', [sight]);
				const { decision, model } = about(maker, one);
				expect(decision.test, one.type.id).toBeNull();
				expect(model.repairs[decision.mending[0]?.repair ?? -1]?.id).toMatch(/lead@rear-left$/);
			}
	});

	it('a bent bracket never speaks for a shorted coil', () => {
		const one = types.find(({ type }) => familiesAt(type, AT).some(([family]) => family === 'passive'));
		if (!one) throw new Error('no vehicle with coils');
		const maker = oneCodeRead(one.type, 'brake', ERRATIC, 0x2f);
		const coil = one.model.faults.findIndex(({ id }) => id === `sensor-coil-shorted@${AT}`);
		expect(coil).toBeGreaterThanOrEqual(0);
		const before = about(maker, one).belief.present[coil] ?? 0;
		looked(maker, 'bracket', ['bent']);
		expect(about(maker, one).belief.present[coil]).toBeLessThan(before);
	});

	it('bad without a what moves little, and never another place', () => {
		for (const one of types)
			for (const { id, gapMm } of inspections.filter(({ id: look }) => suits(look, one.type))) {
				if (gapMm) continue;
				const maker = oneCodeRead(one.type, 'brake', OPEN, 0x2f);
				const before = about(maker, one);
				looked(maker, id, []);
				const after = about(maker, one);
				const odds = (p: number) => p / (1 - p);
				for (const [i, { place, id: fault }] of one.model.faults.entries()) {
					const [was, is] = [before.belief.present[i] ?? 0, after.belief.present[i] ?? 0];
					if (was < 1e-4) continue;
					expect(odds(is) / odds(was), `${one.type.id} ${id} ${fault}`).toBeLessThan(5);
					if (place !== AT) expect(is, `${one.type.id} ${id} ${fault}`).toBeLessThan(was * 1.5 + 1e-3);
				}
			}
	});

	it('what is clear at another wheel than its code is a second thing wrong', () => {
		const one = types[0] as (typeof types)[number];
		const maker = oneCodeRead(one.type, 'brake', OPEN, 0x2f);
		looked(maker, 'lead', ['rubbed'], 'front-right');
		const after = about(maker, one);
		expect(atLinks(after, ['harness'], 'front-right')).toBeGreaterThan(0.9);
	});
});

describe('a look that found something', () => {
	it('counts by what is clearest of it, also where it was written before ticks had names', () => {
		const look = (sights: string[], found: string[] = []) => ({ inspection: 'pins', sights, found });
		expect(outcomeOfLook(look(['not-home', 'pushed-back']))).toBe('pushed-back');
		expect(outcomeOfLook(look([], ['pushed back']))).toBe('pushed-back');
		expect(outcomeOfLook(look([], ['somehow odd']))).toBe('bad');
		expect(outcomeOfLook({ inspection: 'water', sights: ['seal', 'wet'], found: [] })).toBe('wet');
		expect(sightsSeen({ inspection: 'lead', found: ['rubbed through', 'no such thing'] })).toEqual([
			'rubbed'
		]);
		// With a feeler: it is the number that tells.
		expect(outcomeOfLook({ inspection: 'gap', sights: ['too-wide'], found: [] })).toBe('bad');
	});

	it('accuses the links of what is seen so', () => {
		expect(linksSeenBy('seating', 'wrong-part')).toEqual(['sensor']);
		expect(linksSeenBy('bracket', 'bent')).toEqual(['gap']);
		expect(linksSeenBy('seating', 'worn')).toEqual(['gap']);
	});
});
