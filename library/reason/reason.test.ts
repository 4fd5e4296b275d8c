import { describe, expect, it } from 'vitest';
import { CODE_TEXT, dtcHex } from '../../src/lib/core/codes/dtc';
import { accusationIn } from '../accusations';
import { bookOf, shippedBook, shippedPacks } from '../codes';
import { faults } from '../faults';
import { allPlaces, placesFor } from '../faultPlaces';
import { repairs } from '../repairs';
import { vehicleTypes } from '../vehicles';
import { codeSigns, isSilent, type CodeForSigns } from './codeSigns';
import { afterWork, repairInducedBy, repairInducedByOurs } from './repairInduced';
import { reasonModel } from './model';
import { approachOf } from './approaches';
import priors from './priors.json' with { type: 'json' };
import { faultClass, hangingOn, relationOf } from './relations';
import { mayProve, replacedKey, searchKey } from './ruledSigns';
import { againKey, signKey, signOf, signs, splitKey } from './signs';
import { canBeDone, onceMore, otherEndOf, testKinds, testsFor } from './tests';

const minibus = vehicleTypes.get('brindle-marlow-16');
const trailer = vehicleTypes.get('hexley-drover');
if (!minibus || !trailer) throw new Error('the library has no minibus or no trailer');

describe('what eyes see', () => {
	it('is a sign of the library with an outcome that is not the good one', () => {
		const sights = [...faults.values()].flatMap(({ id, visible }) => visible.map((one) => ({ id, ...one })));
		expect(sights.length).toBeGreaterThan(40);
		for (const { id, sign, as } of sights) {
			const known = signs.get(sign);
			expect(Object.keys(known?.outcomes ?? {}), `${id} ${sign}`).toContain(as);
			expect(as, `${id} ${sign}`).not.toBe(known?.good);
		}
	});

	it('may prove, and what is told may not', () => {
		expect(mayProve('look:ring@rear-left', 'bad')).toBe(true);
		expect(mayProve('wheel-code@rear-left', 'bad')).toBe(false);
		expect(mayProve('silent@brake', 'good')).toBe(true);
		expect(mayProve('silent@brake', 'bad')).toBe(false);
		expect(mayProve('replaced:renew-sensor@vehicle', 'good')).toBe(false);
	});
});

describe('the library of tests and signs', () => {
	it('has a usual outcome for every sign, and words for each of them', () => {
		for (const { id, good, outcomes } of signs.values()) expect(Object.keys(outcomes), id).toContain(good);
	});

	it('has a sign for every outcome of every test, and names the place it is seen at', () => {
		for (const type of vehicleTypes.values())
			for (const { id, signs: keys, access } of testsFor(type)) {
				expect(keys.length, id).toBeGreaterThan(0);
				for (const key of keys) expect(() => signOf(key.split('@')[0] ?? '')).not.toThrow();
				for (const { minutes } of access) expect(minutes).toBeGreaterThanOrEqual(0);
			}
		expect(() => signOf('no such sign')).toThrow(RangeError);
	});

	it('offers a family only the tests that suit it', () => {
		const ids = testsFor(minibus).map(({ kind }) => kind.id);
		expect(ids).not.toContain('meter:coil-ohms');
		expect(testsFor(trailer).map(({ kind }) => kind.id)).toContain('meter:coil-ohms');
		expect(testKinds.get('scope-sensor')?.access).toEqual(['lifted', 'plug']);
	});

	it('does a test once more under another name and other signs, as it came out', () => {
		const wiggle = testsFor(minibus).find(({ id }) => id === 'wiggle-lead@rear-left');
		if (!wiggle) throw new Error('no wiggle test');
		const more = onceMore(wiggle, () => 'steady');
		expect(more.id).toBe(wiggle.id);
		expect(more.kind.name).toMatch(/once more$/);
		expect(splitKey(more.signs[0] ?? '')).toEqual({
			sign: 'wiggle-lead',
			place: 'rear-left',
			beforeAt: null,
			before: 'steady'
		});
		expect(onceMore(wiggle, () => undefined).signs).toEqual(wiggle.signs);
	});

	it('offers nothing that needs an answer of a module that is silent', () => {
		const offered = (silent: string[]) =>
			testsFor(minibus)
				.filter((test) => canBeDone(test, minibus, new Set(silent)))
				.map(({ id }) => id);
		expect(offered([])).toHaveLength(testsFor(minibus).length);
		const withoutBrake = offered(['brake']);
		for (const id of ['coding@brake', 'road@vehicle', 'wiggle-lead@rear-left', 'substitute@front-left'])
			expect(withoutBrake).not.toContain(id);
		for (const id of ['shake@cluster', 'meter:module-supply@brake', 'look:pins@rear-left', 'fuse@F14'])
			expect(withoutBrake).toContain(id);
		expect(offered(['cluster'])).not.toContain('shake@cluster');
		expect(offered(['cluster'])).toContain('road@vehicle');
	});

	it('opens a middle plug only where the harness has one', () => {
		const middle = testsFor(minibus).filter(({ kind }) => kind.id === 'middle-plug');
		for (const { access } of middle) expect(access[0]?.minutes).toBeGreaterThan(0);
		expect(middle.length).toBeGreaterThan(0);
	});

	it('knows the other end of a bus segment: the gateway, and from there the far terminator', () => {
		expect(otherEndOf(minibus, 'cluster')).toBe('gateway');
		expect(otherEndOf(minibus, 'gateway')).toBe('brake');
	});

	it('knows every fault that it weighs, and a price and minutes for every repair that cures one', () => {
		for (const id of Object.keys(priors.weights)) expect(faults.has(id), id).toBe(true);
		for (const { id, curedBy } of faults.values())
			for (const repair of curedBy) expect(repairs.has(repair), `${id} ${repair}`).toBe(true);
	});
});

describe('relations', () => {
	const at = (kind: Parameters<typeof relationOf>[0]['kind'], place: string) => ({ kind, place });
	it.each([
		[at('corner', 'rear-left'), at('corner', 'rear-left'), 'same'],
		[at('corner', 'rear-left'), at('corner', 'rear-right'), 'mate'],
		[at('corner', 'rear-left'), at('corner', 'front-left'), 'other'],
		[at('corner', 'rear-left'), at('module', 'brake'), 'reader'],
		[at('module', 'brake'), at('corner', 'rear-left'), 'read'],
		[at('module', 'cluster'), at('module', 'brake'), 'segment'],
		[at('fuse', 'F14'), at('module', 'cluster'), 'hangs'],
		[at('fuse', 'F14'), at('module', 'brake'), 'segment'],
		[at('fuse', 'F14'), at('module', 'engine'), 'beyond'],
		[at('fuse', 'F12'), at('module', 'engine'), 'behind'],
		[at('fuse', 'F12'), at('corner', 'rear-left'), 'behind'],
		[at('fuse', 'F31'), at('corner', 'rear-left'), 'read'],
		[at('fuse', 'F14'), at('corner', 'rear-left'), 'other'],
		[at('vehicle', 'vehicle'), at('module', 'brake'), 'whole']
	] as const)('%o seen at %o: %s', (fault, seen, relation) => {
		expect(relationOf(fault, seen, minibus)).toBe(relation);
	});

	it('a gateway and the reader of the wheels are classes of their own', () => {
		expect(faultClass('module', 'gateway', minibus)).toBe('gateway');
		expect(faultClass('module', 'trailer-brake', trailer)).toBe('wheel-reader');
		expect(faultClass('module', 'cluster', minibus)).toBe('module');
	});

	it('a fuse of a pump or of the switch at the pedal is not one of a whole module', () => {
		expect(['F31', 'F30', 'F13'].map((fuse) => faultClass('fuse', fuse, minibus))).toEqual([
			'fuse',
			'pump-fuse',
			'switch-fuse'
		]);
		expect(hangingOn('F30', minibus).map(({ role }) => role)).toEqual(['brake']);
		expect(hangingOn('F14', minibus).map(({ role }) => role)).toEqual(['steering-angle', 'cluster']);
	});
});

const bare = (...dtcs: string[]): CodeForSigns[] =>
	dtcs.map((dtc) => ({
		dtc,
		status: null,
		passedSince: false,
		setAtKmh: null,
		setAtVolts: null,
		setAtC: null
	}));

describe('signs of a scan', () => {
	it('a code of a valve of a corner says nothing of the circuit of its wheel: the group decides', () => {
		const standard = shippedPacks.filter(({ maker }) => maker === null);
		const book = bookOf(standard);
		const valves = standard
			.flatMap(({ definitions }) => definitions)
			.filter(({ code }) => CODE_TEXT.test(code))
			.filter(({ corner, group }) => corner !== null && group === 'hydraulics');
		expect(valves.length).toBeGreaterThan(10);
		for (const { code } of valves) {
			const dtc = dtcHex(code, '13');
			const seen = codeSigns([{ role: 'brake', answered: true, codes: bare(dtc) }], minibus, book);
			const wheels = Object.entries(seen).filter(([key]) => key.startsWith('wheel-code@'));
			expect(
				wheels.map(([, outcome]) => outcome),
				code
			).toEqual(['none', 'none', 'none', 'none']);
			expect(seen['own-code@brake'], code).toMatch(/valve-13$/);
		}
	});

	it('the status tells what fails now, the snapshot where it was set', () => {
		const at = (status: number, setAtKmh: number | null, setAtC = 12, passedSince = false) =>
			codeSigns(
				[
					{
						role: 'brake',
						answered: true,
						codes: [{ dtc: '404513', status, passedSince, setAtKmh, setAtVolts: 9, setAtC }]
					}
				],
				minibus,
				shippedBook
			);
		expect(at(0x6c, 7, 31, true)).toMatchObject({
			'wheel-now@rear-left': 'passes',
			'wheel-set-air@rear-left': 'warm'
		});
		expect(at(0x2f, 0)).toMatchObject({
			'wheel-now@rear-left': 'failing',
			'wheel-set-at@rear-left': 'standing'
		});
		expect(at(0x2c, 60)).toMatchObject({
			'wheel-now@rear-left': 'passes',
			'wheel-set-at@rear-left': 'driving'
		});
		expect(at(0x6c, 7)).toMatchObject({
			'wheel-now@rear-left': 'not-run',
			'wheel-set-at@rear-left': 'crawling'
		});
		expect(at(0x2f, null)).not.toHaveProperty('wheel-set-at@rear-left');
		// Without a code there is nothing that could be there now or not.
		expect(at(0x2f, 0)).not.toHaveProperty('wheel-now@front-left');
	});

	it('a module that misses three is deaf itself and accuses nobody', () => {
		const deaf = codeSigns(
			[
				{ role: 'brake', answered: true, codes: bare('C12687', 'C12387', 'C10087') },
				{ role: 'cluster', answered: true, codes: [] },
				{ role: 'steering-angle', answered: true, codes: [] }
			],
			minibus,
			shippedBook
		);
		expect(deaf['deaf@brake']).toBe('yes');
		expect(deaf['accused@steering-angle']).toBe('none');
	});

	it('U02xx is silence of another as U01xx is, U03xx is software and accuses nobody', () => {
		const seen = (dtc: string) =>
			codeSigns(
				[
					{ role: 'cluster', answered: true, codes: bare(dtc) },
					{ role: 'brake', answered: true, codes: [] },
					{ role: 'steering-angle', answered: true, codes: [] }
				],
				minibus,
				shippedBook
			);
		expect(seen('C12687')['accused@steering-angle']).toBe('missing-one');
		expect(accusationIn('U0212', { sender: 'column' })).toEqual({ sender: 'column', says: 'missing' });
		expect(accusationIn('U0415', { sender: 'brake' })).toEqual({ sender: 'brake', says: 'invalid' });
		const software = seen('C31504');
		expect(software['accused@brake']).toBe('none');
		expect(software['own-code@cluster']).toBe('configuration-04');
	});

	it('a whole silent segment is one thing seen; single silences stay single', () => {
		const scan = (silent: (role: string) => boolean) =>
			codeSigns(
				minibus.modules.map(({ role }) => ({ role, answered: !silent(role), codes: [] })),
				minibus,
				shippedBook
			);
		const chassis = minibus.modules.find(({ role }) => role === 'brake')?.segment;
		const on = minibus.modules.filter((one) => one.segment === chassis && one.role !== 'gateway');
		const down = scan((role) => on.some((one) => one.role === role));
		expect(Object.values(down).filter((outcome) => outcome === 'silent')).toEqual([]);
		expect(
			Object.entries(down).filter(([key, seen]) => key.startsWith('down@') && seen === 'yes')
		).toHaveLength(1);
		for (const { role } of on) expect(isSilent('hushed', down[signKey('hushed', role)] ?? '')).toBe(true);
		const two = scan((role) => ['steering-angle', 'cluster'].includes(role));
		expect(two['silent@cluster']).toBe('silent');
		expect(Object.entries(two).some(([key, seen]) => key.startsWith('down@') && seen === 'yes')).toBe(false);
	});

	it('tells a code of the module itself by what it is about and how it fails', () => {
		const seen = codeSigns([{ role: 'brake', answered: true, codes: bare('413114') }], minibus, shippedBook);
		expect(seen['own-code@brake']).toBe('pressure-14');
	});
});

describe('the model of a vehicle', () => {
	it.each([...vehicleTypes.values()])('$id: chances of every row add up to one, priors too', (type) => {
		const model = reasonModel(type);
		expect(model.faults.reduce((sum, { prior }) => sum + prior, 0)).toBeCloseTo(1);
		const shares = new Float64Array(model.faults.length);
		for (const { fault, share } of model.rows) shares[fault] = (shares[fault] ?? 0) + share;
		for (const share of shares) expect(share).toBeCloseTo(1);
		const keys = testsFor(type).flatMap((test) => test.signs);
		for (const key of new Set([
			...keys,
			searchKey(type.wheels[0]?.position ?? ''),
			replacedKey('renew-sensor')
		])) {
			const table = model.sign(key);
			const { toldBy } = signs.get(splitKey(key).sign) ?? {};
			if (toldBy !== undefined) {
				expect(table, key).toBeNull();
				continue;
			}
			if (!table) throw new Error(key);
			const width = table.outcomes.length;
			let worst = 0;
			for (let row = 0; row < model.rows.length + model.faults.length; row++) {
				let sum = 0;
				for (let o = 0; o < width; o++) sum += table.chance[row * width + o] ?? NaN;
				if (!(Math.abs(sum - 1) <= worst)) worst = Math.abs(sum - 1);
			}
			expect(worst, key).toBeLessThan(1e-9);
		}
	});

	it('has every fault at every place where the vehicle can have it', () => {
		const model = reasonModel(minibus);
		for (const fault of faults.values())
			for (const place of placesFor(fault, minibus))
				expect(
					model.faults.some(({ id }) => id === signKey(fault.id, place)),
					fault.id
				).toBe(true);
		expect(allPlaces('corner', minibus)).toHaveLength(4);
	});

	it('a look once more tells of what comes and goes, and nothing new of what stays', () => {
		const model = reasonModel(minibus);
		const once = model.sign(signKey('road', 'rear-left'));
		const more = model.sign(againKey(signKey('road', 'rear-left'), 'clean'));
		if (!once || !more) throw new Error('no road test');
		const chance = (table: typeof once, id: string, bin: string, outcome: string) => {
			const row = model.rows.findIndex((one) => model.faults[one.fault]?.id === id && one.bin === bin);
			return table.chance[row * table.outcomes.length + table.outcomes.indexOf(outcome)] ?? NaN;
		};
		const sound = more.sound[more.outcomes.indexOf('clean')] ?? 0;
		expect(sound).toBeGreaterThan(0.95);
		// A wire that is open for good was clean on the road by mistake only: once more it is as clean.
		expect(chance(more, 'lead-open@rear-left', 'plain', 'clean')).toBe(sound);
		const fickle = chance(more, 'lead-pulled-tight@rear-left', 'plain', 'clean');
		expect(fickle).toBe(chance(once, 'lead-pulled-tight@rear-left', 'plain', 'clean'));
		expect(fickle).toBeLessThan(0.9);
	});

	it('has an odd axle put right from either side, and one odd tyre from its own', () => {
		const model = reasonModel(minibus);
		const curing = (id: string) =>
			model.faults.find((one) => one.id === id)?.curedBy.map((repair) => model.repairs[repair]?.id);
		expect(curing('tyres-odd-axle@rear-left')).toEqual([
			'fit-right-tyre@rear-left',
			'fit-right-tyre@rear-right'
		]);
		expect(curing('tyre-other-size@rear-left')).toEqual(['fit-right-tyre@rear-left']);
	});

	it('lets eyes look again as if for the first time', () => {
		const model = reasonModel(minibus);
		const once = model.sign(signKey('look:pins', 'rear-left'));
		const more = model.sign(againKey(signKey('look:pins', 'rear-left'), 'good'));
		expect(more?.chance).toEqual(once?.chance);
	});

	it('lets a prior repair of a part make that part’s faults less likely, and proves nothing', () => {
		const model = reasonModel(minibus);
		const table = model.sign(replacedKey('renew-sensor'));
		const row = (id: string) => model.rows.length + model.faults.findIndex((one) => one.id === id);
		const chance = (id: string) => table?.chance[row(id) * 2 + 1] ?? 0;
		expect(chance('sensor-dead@rear-left')).toBeLessThan(chance('lead-open@rear-left'));
		expect(chance('sensor-dead@rear-left')).toBeGreaterThan(0.1);
		expect(chance('sensor-wrong-part@rear-left')).toBe(chance('lead-open@rear-left'));
	});
});

describe('what work leaves behind', () => {
	const work = (named: string, change: Partial<Parameters<typeof afterWork>[1][number]> = {}) => ({
		work: named,
		leaves: 1,
		badPart: 1,
		position: null,
		...change
	});
	const model = reasonModel(minibus);
	const priorOf = (of: typeof model, id: string) => of.faults.find((one) => one.id === id)?.prior ?? NaN;

	it('is likelier after such work, and nothing else is; all add up to one', () => {
		const after = afterWork(model, [work('hub-bearing')]);
		expect(priorOf(after, 'encoder-reversed@rear-left')).toBeGreaterThan(
			3 * priorOf(model, 'encoder-reversed@rear-left')
		);
		expect(priorOf(after, 'module-not-coded@brake')).toBeLessThan(priorOf(model, 'module-not-coded@brake'));
		expect(after.faults.reduce((sum, { prior }) => sum + prior, 0)).toBeCloseTo(1);
		expect(afterWork(model, [])).toBe(model);
		expect(afterWork(model, [work('something-else')])).toBe(model);
	});

	it('counts by wheel, age and grade: long ago leaves nothing, a cheap sensor is likelier bad at its own wheel', () => {
		const of = (change: Parameters<typeof work>[1], id: string) =>
			priorOf(afterWork(model, [work('wheel-sensor', change)]), id) / priorOf(model, id);
		expect(of({ leaves: 0.1 }, 'sensor-pin-pushed-back@rear-left')).toBeLessThan(1.5);
		expect(of({}, 'sensor-pin-pushed-back@rear-left')).toBeGreaterThan(3);
		const at = { position: 'rear-left', badPart: 2 };
		expect(of(at, 'sensor-dead@rear-left')).toBeGreaterThan(1.6);
		expect(of(at, 'sensor-dead@rear-right')).toBeLessThan(1.1);
		expect(of(at, 'sensor-pin-pushed-back@rear-right')).toBeLessThan(1.1);
	});

	it.each([
		['wheel-sensor', 'sensor-wrong-part', 'tyre-other-size'],
		['yaw-sensor', 'yaw-zero-missing', 'sensor-wrong-part'],
		['tyres', 'tyre-other-size', 'sensor-wrong-part'],
		['hub-bearing', 'encoder-reversed', 'tyre-other-size'],
		['steering-gear', 'steering-angle-off-centre', 'encoder-reversed']
	])('%s: %s and not %s', (work, leaves, not) => {
		const left = repairInducedBy([work]);
		expect(left.get(leaves)).toBe(work);
		expect(left.has(not)).toBe(false);
	});

	it('of our own repairs goes by the repair: cleaning a module’s plug codes nothing wrong', () => {
		const model = reasonModel(minibus);
		const leftBy = (kind: string, place: string) => {
			const repair = model.repairs.find((one) => one.kind === kind && one.place === place);
			if (!repair) throw new Error(`no ${kind} at ${place}`);
			return repairInducedByOurs(model, repair, 'entry', 1);
		};
		for (const kind of ['clean-module-plug', 'code-module', 'calibrate'])
			expect(leftBy(kind, 'brake'), kind).toEqual([]);
		const sensor = leftBy('renew-sensor', 'rear-left');
		const ids = sensor.map(({ fault }) => model.faults[fault]?.id);
		expect(ids).toContain('sensor-pin-pushed-back@rear-left');
		expect(ids.every((id) => id?.endsWith('@rear-left'))).toBe(true);
		expect(sensor.reduce((sum, { prior }) => sum + prior, 0)).toBeCloseTo(0.03, 9);
		// A zero that is kept elsewhere is left behind there.
		const module = leftBy('renew-module', 'brake').map(({ fault }) => model.faults[fault]?.id);
		expect(module).toContain('module-not-coded@brake');
		expect(module).toContain('steering-angle-not-learned@steering-angle');
	});

	it('names only faults that work by a person puts there, or that it can disturb', () => {
		for (const id of repairInducedBy([
			'sensor',
			'hub',
			'tyre',
			'module',
			'steering',
			'battery',
			'pedal',
			'seat'
		]).keys())
			expect(faults.get(id)?.madeByUs, id).toBe(true);
	});
});

describe('schools', () => {
	it('disagree about tests that the library has', () => {
		const quarrels = [...testKinds.keys()].filter((kind) => approachOf(kind) !== null);
		expect(quarrels).toContain('substitute');
		for (const kind of quarrels)
			for (const instead of approachOf(kind)?.instead ?? [])
				expect(testKinds.has(instead), instead).toBe(true);
		expect(approachOf('battery')).toBeNull();
	});
});
