import { describe, expect, it } from 'vitest';
import { isByEyeAlone } from '../../../../library/reason/sights';
import { signOf, splitKey, type Seen } from '../../../../library/reason/signs';
import { testsFor } from '../../../../library/reason/tests';
import { typeOf } from '../bench.fixture';
import { benchFault, type BenchFault } from '../faults/benchFault';
import { uniform } from '../vehicle';
import { mixedSeed } from './mixedSeed';
import { busFall } from './busFall';
import { SimulatedTechnician } from './simulatedTechnician';
import { trialVehicle } from './trialVehicle';

const MINIBUS = 'brindle-marlow-16';
const AMBULANCE = 'velmora-skiff';

/** A person at a vehicle that was driven to the shop. */
function at(vehicle: string, ...faults: BenchFault[]) {
	const type = typeOf(vehicle);
	const technician = new SimulatedTechnician(trialVehicle(type, faults, 3), uniform(mixedSeed(5)));
	const arrived = technician.arrives();
	const tests = new Map(testsFor(type).map((test) => [test.id, test]));
	const does = (id: string): Seen => {
		const test = tests.get(id);
		if (!test) throw new Error(`${vehicle} has no test ${id}`);
		return technician.perform(test);
	};
	return { arrived, does, tests };
}
const remarkable = (seen: Seen) =>
	Object.entries(seen).filter(([key, outcome]) => signOf(splitKey(key).sign).good !== outcome);

describe('a sound vehicle', () => {
	it.each([MINIBUS, AMBULANCE])(
		'%s: every test that looks at the whole, a wheel or a module says good',
		(id) => {
			const { arrived, does, tests } = at(id);
			expect(remarkable(arrived)).toEqual([]);
			for (const test of tests.values()) {
				if (!['vehicle', 'rear-left', 'brake', 'F14', 'G1', 'S7'].includes(test.place)) continue;
				// Eyes imagine something now and then.
				if (test.signs.some((key) => isByEyeAlone(signOf(splitKey(key).sign)))) continue;
				expect(remarkable(does(test.id)), test.id).toEqual([]);
			}
		}
	);
});

describe('a vehicle that stood overnight', () => {
	const technician = new SimulatedTechnician(
		trialVehicle(typeOf(MINIBUS), [benchFault('sensor-dies-hot', 'front-left')], 3),
		uniform(mixedSeed(5))
	);
	const does = (id: string) => {
		const test = testsFor(typeOf(MINIBUS)).find((one) => one.id === id);
		if (!test) throw new Error(id);
		return Object.values(technician.perform(test));
	};

	it('has a sensor that dies warm: water and steering leave it, hot air takes it, and it comes back cold', () => {
		expect(does('spray@front-left')).toEqual(['steady']);
		expect(does('lock@front-left')).toEqual(['steady']);
		expect(does('warm@front-left')).toEqual(['changes']);
		expect(does('spray@front-left')).toEqual(['steady']);
	});
});

describe('what each test shows of a fault comes from the physics', () => {
	it.each([
		[
			'an open feed wire',
			MINIBUS,
			benchFault('lead-open', 'rear-left'),
			[
				['scan@vehicle', 'wheel-code@rear-left', 'open'],
				['scan@vehicle', 'accused@brake', 'invalid'],
				['recheck@vehicle', 'back@rear-left', 'yes'],
				['meter:feed-at-sensor@rear-left', 'meter:feed-at-sensor@rear-left', 'low'],
				['meter:lead-feed@rear-left', 'meter:lead-feed@rear-left', 'high'],
				['substitute@rear-left', 'substitute@rear-left', 'nothing'],
				['substitute@rear-right', 'substitute@rear-right', 'follows']
			]
		],
		[
			'a dead coil',
			AMBULANCE,
			benchFault('sensor-coil-open', 'front-left'),
			[
				['meter:coil-ohms@front-left', 'meter:coil-ohms@front-left', 'high'],
				['meter:lead-signal@front-left', 'meter:lead-signal@front-left', 'in'],
				['scope-sensor@front-left', 'scope-sensor@front-left', 'flat'],
				['wave@front-left', 'wave@front-left', 'nothing'],
				['wave@front-right', 'wave@front-right', 'answers'],
				['substitute@front-left', 'substitute@front-left', 'follows']
			]
		],
		[
			'a missing tooth',
			MINIBUS,
			benchFault('ring-tooth-missing', 'front-right'),
			[
				['scan@vehicle', 'wheel-code@front-right', 'none'],
				['road@vehicle', 'road@front-right', 'slower'],
				['scope-sensor@front-right', 'scope-sensor@front-right', 'gap'],
				['scope-module@front-right', 'scope-module@front-right', 'gap']
			]
		],
		[
			'a weak encoder before a sound sensor',
			MINIBUS,
			benchFault('encoder-weak', 'rear-left'),
			[
				['scope-sensor@rear-left', 'scope-sensor@rear-left', 'flat'],
				['wave@rear-left', 'wave@rear-left', 'answers']
			]
		],
		[
			'a dead sensor before a sound encoder',
			MINIBUS,
			benchFault('sensor-dead', 'rear-left'),
			[['wave@rear-left', 'wave@rear-left', 'nothing']]
		],
		[
			'a ring out of true',
			MINIBUS,
			benchFault('ring-run-out', 'rear-left'),
			[
				['true@rear-left', 'true@rear-left', 'out'],
				['true@rear-right', 'true@rear-right', 'true']
			]
		],
		[
			'a temporary spare',
			MINIBUS,
			benchFault('tyre-temporary-spare', 'rear-right'),
			[
				['tyres@vehicle', 'tyre@rear-right', 'other-size'],
				['tyres@vehicle', 'tyre@rear-left', 'right'],
				['road@vehicle', 'road@rear-right', 'faster'],
				['recheck@vehicle', 'back@rear-right', 'no']
			]
		],
		[
			'a steering angle never reset',
			MINIBUS,
			benchFault('steering-angle-off-centre', 'steering-angle'),
			[
				['sense@steering-angle', 'sense@steering-angle', 'off'],
				['learned@steering-angle', 'learned@steering-angle', 'yes']
			]
		],
		[
			'a branch shorted to ground',
			MINIBUS,
			benchFault('bus-high-to-ground', 'cluster'),
			[
				['scan@vehicle', 'hushed@brake', 'yes'],
				['meter:bus-high@brake', 'meter:bus-high@brake', 'low'],
				['bus-fall@brake', 'bus-fall@brake', 'elsewhere'],
				['bus-fall@gateway', 'bus-fall@gateway', 'elsewhere'],
				['bus-fall@cluster', 'bus-fall@cluster', 'here'],
				['bus-fall@engine', 'bus-fall@engine', 'none']
			]
		],
		[
			'a loose plug',
			MINIBUS,
			benchFault('sensor-plug-loose', 'rear-left'),
			[
				['wiggle-plug@rear-left', 'wiggle-plug@rear-left', 'changes'],
				['wiggle-lead@rear-left', 'wiggle-lead@rear-left', 'steady'],
				['wiggle-plug@rear-right', 'wiggle-plug@rear-right', 'steady']
			]
		],
		[
			'a spread socket at the module',
			MINIBUS,
			benchFault('module-pin-spread', 'rear-left'),
			[
				['wiggle-far@rear-left', 'wiggle-far@rear-left', 'changes'],
				['wiggle-plug@rear-left', 'wiggle-plug@rear-left', 'steady'],
				['wiggle-far@rear-right', 'wiggle-far@rear-right', 'steady']
			]
		],
		[
			'water in a plug',
			MINIBUS,
			benchFault('sensor-plug-wet', 'rear-left'),
			[
				['meter:wires-apart@rear-left', 'meter:wires-apart@rear-left', 'in'],
				['spray@rear-left', 'spray@rear-left', 'changes']
			]
		],
		[
			'a sensor that dies warm',
			MINIBUS,
			benchFault('sensor-dies-hot', 'front-left'),
			[
				// Its hub is warm from the drive here: it is away already.
				['warm@front-left', 'warm@front-left', 'dead'],
				['warm@front-right', 'warm@front-right', 'steady']
			]
		],
		[
			'a lead that parts when the steering bends it',
			MINIBUS,
			benchFault('lead-breaks-when-turned', 'front-left'),
			[
				['lock@front-left', 'lock@front-left', 'changes'],
				['warm@front-left', 'warm@front-left', 'steady'],
				['lock@front-right', 'lock@front-right', 'steady']
			]
		],
		[
			'a sensor that dies at random, in gear',
			MINIBUS,
			benchFault('sensor-dies-at-random', 'rear-left', 0.6, 0.05),
			[
				['in-gear@rear-left', 'in-gear@rear-left', 'changes'],
				['in-gear@rear-right', 'in-gear@rear-right', 'steady']
			]
		],
		[
			'a blown fuse',
			MINIBUS,
			benchFault('fuse-blown', 'F14'),
			[
				['fuse@F14', 'fuse@F14', 'blown'],
				['scan@vehicle', 'silent@cluster', 'silent'],
				['scan@vehicle', 'silent@brake', 'answers']
			]
		],
		[
			'a worn battery',
			MINIBUS,
			benchFault('battery-weak', 'vehicle'),
			[['battery@vehicle', 'battery@vehicle', 'low']]
		],
		[
			'another variant coded',
			MINIBUS,
			benchFault('coded-other-variant', 'brake'),
			[['coding@brake', 'coding@brake', 'variant']]
		]
	] as const)('%s on %s', (_, vehicle, fault, shows) => {
		const { does } = at(vehicle, fault);
		const done = new Map<string, Seen>();
		for (const [test, key, outcome] of shows) {
			const seen = done.get(test) ?? does(test);
			done.set(test, seen);
			expect(seen[key], `${test} ${key}`).toBe(outcome);
		}
	});
});

describe('what was made wet', () => {
	it('is dry again before anything else is measured', () => {
		const { does } = at(MINIBUS, benchFault('sensor-plug-wet', 'front-left'));
		const apart = () => does('meter:wires-apart@front-left')['meter:wires-apart@front-left'];
		expect(apart()).toBe('in');
		expect(does('spray@front-left')['spray@front-left']).toBe('changes');
		expect(apart()).toBe('in');
	});
});

describe('tyres of another size on an axle', () => {
	it.each(['rear-left', 'rear-right'])('are put right from the %s', (position) => {
		const vehicle = trialVehicle(typeOf(MINIBUS), [benchFault('tyres-odd-axle', 'rear-right')], 3);
		vehicle.mend('front-left', 'fit-right-tyre');
		expect(vehicle.faults).toHaveLength(1);
		vehicle.mend(position, 'fit-right-tyre');
		expect(vehicle.faults).toEqual([]);
	});
});

describe('a short of the bus', () => {
	const type = typeOf(AMBULANCE);
	it.each(['bus-high-to-supply', 'bus-low-to-supply', 'bus-high-to-ground', 'bus-lines-touch'])(
		'%s reads lowest in its own branch and nowhere else, hard or slight',
		(id) => {
			for (const severity of [0.05, 1])
				for (const { role, segment } of type.modules) {
					const vehicle = trialVehicle(type, [{ id, at: role, severity, everyKm: null }], 3);
					for (const other of type.modules.filter((one) => one.segment === segment))
						expect(busFall(vehicle, other.role), `${role} seen at ${other.role}`).toBe(
							other.role === role ? 'here' : 'elsewhere'
						);
				}
		}
	);
});

describe('a vehicle that shows nothing', () => {
	it('is driven until it shows something, and told from one that does', () => {
		const shown = (...faults: BenchFault[]) => {
			const technician = new SimulatedTechnician(trialVehicle(typeOf(MINIBUS), faults, 3), uniform(5));
			technician.arrives(2);
			return technician.shown;
		};
		expect(shown()).toBe(false);
		expect(shown(benchFault('lead-open', 'rear-left'))).toBe(true);
		expect(shown(benchFault('module-ground-corroded', 'steering-angle', 0.15))).toBe(false);
	});
});

describe('seeds', () => {
	it('that count up begin far apart', () => {
		const first = Array.from({ length: 200 }, (_, i) => uniform(mixedSeed(i))());
		const mean = first.reduce((a, b) => a + b, 0) / first.length;
		expect(mean).toBeGreaterThan(0.4);
		expect(mean).toBeLessThan(0.6);
		expect(new Set(first.map((x) => Math.floor(x * 10))).size).toBe(10);
		expect(new Set(Array.from({ length: 5000 }, (_, i) => mixedSeed(i))).size).toBe(5000);
	});
});
