import { faults } from '../../../../library/faults';
import type { Position } from '../../../../library';
import { codeSigns } from '../../../../library/reason/codeSigns';
import { bookAtHand } from './makersList';
import { signKey, splitKey, type Seen } from '../../../../library/reason/signs';
import type { PlacedTest } from '../../../../library/reason/tests';
import { uniform, type BenchVehicle } from '../vehicle';
import { measureByHand, measurementOf } from './byMeter';
import { busFall } from './busFall';
import { mixedSeed } from './mixedSeed';
import { VisualInspection } from './visualInspection';
import { clearFrozenValues, WAKES_S } from './clearFrozenValues';
import { ManualTests } from './manualTests';
import { scopeByHand } from './scoping';
import { senseOutcome, learnedOutcome } from './senses';
import { Tester } from './tester';
import { ROAD_TEST, LiveTests } from './liveTests';

const BATTERY_LOW_V = 12;
const MOST_TRIPS = 6;
/** Signs that some fault is seen by. */
const VISIBLE = new Set([...faults.values()].flatMap(({ visible }) => visible.map(({ sign }) => sign)));

const SEEDS = 2 ** 31;

/**
 * A person with a tester, a meter, an oscilloscope and two eyes at a bench vehicle: does one test of the library after the
 * other and says what was seen. Every outcome comes from the vehicle's physics.
 */
export class SimulatedTechnician {
	private readonly tester: Tester;
	private readonly watching: LiveTests;
	private readonly eye: VisualInspection;
	private readonly hands: ManualTests;

	constructor(
		private readonly vehicle: BenchVehicle,
		random: () => number
	) {
		this.tester = new Tester(vehicle);
		this.watching = new LiveTests(vehicle, this.tester);
		// What eyes see or miss draws on its own: it changes nothing of what instruments read after it.
		this.eye = new VisualInspection(vehicle, uniform(mixedSeed(Math.floor(random() * SEEDS))));
		this.hands = new ManualTests(vehicle, this.tester, this.watching);
	}

	private get type() {
		return this.vehicle.world.type;
	}

	/** Whether the last drive showed anything: something felt, or a code. A vehicle that shows nothing is not brought. */
	shown = false;

	/**
	 * How the vehicle came to the shop: driven by its owner, who tells what was felt.
	 *
	 * @param mostTrips it is driven until it shows something, but not more often
	 */
	arrives(mostTrips = MOST_TRIPS): Seen {
		const { vehicle } = this;
		const felt = new Set<string>();
		vehicle.turnKey('on');
		vehicle.advance(WAKES_S);
		this.shown = false;
		for (let trip = 0; trip < mostTrips && !this.shown; trip++) {
			vehicle.drive(ROAD_TEST);
			while (vehicle.moves) {
				vehicle.advance(0.25);
				for (const one of vehicle.state.felt) felt.add(one);
			}
			this.shown =
				felt.size > 0 ||
				this.type.modules.some(
					({ role }) => !this.tester.answers(role) || this.tester.codes(role).length > 0
				);
		}
		this.park();
		const told = (sign: string, word: string): Seen => ({
			[signKey(sign, 'vehicle')]: felt.has(word) ? 'yes' : 'no'
		});
		return {
			...told('felt-pulses', 'pedal pulses'),
			...told('felt-power', 'power is cut'),
			...told('felt-slide', 'a wheel slides under the brake'),
			...told('felt-dial', 'speedometer is dead'),
			...told('felt-heavy', 'steering is heavy')
		};
	}

	/** Does one test. Nothing is left open, turning or fed in behind it. */
	perform({ kind, place, signs }: PlacedTest): Seen {
		const { vehicle, watching, eye, hands } = this;
		vehicle.turnKey('on');
		vehicle.advance(1);
		const [what = '', id = ''] = kind.id.split(':');
		const here = (outcome: string): Seen => ({ [signs[0] ?? signKey(kind.id, place)]: outcome });
		const position = place as Position;
		switch (what) {
			case 'scan':
				return this.scan();
			case 'recheck':
				return this.recheck();
			case 'road':
				// A value frozen by a hard fault is freed first; the codes are saved.
				this.clearFrozenValues();
				return this.thenParked(byPlace('road', watching.road()));
			case 'spin':
				this.clearFrozenValues();
				return byPlace('spin', watching.round());
			case 'meter':
				return here(measureByHand(vehicle, place, measurementOf(id)).side);
			case 'look':
				return here(eye.inspect(place, id));
			case 'scope-sensor':
				return here(scopeByHand(vehicle, position, 'sensor'));
			case 'scope-module':
				return here(scopeByHand(vehicle, position, 'module'));
			case 'substitute':
				return here(hands.substitute(position));
			case 'wiggle-sensor':
			case 'wiggle-plug':
			case 'wiggle-lead':
			case 'wiggle-far':
				return here(hands.wiggle(position, what));
			case 'spray':
				return here(hands.spray(position));
			case 'warm':
				return here(hands.warm(position));
			case 'lock':
				return here(hands.lock(position));
			case 'in-gear':
				return here(hands.inGear(position));
			case 'wave':
				return here(hands.wave(position));
			case 'tyres':
				return Object.fromEntries(signs.map((key) => [key, eye.look('tyre', splitKey(key).place)]));
			case 'coding':
				return here(this.coding(place));
			case 'learned':
				return here(learnedOutcome(this.tester, place));
			case 'sense':
				return here(senseOutcome(vehicle, this.tester, place));
			case 'shake':
				return here(hands.shake(place));
			case 'bus-fall':
				return here(busFall(vehicle, place));
			case 'true':
				return here(eye.runsTrue(place));
			case 'spray-ground':
				return here(hands.sprayGround(place));
			case 'battery':
				return here(this.battery());
			default:
				// Whatever has no tool or way of its own is looked at.
				if (VISIBLE.has(what)) return here(eye.look(what, place));
				throw new RangeError(`nobody knows how to do "${kind.id}"`);
		}
	}

	/** In the workshop it is dry, and the floor is even. */
	private park(): void {
		Object.assign(this.vehicle.world.motion.around, { wet: 0, roughness: 0 });
	}

	private clearFrozenValues(): void {
		clearFrozenValues(this.vehicle, this.tester);
	}

	private thenParked(seen: Seen): Seen {
		this.park();
		return seen;
	}

	private scan(): Seen {
		const scanned = this.type.modules.map(({ role }) => {
			const answered = this.tester.answers(role);
			return { role, answered, codes: answered ? this.tester.codesInFull(role) : [] };
		});
		return codeSigns(scanned, this.type, bookAtHand(this.type));
	}

	private recheck(): Seen {
		this.clearFrozenValues();
		const again = this.scan();
		const seen: Seen = {};
		for (const [key, outcome] of Object.entries(again)) {
			const { sign, place } = splitKey(key);
			if (sign === 'wheel-code') seen[signKey('back', place)] = outcome === 'none' ? 'no' : 'yes';
			if (sign === 'own-code') seen[signKey('own-back', place)] = outcome === 'none' ? 'no' : 'yes';
		}
		return seen;
	}

	private coding(role: string): string {
		const [first] = this.type.wheels;
		const told = (id: string) => this.tester.value(role, id);
		const [circumferenceMm, teeth] = [told('D150'), told('D151')];
		if (circumferenceMm === null || teeth === null) return 'erased';
		const right = (number: number, is: number) => Math.abs(number / is - 1) < 0.02;
		if (!right(circumferenceMm, (first?.circumferenceM ?? 2) * 1000)) return 'tyres';
		if (!right(teeth, first?.ringTeeth ?? 1)) return 'ring';
		return this.tester.text(role, 'D152') === this.type.id.slice(-8) ? 'right' : 'variant';
	}

	/** At rest: with the key off nothing charges it. */
	private battery(): string {
		this.vehicle.turnKey('off');
		this.vehicle.advance(1);
		const low = this.vehicle.volts('battery') < BATTERY_LOW_V;
		this.vehicle.turnKey('on');
		this.vehicle.advance(WAKES_S);
		return low ? 'low' : 'in';
	}
}

const byPlace = (sign: string, outcomes: Map<string, string>): Seen =>
	Object.fromEntries([...outcomes].map(([place, outcome]) => [signKey(sign, place), outcome]));
