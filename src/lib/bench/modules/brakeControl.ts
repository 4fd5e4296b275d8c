import type { ModuleType, VehicleType } from '../../../../library';
import { cover, isComplete, noCoverage, type DrivePhase } from '../../core/calibrate/learningDrive';
import type { Wheel, World } from '../world';
import { rawValue } from './identity';
import type { Watch } from './module';
import type { Lamp, Sample } from './monitor';
import { SourceJudge } from './sourceJudge';
import { CONDITIONS_NOT_RIGHT, whileMoving } from './standingOnly';
import { WheelModule } from './wheelModule';

const LAMPS: Lamp[] = ['anti-lock', 'stability'];
const PEDAL_BAR = 8;
const NO_BAR = 2;
const BRAKING_MPS2 = 0.8;
/** Faster than this nobody's foot rests on the pedal. */
const PEDAL_FROM_KMH = 60;
const SPINNING_SHARE = 1.09;
const SPINNING_FROM_KMH = 30;

const ANY_ANGLE = [-720, 720] as const;
/** What the module wants to see on a learning drive: a little less than people are asked for. */
const LEARNING: DrivePhase[] = [
	{ id: 'band', words: '', speedKmh: [20, 70], steeringDeg: [-30, 30], forS: 12, last: false },
	{ id: 'left', words: '', speedKmh: [4, 45], steeringDeg: [80, 720], forS: 2, last: false },
	{ id: 'right', words: '', speedKmh: [4, 45], steeringDeg: [-720, -80], forS: 2, last: false },
	{ id: 'stop', words: '', speedKmh: [0, 0.5], steeringDeg: ANY_ANGLE, forS: 1, last: true }
];

/**
 * Brake and stability control: reads its wheel circuits, estimates speeds, judges them against each other, against the
 * steering and the yaw sensor, and tells the vehicle speed to everybody on the bus.
 */
export class BrakeControl extends WheelModule {
	override readonly role = 'brake' as const;
	private readonly sources: SourceJudge;
	private learning = noCoverage(LEARNING);
	/** Drive is cut because the driven wheels seem to spin. */
	cutsPower = false;

	constructor(type: ModuleType, vehicle: VehicleType, wheels: readonly Wheel[]) {
		super(type, vehicle, wheels, 'BC-2.114', LAMPS);
		this.sources = new SourceJudge(vehicle, this.readers, () => this);
		this.snapshotIds.push('D110', 'D111', 'D114', 'F446');
		this.watch(...this.actuatorWatches(), ...this.sources.watches(LAMPS));
		this.outputs.set('D1E0', 0);
		this.keep('D164', 1, false);
		this.routines.set('0205', {
			refuses: () => {
				this.learning = noCoverage(LEARNING);
				return this.nonVolatile.has('D150') ? null : CONDITIONS_NOT_RIGHT;
			},
			takesS: 0,
			ready: (world, dtS) => this.learns(world, dtS),
			done: () => this.nonVolatile.write('D164', rawValue('D164', 1))
		});
		this.routines.set('0204', {
			refuses: whileMoving,
			takesS: 5,
			done: (world) => this.lines.pumpFed(world)
		});
	}

	/** Gathers a learning drive. True once it has seen all of it. */
	private learns(world: World, dtS: number): boolean {
		const steering = world.messages.read('brake', 'steering-angle', world.timeS);
		const angle = steering?.valid ? steering.said.angleDeg : null;
		this.learning = cover(LEARNING, this.learning, dtS, this.referenceKmh, angle);
		return isComplete(LEARNING, this.learning);
	}

	/** The pump is heard: a tester drives it, or a bleeding routine does, and it has its feed. */
	pumpRuns(world: World): boolean {
		const bleeds = this.routine?.id === '0204' && this.routine.result === 'running';
		return (this.outputs.get('D1E0') !== 0 || bleeds) && this.lines.pumpFed(world);
	}

	private actuatorWatches(): Watch[] {
		return [
			{
				/** Pressure without a pedal, or a pedal without pressure at speed. */
				rule: { dtc: '416164', failS: 2, passS: 0.2, lamps: ['stability'] },
				sample: (world): Sample => {
					if (!this.lines.pressureReads(world)) return 'none';
					const [bar, pedal] = [this.lines.bar(world), this.lines.pedal(world)];
					if (bar > PEDAL_BAR && pedal) return 'pass';
					if (bar > PEDAL_BAR) return this.accelerationMps2 < -BRAKING_MPS2 ? 'fail' : 'none';
					return pedal && bar < NO_BAR && this.referenceKmh >= PEDAL_FROM_KMH ? 'fail' : 'none';
				}
			},
			{
				rule: { dtc: '411013', failS: 1, passS: 1, lamps: LAMPS },
				sample: (world): Sample => (this.lines.pumpFed(world) ? 'pass' : 'fail')
			}
		];
	}

	protected override zeroRefused(world: World): number | null {
		return this.lines.pedal(world) ? CONDITIONS_NOT_RIGHT : super.zeroRefused(world);
	}

	protected override braking(world: World): boolean {
		return this.lines.pedal(world);
	}

	protected override run(world: World, dtS: number): void {
		super.run(world, dtS);
		this.sources.followShares(dtS);
		const [driven, rolling] = [this.meanKmh(true), this.meanKmh(false)];
		this.cutsPower = rolling > SPINNING_FROM_KMH && driven > rolling * SPINNING_SHARE;
		const said = {
			vehicleKmh: this.referenceKmh,
			brakeBar: this.lines.bar(world),
			pedal: this.lines.pedal(world)
		};
		this.say(world, said, this.dataValid);
	}

	/** Mean of the driven or of the rolling wheels; zero where there are none. */
	private meanKmh(driven: boolean): number {
		const some = this.readers.filter(({ wheel }) => wheel.type.driven === driven);
		return some.reduce((sum, reader) => sum + reader.estimateKmh, 0) / Math.max(1, some.length);
	}

	protected override judge(world: World): void {
		super.judge(world);
		this.sources.judge(world);
	}

	protected override tell(id: string, world: World): string | null {
		switch (id) {
			case 'F40D':
				return rawValue(id, this.referenceKmh);
			case 'D110': {
				const steering = world.messages.read('brake', 'steering-angle', world.timeS);
				return rawValue(id, steering?.valid ? steering.said.angleDeg : null);
			}
			case 'D111':
			case 'D112': {
				const yaw = world.messages.read('brake', 'yaw', world.timeS);
				const value = id === 'D111' ? yaw?.said.yawDegps : yaw?.said.lateralG;
				return rawValue(id, yaw?.valid ? (value ?? null) : null);
			}
			case 'D114':
				return rawValue(id, this.lines.pedal(world) ? 1 : 0);
			default:
				return super.tell(id, world);
		}
	}
}
