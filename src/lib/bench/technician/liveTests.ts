import { mateOf } from '../../../../library/positions';
import { channelOf, positionOf } from '../../../../library/positions';
import type { Position } from '../../../../library';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { IN_GEAR_KMH, IN_GEAR_S } from '../../../../library/reason/provoked';
import { roadOutcome } from '../../../../library/reason/liveSigns';
import { analyseLive } from '../../core/live/analyse';
import { isNotAvailable, type Recording } from '../../core/live/recording';
import { WheelRound } from '../../core/live/wheelRound';
import { WHEEL_SPEED_ID } from '../modules/corners';
import type { DriveLeg } from '../motion';
import type { BenchVehicle } from '../vehicle';
import type { Tester } from './tester';

/** Cold to warm, wet, rough, slow turns both ways, a fast stretch, a gentle stop: everything that makes faults show. */
export const ROAD_TEST: DriveLeg[] = [
	{ toKmh: 7, overS: 3, wet: 1, roughness: 1, outsideC: 20, grip: 0.8, steeringDeg: 0 },
	{ toKmh: 7, overS: 8 },
	{ toKmh: 14, overS: 5, steeringDeg: 260 },
	{ toKmh: 14, overS: 4, steeringDeg: -260 },
	{ toKmh: 60, overS: 10, steeringDeg: 0 },
	{ toKmh: 60, overS: 14 },
	{ toKmh: 95, overS: 10 },
	{ toKmh: 95, overS: 20 },
	{ toKmh: 42, overS: 10 },
	{ toKmh: 42, overS: 9 },
	{ toKmh: 8, overS: 8 },
	{ toKmh: 8, overS: 3 },
	{ toKmh: 0, overS: 3 },
	{ toKmh: 0, overS: 2 }
];

const SAMPLE_S = 0.1;
const TURNED_KMH = 10;
const TURNED_S = 5;
const STOPPED_S = 2;
const WATCHED_S = 4;
/** A round waits for so long before it asks for the next wheel. */
const PATIENCE_S = 8;
/** From here down the value has let go. */
const LETS_GO_SHARE = 0.4;

/** What a person sees of live data: on the road, wheel by wheel on stands, and while something is moved or made wet. */
export class LiveTests {
	private readonly reader: string;

	constructor(
		private readonly vehicle: BenchVehicle,
		private readonly tester: Tester
	) {
		this.reader = wheelReaderOf(vehicle.world.type)?.role ?? '';
	}

	private kmh(position: Position): number {
		return this.tester.value(this.reader, WHEEL_SPEED_ID[position]) ?? 655.35;
	}

	/** A road test with the recording looked through as the product does it. @returns outcome by position */
	road(legs: DriveLeg[] = ROAD_TEST): Map<string, string> {
		const { vehicle } = this;
		const { type } = vehicle.world;
		const positions = type.wheels.map((wheel) => wheel.position);
		const columns = new Map<string, number[]>(positions.map((position) => [channelOf(position), []]));
		const timeS: number[] = [];
		const read = this.tester.answers(this.reader);
		const beganS = vehicle.world.timeS;
		vehicle.drive(legs);
		while (vehicle.moves) {
			vehicle.advance(SAMPLE_S);
			if (!this.tester.answers(this.reader)) continue;
			timeS.push(vehicle.world.timeS - beganS);
			for (const position of positions) columns.get(channelOf(position))?.push(this.kmh(position));
		}
		if (!read || timeS.length < 10) return new Map(positions.map((position) => [position, 'nothing']));
		const recording: Recording = {
			timeS: Float64Array.from(timeS),
			channels: new Map([...columns].map(([name, list]) => [name, Float64Array.from(list)])),
			problems: []
		};
		const { trackM, wheelbaseM } = type.chassis;
		const { findings } = analyseLive(recording, {
			trackM,
			wheelbaseM,
			teeth: type.wheels[0]?.ringTeeth ?? null
		});
		return new Map(positions.map((position) => [position, roadOutcome(findings, channelOf(position))]));
	}

	/** Each wheel turned in its turn. @returns outcome by position */
	round(): Map<string, string> {
		const { vehicle } = this;
		const wheels = vehicle.world.type.wheels;
		const round = new WheelRound(
			wheels.map(({ position, driven }) => ({
				channel: channelOf(position),
				driven,
				mate: channelOf(mateOf(position))
			})),
			'hand'
		);
		const watch = (seconds: number) => {
			for (let s = 0; s < seconds; s += SAMPLE_S) {
				vehicle.advance(SAMPLE_S);
				const kmh = new Map(wheels.map(({ position }) => [channelOf(position), this.kmh(position)]));
				round.sample(vehicle.world.timeS, kmh);
			}
		};
		// The one that is asked for is turned; one that stays silent is asked for twice.
		for (let turn = 0; turn < 2 * wheels.length && round.state.ask !== null; turn++) {
			const asked = wheels.find(({ position }) => channelOf(position) === round.state.ask);
			if (!asked) break;
			vehicle.spin(asked.position, TURNED_KMH);
			watch(TURNED_S);
			vehicle.spin(asked.position, 0);
			watch(STOPPED_S);
			if (round.state.ask === channelOf(asked.position)) watch(PATIENCE_S);
			if (turn >= wheels.length) round.turnedInVain(channelOf(asked.position));
		}
		const answers = this.tester.answers(this.reader);
		return new Map(
			round.state.corners.map(({ channel, result }) => [
				positionOf(channel) ?? channel,
				!answers ? 'not-trusted' : result === 'turns-mate' ? 'answers' : (result ?? 'dead')
			])
		);
	}

	/** Watches a turning wheel, then while something is done to it. */
	whileDoing(position: Position, act: () => void): 'steady' | 'changes' | 'dead' {
		const { vehicle } = this;
		vehicle.spin(position, TURNED_KMH);
		vehicle.advance(STOPPED_S);
		const before = this.kmh(position);
		const alive = before > TURNED_KMH * LETS_GO_SHARE && !isNotAvailable(before);
		let worst = before;
		act();
		for (let s = 0; s < WATCHED_S; s += SAMPLE_S) {
			vehicle.advance(SAMPLE_S);
			const now = this.kmh(position);
			worst = isNotAvailable(now) ? 0 : Math.min(worst, now);
			if (worst === 0) break;
		}
		vehicle.spin(position, 0);
		vehicle.advance(STOPPED_S);
		if (!alive) return 'dead';
		return worst < before * LETS_GO_SHARE ? 'changes' : 'steady';
	}

	/** The driven wheels run in gear on stands: whether one drops out at an even pace. */
	inGear(position: Position): 'steady' | 'changes' | 'dead' {
		const { vehicle } = this;
		const { motion } = vehicle.world;
		motion.runInGear(IN_GEAR_KMH);
		vehicle.advance(STOPPED_S);
		const alive = (kmh: number) => kmh > IN_GEAR_KMH * LETS_GO_SHARE && !isNotAvailable(kmh);
		let [lived, fell] = [false, false];
		for (let s = 0; s < IN_GEAR_S; s += SAMPLE_S) {
			vehicle.advance(SAMPLE_S);
			if (alive(this.kmh(position))) lived = true;
			else fell = true;
		}
		motion.runInGear(0);
		vehicle.advance(STOPPED_S);
		return !lived ? 'dead' : fell ? 'changes' : 'steady';
	}

	/** Lowest and highest of a live wheel speed over a while. */
	span(position: Position, seconds: number): { low: number; high: number } {
		let [low, high] = [Infinity, -Infinity];
		for (let s = 0; s < seconds; s += SAMPLE_S) {
			this.vehicle.advance(SAMPLE_S);
			const now = this.kmh(position);
			low = Math.min(low, now);
			high = Math.max(high, now);
		}
		return { low, high };
	}
}
