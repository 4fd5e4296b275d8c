import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import type { Position } from '../../../../library';
import { LOCK_DEG } from '../../../../library/reason/provoked';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { holdSource } from '../instruments/source';
import type { BenchVehicle } from '../vehicle';
import { clearFrozenValues, WAKES_S } from './clearFrozenValues';
import type { Tester } from './tester';
import type { LiveTests } from './liveTests';

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
/** What a hand takes hold of, and the links of the wheel's path that then move. */
const MOVES = {
	'wiggle-sensor': { at: 'here', links: ['sensor', 'gap'] },
	'wiggle-plug': { at: 'here', links: ['sensor-connector'] },
	'wiggle-lead': { at: 'here', links: ['harness'] },
	'wiggle-far': { at: 'reader', links: ['module-connector'] }
} as const;

/** What is done by hand while the values are watched. Nothing is left wet, moving or fed in behind it. */
export class ManualTests {
	constructor(
		private readonly vehicle: BenchVehicle,
		private readonly tester: Tester,
		private readonly watching: LiveTests
	) {}

	private get type() {
		return this.vehicle.world.type;
	}

	private clearFrozenValues(): void {
		clearFrozenValues(this.vehicle, this.tester);
	}

	/** What was made wet is blown dry before anything else is measured. */
	spray(position: Position): string {
		this.clearFrozenValues();
		const seen = this.watching.whileDoing(position, () => this.vehicle.spray(position));
		this.vehicle.dry(position);
		return seen;
	}

	/** Hot air at sensor and plug, which is cold again before anything else is measured. */
	warm(position: Position): string {
		this.clearFrozenValues();
		const seen = this.watching.whileDoing(position, () => this.vehicle.warm(position));
		this.vehicle.dry(position);
		return seen;
	}

	/** The steering wheel to one side and to the other, and straight again. */
	lock(position: Position): string {
		this.clearFrozenValues();
		const seen = [LOCK_DEG, -LOCK_DEG].map((degrees) =>
			this.watching.whileDoing(position, () => this.vehicle.steer(degrees))
		);
		this.vehicle.steer(0);
		this.vehicle.advance(HAND_OFF_S);
		return seen.find((one) => one !== 'steady') ?? 'steady';
	}

	inGear(position: Position): string {
		this.clearFrozenValues();
		return this.watching.inGear(position);
	}

	sprayGround(place: string): string {
		const seen = this.goesSilent(() => this.vehicle.spray(place), WATCHES_S);
		this.vehicle.dry(place);
		return seen;
	}

	/** The sensor is out of its seat: whether pulses arrive when its face is passed by hand. */
	wave(position: Position): string {
		this.clearFrozenValues();
		this.vehicle.waveBefore(position, WAVES);
		const { high } = this.watching.span(position, WAVED_S);
		return high > 0 && high < FROZEN_KMH ? 'answers' : 'nothing';
	}

	wiggle(position: Position, what: keyof typeof MOVES): string {
		const { at, links } = MOVES[what];
		this.clearFrozenValues();
		const place = at === 'here' ? position : (wheelReaderOf(this.type)?.role ?? '');
		const seen = this.watching.whileDoing(position, () => this.vehicle.wiggle(place, links));
		// The hand is off before anything else is done.
		this.vehicle.advance(HAND_OFF_S);
		return seen;
	}

	substitute(position: Position): string {
		const { vehicle } = this;
		const wheel = this.type.wheels.find((one) => one.position === position);
		if (!wheel) throw new RangeError(`no wheel ${position}`);
		vehicle.turnKey('off');
		vehicle.plug(position, false);
		const passive = likeliestFamilyAt(this.type, position) === 'passive';
		const held = holdSource(vehicle, {
			kind: passive ? 'sine' : 'square',
			position,
			hertz: (wheel.ringTeeth * FED_KMH) / 3.6 / wheel.circumferenceM,
			volts: passive ? 1 : 5
		});
		if (!held.ok) throw new Error(held.error);
		vehicle.turnKey('on');
		vehicle.advance(WAKES_S);
		this.clearFrozenValues();
		vehicle.advance(SETTLES_S);
		const { low, high } = this.watching.span(position, WATCHES_S);
		holdSource(vehicle, null);
		vehicle.turnKey('off');
		vehicle.plug(position, true);
		vehicle.turnKey('on');
		vehicle.advance(WAKES_S);
		this.clearFrozenValues();
		if (high < 1 || low > FROZEN_KMH) return 'nothing';
		if (high - low > FED_KMH * FED_SHARE) return 'not-steady';
		return Math.abs(low - FED_KMH) < FED_KMH * FED_SHARE ? 'follows' : 'another-value';
	}

	shake(role: string): string {
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
}
