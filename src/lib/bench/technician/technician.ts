import type { Position } from '../../../../library';
import { codeSigns } from '../../../../library/reason/codeSigns';
import { shippedBook } from '../../../../library/codes';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { signKey, splitKey, type Seen } from '../../../../library/reason/signs';
import type { PlacedTest } from '../../../../library/reason/tests';
import { holdSource } from '../instruments/source';
import type { BenchVehicle } from '../vehicle';
import { measureByHand, measurementOf } from './byMeter';
import { busFall } from './busFall';
import { Eye } from './eye';
import { scopeByHand } from './scoping';
import { senseOutcome, learnedOutcome } from './senses';
import { Tester } from './tester';
import { ROAD_TEST, Watching } from './watching';

const WAKES_S = 4;
/** Speed that a substituted signal stands for. */
const FED_KMH = 30;
const FED_SHARE = 0.1;
const SETTLES_S = 3;
const WATCHES_S = 3;
const SHAKES_S = 5;
const HAND_OFF_S = 5;
const WAVES = 20;
const WAVED_S = 3;
/** Above this a value is a word for "not available". */
const FROZEN_KMH = 300;
const BATTERY_LOW_V = 12;
const MOST_TRIPS = 6;
/** What a hand takes hold of, and the links of the wheel's path that then move. */
const MOVES = {
	'wiggle-sensor': { at: 'here', links: ['sensor', 'gap'] },
	'wiggle-plug': { at: 'here', links: ['sensor-connector'] },
	'wiggle-lead': { at: 'here', links: ['harness'] },
	'wiggle-far': { at: 'reader', links: ['module-connector'] }
} as const;

/**
 * A person with a tester, a meter, an oscilloscope and two eyes at a bench vehicle: does one test of the library after the
 * other and says what was seen. Every outcome comes from the vehicle's physics.
 */
export class Technician {
	private readonly tester: Tester;
	private readonly watching: Watching;
	private readonly eye: Eye;

	constructor(
		private readonly vehicle: BenchVehicle,
		random: () => number
	) {
		this.tester = new Tester(vehicle);
		this.watching = new Watching(vehicle, this.tester);
		this.eye = new Eye(vehicle, random);
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
		const { vehicle, watching, eye } = this;
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
				this.fresh();
				return this.thenParked(byPlace('road', watching.road()));
			case 'spin':
				this.fresh();
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
				return here(this.substitute(position));
			case 'wiggle-sensor':
			case 'wiggle-plug':
			case 'wiggle-lead':
			case 'wiggle-far':
				return here(this.wiggle(position, what));
			case 'spray':
				return here(this.spray(position));
			case 'wave':
				return here(this.wave(position));
			case 'tyres':
				return Object.fromEntries(signs.map((key) => [key, eye.tyre(splitKey(key).place)]));
			case 'coding':
				return here(this.coding(place));
			case 'learned':
				return here(learnedOutcome(this.tester, place));
			case 'sense':
				return here(senseOutcome(vehicle, this.tester, place));
			case 'shake':
				return here(this.shake(place));
			case 'bus-fall':
				return here(busFall(vehicle, place));
			case 'middle-plug':
				return here(eye.middlePlug(place));
			case 'module-plug':
				return here(eye.modulePlug(place));
			case 'fuse':
				return here(eye.fuse(place));
			case 'ground':
				return here(eye.ground(place));
			case 'spray-ground':
				return here(this.sprayGround(place));
			case 'splice':
				return here(eye.splice(place));
			case 'battery':
				return here(this.battery());
			default:
				throw new RangeError(`nobody knows how to do "${kind.id}"`);
		}
	}

	/** In the workshop it is dry, and the floor is even. */
	private park(): void {
		Object.assign(this.vehicle.world.motion.around, { wet: 0, roughness: 0 });
	}

	/** Codes saved and cleared, key off and on: modules begin anew. */
	private fresh(): void {
		const { vehicle } = this;
		this.tester.clearAll();
		vehicle.turnKey('off');
		vehicle.advance(1);
		vehicle.turnKey('on');
		vehicle.advance(WAKES_S);
	}

	private thenParked(seen: Seen): Seen {
		this.park();
		return seen;
	}

	private scan(): Seen {
		const scanned = this.type.modules.map(({ role }) => {
			const answered = this.tester.answers(role);
			return { role, answered, dtcs: answered ? this.tester.codes(role) : [] };
		});
		return codeSigns(scanned, this.type, shippedBook);
	}

	private recheck(): Seen {
		this.fresh();
		const again = this.scan();
		const seen: Seen = {};
		for (const [key, outcome] of Object.entries(again)) {
			const { sign, place } = splitKey(key);
			if (sign === 'wheel-code') seen[signKey('back', place)] = outcome === 'none' ? 'no' : 'yes';
			if (sign === 'own-code') seen[signKey('own-back', place)] = outcome === 'none' ? 'no' : 'yes';
		}
		return seen;
	}

	/** What was made wet is blown dry before anything else is measured. */
	private spray(position: Position): string {
		this.fresh();
		const seen = this.watching.whileDoing(position, () => this.vehicle.spray(position));
		this.vehicle.dry(position);
		return seen;
	}

	private sprayGround(place: string): string {
		const seen = this.goesSilent(() => this.vehicle.spray(place), WATCHES_S);
		this.vehicle.dry(place);
		return seen;
	}

	/** The sensor is out of its seat: whether pulses arrive when its face is passed by hand. */
	private wave(position: Position): string {
		this.fresh();
		this.vehicle.waveBefore(position, WAVES);
		const { high } = this.watching.span(position, WAVED_S);
		return high > 0 && high < FROZEN_KMH ? 'answers' : 'nothing';
	}

	private wiggle(position: Position, what: keyof typeof MOVES): string {
		const { at, links } = MOVES[what];
		this.fresh();
		const place = at === 'here' ? position : (wheelReaderOf(this.type)?.role ?? '');
		const seen = this.watching.whileDoing(position, () => this.vehicle.wiggle(place, links));
		// The hand is off before anything else is done.
		this.vehicle.advance(HAND_OFF_S);
		return seen;
	}

	private substitute(position: Position): string {
		const { vehicle } = this;
		const wheel = this.type.wheels.find((one) => one.position === position);
		if (!wheel) throw new RangeError(`no wheel ${position}`);
		vehicle.turnKey('off');
		vehicle.plug(position, false);
		const passive = this.type.sensor === 'passive';
		const held = holdSource(vehicle, {
			kind: passive ? 'sine' : 'square',
			position,
			hertz: (wheel.ringTeeth * FED_KMH) / 3.6 / wheel.circumferenceM,
			volts: passive ? 1 : 5
		});
		if (!held.ok) throw new Error(held.error);
		vehicle.turnKey('on');
		vehicle.advance(WAKES_S);
		this.fresh();
		vehicle.advance(SETTLES_S);
		const { low, high } = this.watching.span(position, WATCHES_S);
		holdSource(vehicle, null);
		vehicle.turnKey('off');
		vehicle.plug(position, true);
		vehicle.turnKey('on');
		vehicle.advance(WAKES_S);
		this.fresh();
		if (high < 1 || low > FROZEN_KMH) return 'nothing';
		if (high - low > FED_KMH * FED_SHARE) return 'not-steady';
		return Math.abs(low - FED_KMH) < FED_KMH * FED_SHARE ? 'follows' : 'another-value';
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

	private shake(role: string): string {
		if (!this.tester.answers(role)) return 'dead';
		return this.goesSilent(() => this.vehicle.wiggle(role), SHAKES_S);
	}

	/** Whether a module that answered does not, for a moment, while something is done. */
	private goesSilent(act: () => void, forS: number): 'steady' | 'changes' {
		const answering = this.type.modules.map(({ role }) => role).filter((role) => this.tester.answers(role));
		act();
		for (let s = 0; s < forS; s += 0.2) {
			this.vehicle.advance(0.2);
			if (answering.some((role) => !this.tester.answers(role))) return 'changes';
		}
		return 'steady';
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
