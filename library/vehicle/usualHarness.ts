import type { Harness } from '../harness';
import { chanceOf, familiesAt } from '../wheelSensors';
import type { WheelSensor } from '../sensorKinds';
import type { Described, ModuleRole } from './vehicleType';

/**
 * The wiring that is usual where nobody has looked it up: a feed and a ground for each module, a bus with a branch for each,
 * and a lead to every wheel with one plug on the way. Nothing bears a designation that some vehicle might really have.
 */

type Modules = readonly Omit<Described['modules'][number], 'pins'>[];
type Wheels = readonly (Described['wheels'][number] & { sensor: WheelSensor })[];
type Tells = Described['tells'];

/** Whether a module of this role reads the wheels of a vehicle. */
export const isReader = (role: ModuleRole, modules: Modules): boolean =>
	role === (modules.some((one) => one.role === 'brake') ? 'brake' : 'trailer-brake');

const NOT_KNOWN = 'not known for this vehicle';

/** Pins by what they are for: which cavity it is, nobody has told. */
export function usualPins(
	role: ModuleRole,
	{ modules, wheels, tells }: { modules: Modules; wheels: Wheels; tells: Tells }
): Record<string, string> {
	const does = ['supply', 'ground', ...(tells === 'link' ? ['bus-high', 'bus-low'] : [])];
	if (role === 'gateway' && new Set(modules.map(({ segment }) => segment)).size > 1)
		does.push('second-high', 'second-low');
	if (isReader(role, modules))
		for (const { position } of wheels) {
			does.push(`feed ${position}`, `signal ${position}`);
			// Where it may be one with three wires, there may be a third.
			if (chanceOf(familiesAt({ tells, wheels }, position), ['three-wire']) > 0)
				does.push(`reference ${position}`);
		}
	if (role === 'brake') does.push('pump-supply', 'pump-ground', 'brake-switch');
	if (isReader(role, modules) && tells === 'link')
		does.push('pressure-feed', 'pressure-signal', 'pressure-ground');
	return Object.fromEntries(does.map((one) => [one.replaceAll(' ', '-'), one]));
}

/** @param modules with the pins they have */
export function usualHarness(
	modules: readonly Described['modules'][number][],
	wheels: Wheels,
	tells: Tells
): Harness {
	const made = new Wiring();
	for (const module of modules) feedAndGround(made, module);
	if (tells === 'link') buses(made, modules);
	const reader = modules.find(({ role }) => isReader(role, modules));
	if (reader) for (const { position } of wheels) lead(made, reader, position);
	const pinOf = (does: string) => (reader ? pinFor(reader, does) : null);
	const switched = pinOf('brake-switch');
	if (switched) {
		made.fuse('brake switch feed', 10, 'battery');
		made.wire(['brake switch feed', 'brake-switch.1'], [1.5]);
		made.wire(['brake-switch.2', switched], [1.8]);
	}
	for (const [i, does] of ['pressure-feed', 'pressure-signal', 'pressure-ground'].entries()) {
		const pin = pinOf(does);
		if (pin) made.wire([pin, `pressure.${i + 1}`], [0.4]);
	}
	return made.harness;
}

class Wiring {
	readonly harness: Harness = {
		fuses: [],
		grounds: [],
		splices: [],
		plugs: [],
		segments: [],
		terminators: [],
		conductors: []
	};

	wire(points: string[], lengthsM: number[]): void {
		const { conductors } = this.harness;
		conductors.push({
			id: `wire ${conductors.length + 1}`,
			colour: 'colour not known',
			mm2: 0.5,
			points,
			lengthsM
		});
	}

	fuse(name: string, amps: number, feed: 'battery' | 'key'): void {
		this.harness.fuses.push({ name, amps, feed, where: NOT_KNOWN });
	}
}

type Module = Described['modules'][number];
function pinFor({ role, pins }: Module, does: string): string | null {
	const pin = Object.entries(pins).find(([, is]) => is === does)?.[0];
	return pin === undefined ? null : `${role}.${pin}`;
}

function feedAndGround(made: Wiring, module: Module): void {
	const name = module.name.toLowerCase();
	const own: [does: string, thing: string, amps: number | null][] = [
		['supply', `${name} feed`, 10],
		['pump-supply', `${name} pump feed`, 40],
		['ground', `${name} ground`, null],
		['pump-ground', `${name} ground`, null]
	];
	for (const [does, thing, amps] of own) {
		const pin = pinFor(module, does);
		if (!pin) continue;
		const { grounds } = made.harness;
		if (amps !== null) made.fuse(thing, amps, does === 'supply' ? 'key' : 'battery');
		else if (!grounds.some((one) => one.name === thing)) grounds.push({ name: thing, where: NOT_KNOWN });
		made.wire(amps === null ? [pin, thing] : [thing, pin], [1.5]);
	}
}

/** Each bus begins at the gateway and ends at its last module; the rest branch off at a splice. */
function buses(made: Wiring, modules: readonly Module[]): void {
	const { harness } = made;
	const gateway = modules.find(({ role }) => role === 'gateway');
	const own = gateway?.segment ?? modules[0]?.segment;
	for (const segment of new Set(modules.map((one) => one.segment))) {
		const members = modules.filter((one) => one.segment === segment && one !== gateway);
		// The module that reads the wheels sits at the far end, where there is one.
		const far = members.find(({ role }) => isReader(role, modules)) ?? members.at(-1);
		const from = gateway ?? members.find((one) => one !== far);
		harness.segments.push({ name: segment, where: NOT_KNOWN, kind: 'high-speed' });
		if (!far || !from) continue;
		harness.terminators.push({ segment, at: [from.role, far.role] });
		const branching = members.filter((one) => one !== far && one !== from);
		const splice = `${segment} splice`;
		if (branching.length > 0) harness.splices.push({ name: splice, where: NOT_KNOWN });
		const lines = [
			['high', 1],
			['low', 2]
		] as const;
		for (const [line, n] of lines) {
			const start = pinFor(from, from === gateway && segment !== own ? `second-${line}` : `bus-${line}`);
			const end = pinFor(far, `bus-${line}`);
			if (!start || !end) continue;
			if (branching.length === 0) made.wire([start, end], [3]);
			else {
				made.wire([start, `${splice}.${n}`], [1]);
				made.wire([`${splice}.${n}`, end], [2]);
			}
			for (const module of branching) {
				const pin = pinFor(module, `bus-${line}`);
				if (pin) made.wire([`${splice}.${n}`, pin], [0.9]);
			}
		}
	}
}

/** Where that plug usually is. */
function whereUsually(position: string): string {
	if (position.endsWith('-wheel')) return 'usually under the tank or the seat';
	if (position.startsWith('axle')) return 'usually on the cross member of its axle';
	return position.startsWith('rear')
		? 'usually above the wheel or under the sill'
		: 'usually in the wheel arch';
}

/** From the module to the wheel, with one plug where the lead leaves the body. */
function lead(made: Wiring, reader: Module, position: string): void {
	const [axle = ''] = position.split('-');
	const isFar = axle === 'rear';
	const plug = `${position} body plug`;
	made.harness.plugs.push({
		name: plug,
		where: whereUsually(position),
		accessMin: isFar ? 8 : 4,
		pins: 4
	});
	for (const [n, does] of ['feed', 'signal', 'reference'].entries()) {
		const pin = pinFor(reader, `${does} ${position}`);
		if (pin) made.wire([pin, `${plug}.${n + 1}`, `${position}.${n + 1}`], [isFar ? 3.6 : 1.1, 0.8]);
	}
}
