import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { exposedAt, exposedByVehicle, motorBrakeAt } from '../exposed';
import { vehicleTypes } from '../index';
import { reasonModel } from '../reason/model';
import { familyAccess, testsFor } from '../reason/tests';
import { familiesAt, withDrawnFamilies, withFamilyAt } from '../wheelSensors';
import { untoldPinAt, wirePath } from '../measurePoints';
import { checkDescription, readDescription } from './check';
import { completed } from './complete';
import { differences, learned } from './differences';
import { cornerDrawing, networkDrawing } from './drawings';
import { corrected } from './correct';
import { knownCircumferenceM, knownSenseOhms, knownTeeth } from './known';
import { Given, TEMPLATES, vehicleSchemaText, type Template } from './given';
import { linkRoutesOf, modulesToAsk } from './linkRoutes';
import { newDescription, type Answers } from './newDescription';
import { roleOfModule } from './roleOfModule';
import {
	descriptionOf,
	FullDescription,
	vehicleTypeOf,
	type Described,
	type VehicleType
} from './vehicleType';
import { isPinTold, pinPath } from './pins';
import { withCoding, withModules, withRoles } from './withModules';

function made(answers: Answers): Described {
	const one = newDescription(answers);
	if (!one.ok) throw new Error(one.error);
	return one.value;
}
const typeFrom = (answers: Answers) => vehicleTypeOf(made(answers));
const problemsIn = (value: unknown) => {
	const checked = checkDescription(value);
	return checked.ok ? [] : checked.problems;
};

it.each(readdirSync('library/vehicles'))('%s is taken back as it was passed on', (file) => {
	const text = readFileSync(`library/vehicles/${file}`, 'utf8');
	const checked = readDescription(text);
	if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
	expect(checked.described).toEqual(FullDescription.parse(JSON.parse(text)));
});

describe('a description made from what is known in two minutes', () => {
	it.each(TEMPLATES)('of a %s is taken, and taken again as it is', (template) => {
		const described = made({ template });
		const checked = readDescription(JSON.stringify(described));
		expect(checked).toMatchObject({ ok: true, described });
		for (const { accessMin } of described.modules) expect(accessMin).toBeGreaterThan(0);
		expect(
			described.wheels.every(({ position }) => described.assumed.includes(`wheels.${position}.ringTeeth`))
		).toBe(true);
		expect(described.assumed).not.toContain('id');
	});

	it('marks nothing as assumed that was said', () => {
		const { assumed, chassis, volts, model, id } = made({
			template: 'van',
			name: 'White van, 2011',
			drive: 'rear',
			volts: 24
		});
		expect([chassis.drive, volts, model, id]).toEqual(['rear', 24, 'White van, 2011', 'white-van-2011']);
		for (const path of ['chassis.drive', 'volts', 'model', 'id']) expect(assumed).not.toContain(path);
		expect(assumed).toContain('chassis.wheelbaseM');
	});

	it('has the modules that its words speak of', () => {
		const roles = (answers: Answers) => made(answers).modules.map(({ role }) => role);
		expect(roles({ template: 'car', stability: false })).not.toContain('yaw');
		expect(roles({ template: 'car', electricParkingBrake: true })).toContain('park-brake');
		expect(roles({ template: 'electric', electricParkingBrake: false })).not.toContain('park-brake');
		expect(made({ template: 'trailer', axles: 1 }).wheels.map(({ position }) => position)).toEqual([
			'axle1-left',
			'axle1-right'
		]);
	});

	it.each<[Answers, string]>([
		[{ template: 'trailer', axles: 4 }, 'a trailer has 1 to 3 axles, not 4'],
		[{ template: 'car', axles: 3 }, 'a car has 2 axles, not 3'],
		[
			{ template: 'motorcycle', sensors: [['front-left', 'passive']] },
			'a motorcycle has no “front-left”: it has front-wheel, rear-wheel'
		]
	])('refuses %j', (answers, error) => expect(newDescription(answers)).toEqual({ ok: false, error }));
});

describe('a description from a file', () => {
	it.each(readdirSync('library/vehicles'))('%s, as it is shipped, assumes nothing', (file) => {
		const checked = readDescription(readFileSync(`library/vehicles/${file}`, 'utf8'));
		expect(checked).toMatchObject({ ok: true, described: { assumed: [] } });
	});

	it.each([...vehicleTypes.values()])('$id comes back from a file as it was', (type) => {
		const again = readDescription(JSON.stringify(descriptionOf(type)));
		expect(again.ok && again.type).toEqual(type);
	});

	it('needs nothing but the wheels', () => {
		for (const [positions, template] of [
			[['front-left', 'front-right', 'rear-left', 'rear-right'], 'car'],
			[['front-wheel', 'rear-wheel'], 'motorcycle'],
			[['axle1-left', 'axle1-right', 'axle2-left', 'axle2-right', 'axle3-left', 'axle3-right'], 'trailer'],
			[['front-left'], 'car']
		] as [string[], Template][]) {
			const checked = checkDescription({ wheels: positions.map((position) => ({ position })) });
			expect(checked).toMatchObject({ ok: true });
			expect(checked.described?.model).toBe(template);
		}
	});

	it('keeps what is given and fills in the rest around it', () => {
		const { described } = checkDescription({
			model: 'estate',
			modules: [{ role: 'brake', accessMin: 40, address: '1234' }, { role: 'cluster' }],
			wheels: [{ position: 'front-left', ringTeeth: 52 }, { position: 'front-right' }]
		});
		expect(described?.modules.map(({ role, accessMin }) => [role, accessMin])).toEqual([
			['brake', 40],
			['cluster', 15]
		]);
		expect(described?.gateway).toBe('1234');
		expect(described?.wheels[0]?.ringTeeth).toBe(52);
		expect(described?.assumed).toContain('modules.cluster.accessMin');
		expect(described?.assumed).not.toContain('modules.brake.accessMin');
		expect(described?.assumed).not.toContain('wheels.front-left.ringTeeth');
		expect(described?.assumed).toContain('wheels.front-right.ringTeeth');
	});

	const car = () => JSON.parse(JSON.stringify(made({ template: 'car' })));
	type Spoil = (one: ReturnType<typeof car>) => void;
	it.each<[string, Spoil, string]>([
		['a wheel of no place', (one) => (one.wheels[0].position = 'middle'), 'wheels.middle.position'],
		['teeth below nothing', (one) => (one.wheels[1].ringTeeth = -3), 'wheels.front-right.ringTeeth'],
		['a wheel twice', (one) => one.wheels.push(one.wheels[0]), 'wheels.front-left'],
		['no wheels', (one) => (one.wheels = []), 'wheels'],
		['a word that is none', (one) => (one.colour = 'white'), ''],
		['minutes that are none', (one) => (one.modules[1].accessMin = 'long'), 'modules.brake.accessMin'],
		['a bus that is not there', (one) => (one.modules[1].segment = 'other bus'), 'modules.brake.segment'],
		['an axle that is not there', (one) => (one.parkingBrake.axles = [3]), 'parkingBrake.axles'],
		[
			'a wire to nowhere',
			(one) => one.harness.conductors[0].points.splice(1, 1, 'nothing.7'),
			'harness.conductors.wire 1'
		],
		['a gateway that nobody is', (one) => (one.gateway = 'FFFF'), 'gateway'],
		[
			'two of one address',
			(one) => (one.modules[2].address = one.modules[1].address),
			'modules (address).0028'
		],
		['nobody who reads the wheels', (one) => (one.modules[1].pins = { supply: 'supply' }), 'modules'],
		[
			'a plug twice',
			(one) => one.harness.plugs.push(one.harness.plugs[0]),
			'harness.plugs.front-left body plug'
		]
	])('with %s is refused whole, with the path and the reason', (_, spoil, path) => {
		const one = car();
		spoil(one);
		const problems = problemsIn(one);
		expect(problems.map((problem) => problem.path)).toContain(path);
		for (const { reason } of problems) expect(reason.length).toBeGreaterThan(8);
	});

	it.each(['', '[]', '{', 'null', '7', '{"wheels":7}', '{"wheels":[{"position":"__proto__"}]}'])(
		'%s is no description',
		(text) => expect(readDescription(text)).toMatchObject({ ok: false, described: null })
	);

	it('is published as it is read', () =>
		expect(readFileSync('docs/formats/vehicle.schema.json', 'utf8')).toBe(vehicleSchemaText()));

	it('is the same whether what is usual was written down or left out', () => {
		const given = Given.parse({
			template: 'car',
			wheels: [{ position: 'rear-left' }, { position: 'rear-right' }]
		});
		const once = completed(given);
		expect(completed(Given.parse(once))).toEqual(once);
	});
});

describe('sensors that nobody has looked at', () => {
	const unknown = typeFrom({ template: 'car' });
	const mixed = typeFrom({
		template: 'car',
		sensors: [
			['front', 'passive'],
			['rear', 'two-wire']
		]
	});
	const ids = (type: typeof mixed) => new Set(testsFor(type).map(({ id }) => id));

	it('a test is for the family of its own wheel', () => {
		expect(ids(mixed)).toContain('meter:coil-ohms@front-left');
		expect(ids(mixed)).not.toContain('meter:coil-ohms@rear-left');
		expect(ids(mixed)).toContain('meter:feed-loaded@rear-right');
		expect(ids(mixed)).not.toContain('meter:feed-loaded@front-right');
	});

	it('what only one family can have is as likely as the family', () => {
		const prior = (type: typeof mixed, id: string) =>
			reasonModel(type).faults.find((fault) => fault.id === id)?.prior ?? 0;
		const share = familiesAt(unknown, 'front-left').find(([family]) => family === 'passive')?.[1] ?? 0;
		const known = prior(mixed, 'sensor-coil-open@front-left') / prior(mixed, 'gap-rust@front-left');
		const open = prior(unknown, 'sensor-coil-open@front-left') / prior(unknown, 'gap-rust@front-left');
		expect(prior(mixed, 'sensor-coil-open@rear-left')).toBe(0);
		// Of half the places each has a share by the square root of two.
		expect((open / known) * Math.SQRT2).toBeCloseTo(share, 2);
	});

	it('a test for some families costs telling first which it is', () => {
		const coil = testsFor(unknown).find(({ id }) => id === 'meter:coil-ohms@rear-left');
		expect(coil?.access.map(({ id }) => id)).toContain(familyAccess('rear-left'));
		const spin = testsFor(unknown).find(({ id }) => id === 'spin@vehicle');
		expect(spin?.access.map(({ id }) => id).join()).not.toContain('family');
		const told = withFamilyAt(unknown, 'rear-left', 'two-wire');
		expect(ids(told)).not.toContain('meter:coil-ohms@rear-left');
		// Its axle has the same; of the other nobody has said anything.
		expect(ids(told)).not.toContain('meter:coil-ohms@rear-right');
		expect(ids(told)).toContain('meter:coil-ohms@front-right');
	});

	it('every sign has chances that sum to one, whatever is known', () => {
		for (const type of [unknown, typeFrom({ template: 'motorcycle' })]) {
			const model = reasonModel(type);
			const all = [...new Set(testsFor(type).flatMap(({ signs }) => signs))];
			// Tables take a while: every seventh sign, of all kinds and places.
			for (const key of all.filter((_, i) => i % 7 === 0)) {
				const table = model.sign(key);
				if (!table) continue;
				const width = table.outcomes.length;
				for (const row of [0, Math.floor(model.rows.length / 2), model.rows.length - 1]) {
					const chances = table.chance.subarray(row * width, (row + 1) * width);
					expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 6);
					expect(Math.min(...chances)).toBeGreaterThan(0);
				}
			}
		}
	});

	it('drawn by their odds, an axle has one family', () => {
		let seed = 0.1;
		const random = () => (seed = (seed * 9301 + 0.49297) % 1);
		const met = new Set<string>();
		for (let i = 0; i < 60; i++) {
			const drawn = withDrawnFamilies(unknown, random);
			const at = (position: string) => drawn.wheels.find((wheel) => wheel.position === position)?.sensor;
			expect(at('front-left')).toBe(at('front-right'));
			expect(drawn.wheels.map(({ sensor }) => sensor)).not.toContain('unknown');
			met.add(`${at('front-left')}/${at('rear-left')}`);
		}
		expect(met.size).toBeGreaterThan(4);
	});
});

describe('nothing is judged by what was assumed', () => {
	it('teeth, circumference and the sense resistor are known only where they were told', () => {
		const usual = typeFrom({ template: 'car' });
		const told = checkDescription({
			senseResistorOhms: 120,
			wheels: [{ position: 'front-left', ringTeeth: 43, circumferenceM: 2 }, { position: 'front-right' }]
		});
		if (!told.ok) throw new Error('not taken');
		const of = (type: typeof usual, position: string) => [
			knownTeeth(type, position),
			knownCircumferenceM(type, position),
			knownSenseOhms(type)
		];
		expect(of(usual, 'front-left')).toEqual([null, null, null]);
		expect(of(told.type, 'front-left')).toEqual([43, 2, 120]);
		expect(of(told.type, 'front-right')).toEqual([null, null, 120]);
		expect(of(told.type, 'roof')).toEqual([null, null, 120]);
		expect([knownTeeth(null, 'front-left'), knownSenseOhms(null)]).toEqual([null, null]);
	});
});

describe('that a danger is usually not there does not take its caution away', () => {
	const rear = (type: VehicleType) => motorBrakeAt(type, type.wheels.at(-1)?.position ?? '');
	it('high voltage and a motor at the parking brake are cautioned until somebody has said', () => {
		const car = typeFrom({ template: 'car' });
		expect(exposedByVehicle(car)).toEqual(['high-voltage-unknown']);
		expect(rear(car)).toBe('not-known');
		const told = typeFrom({ template: 'car', highVoltage: false, electricParkingBrake: false });
		expect([exposedByVehicle(told), rear(told)]).toEqual([[], 'no']);
		const hybrid = typeFrom({ template: 'car', highVoltage: true, electricParkingBrake: true });
		expect([exposedByVehicle(hybrid), rear(hybrid)]).toEqual([['high-voltage'], 'yes']);
		expect(exposedByVehicle(typeFrom({ template: 'electric' }))).toEqual(['high-voltage']);
		expect(exposedByVehicle(typeFrom({ template: 'trailer' }))).toEqual(['air-brakes-unknown']);
		expect(exposedByVehicle(typeFrom({ template: 'motorcycle' }))).toEqual(['high-voltage-unknown']);
		expect(rear(typeFrom({ template: 'motorcycle' }))).toBe('no');
	});
	it('compressed air likewise, on what may have it', () => {
		const truck = (airBrakes?: boolean) =>
			exposedByVehicle(typeFrom({ template: 'light-truck', highVoltage: false, airBrakes }));
		expect([truck(), truck(true), truck(false)]).toEqual([['air-brakes-unknown'], ['air-brakes'], []]);
	});

	it('what may feed the restraint module too is near it, until somebody has looked it up', () => {
		const described = made({ template: 'car' });
		expect(exposedAt(vehicleTypeOf(described), 'brake control ground')).toEqual(['restraint-near']);
		const looked = corrected(described, [
			{ path: 'harness.grounds.brake control ground.where', value: 'left wheel arch' }
		]);
		expect(looked.ok && exposedAt(vehicleTypeOf(looked.value), 'brake control ground')).toEqual([]);
	});

	it('no description opens a restraint module', () => {
		const opened = {
			wheels: [{ position: 'front-left' }],
			modules: [{ role: 'brake' }, { role: 'restraint', work: 'open' }]
		};
		expect(problemsIn(opened).map(({ path }) => path)).toEqual(['modules.restraint.work']);
		const left = checkDescription({ ...opened, modules: [{ role: 'brake' }, { role: 'restraint' }] });
		expect(left.described?.modules[1]?.work).toBe('maker-procedure-only');
	});
});

describe('what is found out about a vehicle', () => {
	const car = made({ template: 'car' });
	it('is no longer assumed, and all else is as it was', () => {
		const next = corrected(car, [
			{ path: 'wheels.front-left.ringTeeth', value: 43 },
			{ path: 'wheels.front-left.sensor', value: 'passive' },
			{ path: 'modules.brake.accessMin', value: 60 },
			{ path: 'harness.plugs.front-left body plug.where', value: 'behind the headlamp' },
			{ path: 'harness.conductors.wire 1.colour', value: 'green/white' },
			{ path: 'chassis.drive', value: 'rear' },
			{ path: 'volts', value: 24 },
			{ path: 'highVoltage', value: true },
			{ path: 'parkingBrake.by', value: 'motor' }
		]);
		if (!next.ok) throw new Error(next.error);
		const { value } = next;
		expect(value.wheels[0]).toMatchObject({ ringTeeth: 43, sensor: 'passive' });
		expect(value.harness.plugs.find(({ name }) => name === 'front-left body plug')?.where).toBe(
			'behind the headlamp'
		);
		expect(value.assumed).toEqual(
			car.assumed.filter(
				(path) =>
					![
						'wheels.front-left.ringTeeth',
						'modules.brake.accessMin',
						'harness.plugs.front-left body plug',
						'harness.conductors.wire 1',
						'chassis.drive',
						'volts',
						'highVoltage',
						'parkingBrake'
					].includes(path)
			)
		);
		expect(value.wheels[1]).toEqual(car.wheels[1]);
		expect(car.wheels[0]?.ringTeeth).toBe(48);
	});
	it.each([
		['wheels.front-left.ringTeeth', -3, 'wheels.front-left.ringTeeth'],
		['wheels.roof.ringTeeth', 40, 'there is no “roof”'],
		['wheels.front-left.position', 'rear-left', 'cannot be put right here'],
		['wheels.front-left.__proto__', 1, 'cannot be put right here'],
		['harness.plugs.front-left body plug.accessMin', 'long', 'front-left body plug.accessMin'],
		['__proto__.x', 1, 'cannot be put right here'],
		['chassis.colour', 'red', 'no such thing'],
		['volts', 48, 'volts']
	])('%s = %s is refused, and nothing is taken', (path, value, error) => {
		const next = corrected(car, [
			{ path: 'chassis.drive', value: 'rear' },
			{ path, value }
		]);
		expect(next.ok).toBe(false);
		expect(!next.ok && next.error).toContain(error);
	});
});

describe('a pin that somebody tells', () => {
	const path = pinPath('brake', 'signal front-left');
	const tell = (description: Described, pin: string | number, at = path) =>
		corrected(description, [{ path: at, value: pin }]);
	const car = made({ template: 'car' });

	it('is called so from then on, with every wire that goes to it; the others stay open', () => {
		const next = tell(car, '23');
		if (!next.ok) throw new Error(next.error);
		const { modules, harness, assumed } = next.value;
		const brake = modules.find(({ role }) => role === 'brake');
		expect(brake?.pins['23']).toBe('signal front-left');
		expect(Object.values(brake?.pins ?? {})).toHaveLength(
			Object.keys(car.modules.find(({ role }) => role === 'brake')?.pins ?? {}).length
		);
		expect(harness.conductors.flatMap(({ points }) => points)).toContain('brake.23');
		expect(harness.conductors.flatMap(({ points }) => points)).not.toContain('brake.signal-front-left');
		expect(isPinTold({ assumed }, 'brake', 'signal front-left')).toBe(true);
		expect(isPinTold({ assumed }, 'brake', 'feed front-left')).toBe(false);
		const type = vehicleTypeOf(next.value);
		expect(untoldPinAt(type, 'front-left', 'module:signal')).toBeNull();
		expect(untoldPinAt(type, 'front-left', 'module:feed')).toBe(pinPath('brake', 'feed front-left'));
		expect(wirePath(type, 'front-left', 'signal')[0]?.words).toBe('Brake control, pin 23');
		// Told again it is put right; with another beside it both stand.
		const both = corrected(next.value, [
			{ path, value: 24 },
			{ path: pinPath('brake', 'feed front-left'), value: '23' }
		]);
		expect(both.ok && both.value.modules.find(({ role }) => role === 'brake')?.pins).toMatchObject({
			23: 'feed front-left',
			24: 'signal front-left'
		});
	});

	it.each([
		['signal-front-right', path],
		['', path],
		['2 3', path],
		['2.3', path],
		['23', pinPath('brake', 'signal middle')],
		['23', pinPath('no-such', 'supply')]
	])('“%s” is refused at %s, and nothing is changed', (pin, at) => expect(tell(car, pin, at).ok).toBe(false));
});

describe('what a search tells of a vehicle', () => {
	const told = [
		{ role: 'brake' as const, address: '0720', name: 'Wheel brakes' },
		{ role: 'yaw' as const, address: '0740' }
	];

	it('says where modules answer, and drops those that were only assumed to be there', () => {
		const found = withModules(made({ template: 'car' }), 'can', told, 24);
		if (!found.ok) throw new Error(found.error);
		const type = vehicleTypeOf(found.value);
		expect(type.modules.map(({ role, name, can }) => [role, name, can])).toEqual([
			['brake', 'Wheel brakes', '720:728'],
			['yaw', 'Yaw and lateral sensor', '740:748']
		]);
		expect(type.assumed).not.toContain('modules');
		expect(type.assumed).not.toContain('modules.brake.name');
		expect(type.assumed.some((path) => path.includes('cluster'))).toBe(false);
		expect([type.volts, type.assumed.includes('volts')]).toEqual([24, false]);
		expect(modulesToAsk(type, 'can')).toHaveLength(2);
		// What answers on CAN says nothing of a network.
		expect(modulesToAsk(type, 'network')).toEqual([]);
		expect(linkRoutesOf(type).can.get(parseInt(type.modules[0]!.address, 16))).toMatchObject({
			request: 0x720
		});
	});

	it('takes tyre and ring of the first axle from what a module is coded with, until somebody has looked', () => {
		const car = made({ template: 'car' });
		const coded = withCoding(car, { circumferenceMm: 1990, teeth: 44 });
		const wheels = coded.ok ? coded.value.wheels : [];
		expect(wheels.map(({ ringTeeth }) => ringTeeth)).toEqual([
			44,
			44,
			car.wheels[2]?.ringTeeth,
			car.wheels[3]?.ringTeeth
		]);
		expect(wheels[0]?.circumferenceM).toBe(1.99);
		// It may be coded wrongly: nothing is judged by it.
		expect(coded.ok && coded.value.assumed).toEqual(car.assumed);
		const counted = corrected(car, [{ path: 'wheels.front-left.ringTeeth', value: 48 }]);
		const kept = counted.ok ? withCoding(counted.value, { circumferenceMm: null, teeth: 44 }) : counted;
		expect(kept.ok && kept.value.wheels.map(({ ringTeeth }) => ringTeeth).slice(0, 2)).toEqual([48, 44]);
		// 65 mm is no tyre.
		expect(withCoding(car, { circumferenceMm: 65, teeth: null }).ok).toBe(false);
	});

	it('adds to what is known: over a second link, and of what was drawn', () => {
		const first = withModules(made({ template: 'car' }), 'can', told);
		const second = first.ok
			? withModules(first.value, 'network', [{ role: 'brake', address: '1010' }])
			: first;
		if (!second.ok) throw new Error(second.error);
		// The yaw sensor answered once: it stays.
		expect(second.value.modules.map(({ role, can, doip }) => [role, can, doip])).toEqual([
			['yaw', '740:748', undefined],
			['brake', '720:728', '1010']
		]);
		const drawn = descriptionOf(vehicleTypes.get('brindle-marlow-16')!);
		const more = withModules(drawn, 'network', [{ role: 'brake', address: '2010' }]);
		if (!more.ok) throw new Error(more.error);
		expect(more.value.harness).toEqual(drawn.harness);
		expect(more.value.modules).toHaveLength(drawn.modules.length);
	});

	it('is refused where two modules are said to be one, or none is named', () => {
		const twice = [told[0]!, { role: 'brake' as const, address: '0730' }];
		expect(withModules(made({ template: 'car' }), 'can', twice)).toMatchObject({ ok: false });
		expect(withModules(made({ template: 'car' }), 'can', [])).toMatchObject({ ok: false });
	});

	it('proposes what a module is by what it calls itself and by the codes it can set', () => {
		for (const [name, role] of [
			['Steering Wheel Angle Sensor', 'steering-angle'],
			['ELECTRIC POWER STEERING', 'power-steering'],
			['ABS/ESC', 'brake'],
			['Parking_brake', 'park-brake'],
			['Trailer brake control', 'trailer-brake'],
			['Airbag', 'restraint'],
			['Roof', null]
		] as const)
			expect(roleOfModule({ name, knows: [] }), name).toBe(role);
		expect(roleOfModule({ name: null, knows: ['403513', '404013', '404513', '405013'] })).toBe('brake');
		expect(roleOfModule({ name: null, knows: ['403513'] })).toBeNull();
		for (const { modules } of vehicleTypes.values())
			for (const { name, role } of modules) expect(roleOfModule({ name, knows: [] }), name).toBe(role);
	});
});

describe('versions of a description', () => {
	it('are told apart value by value, and by what was learned', () => {
		const first = made({ template: 'car' });
		const second = corrected(first, [
			{ path: 'wheels.front-left.ringTeeth', value: 44 },
			{ path: 'harness.plugs.front-left body plug.where', value: 'behind the headlamp' },
			{
				path: 'modules.brake.accessMin',
				value: first.modules.find(({ role }) => role === 'brake')!.accessMin
			}
		]);
		if (!second.ok) throw new Error(second.error);
		expect(differences(first, second.value)).toEqual([
			{
				path: 'wheels.front-left.ringTeeth',
				before: String(first.wheels[0]!.ringTeeth),
				after: '44'
			},
			{
				path: 'harness.plugs.front-left body plug.where',
				before: first.harness.plugs.find(({ name }) => name === 'front-left body plug')!.where,
				after: 'behind the headlamp'
			}
		]);
		expect(learned(first, second.value)).toHaveLength(3);
		expect(differences(first, first)).toEqual([]);
	});

	it('with a module less or more follow in the wiring, and keep what is known', () => {
		const first = corrected(made({ template: 'car' }), [{ path: 'modules.brake.accessMin', value: 77 }]);
		if (!first.ok) throw new Error(first.error);
		const second = withRoles(first.value, ['brake', 'cluster', 'park-brake']);
		if (!second.ok) throw new Error(second.error);
		const { modules, harness, assumed } = second.value;
		expect(modules.map(({ role, accessMin }) => [role, accessMin])).toEqual([
			['brake', 77],
			['cluster', 15],
			['park-brake', 25]
		]);
		expect(assumed).not.toContain('modules.brake.accessMin');
		expect(harness.fuses.map(({ name }) => name).join()).toContain('parking brake');
		expect(harness.fuses.map(({ name }) => name).join()).not.toContain('restraint');
		const changed = differences(first.value, second.value);
		expect(changed).toContainEqual({ path: 'modules.engine', before: 'there', after: null });
		expect(changed).toContainEqual({ path: 'modules.park-brake', before: null, after: 'there' });
		expect(changed.some(({ path }) => path.startsWith('modules.engine.'))).toBe(false);
		expect(withRoles(first.value, [])).toMatchObject({ ok: false });
		// Where the wiring was drawn, a module that it feeds is not simply gone.
		const drawn = descriptionOf(vehicleTypes.get('brindle-marlow-16')!);
		expect(withRoles(drawn, ['cluster'])).toMatchObject({ ok: false });
	});

	it('are drawn with every module and every wire, whatever their names', () => {
		const odd = corrected(made({ template: 'trailer' }), [
			{ path: 'modules.trailer-brake.name', value: 'A "b" \\ <c> & é' }
		]);
		if (!odd.ok) throw new Error(odd.error);
		for (const type of [...vehicleTypes.values(), vehicleTypeOf(odd.value)]) {
			const dot = networkDrawing(type);
			for (const { role } of type.modules) expect(dot).toContain(`"module:${role}"`);
			for (const { position } of type.wheels) {
				const wires = cornerDrawing(type, position);
				const conductors = type.harness.conductors.filter(({ points }) =>
					points.some((one) => one.startsWith(`${position}.`))
				);
				expect(wires.match(/ -> /g) ?? []).toHaveLength(
					conductors.reduce((sum, { points }) => sum + points.length - 1, 0)
				);
			}
		}
	});
});
