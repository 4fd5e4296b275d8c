import type { Position, VehicleType } from '../../../../library';
import type { Motion } from '../motion';
import type { WheelCircuit } from '../physics/wheelSensor';
import { Monitor, type MonitorRule, type Sample } from './monitor';

/** What brake control tells everybody on the bus. */
export interface BrakeMessage {
	vehicleKmh: number;
	/** False while brake control does not trust its own wheel signals. */
	valid: boolean;
	sentAtS: number;
}

/** What a module can sense of the vehicle around it. */
export interface World {
	timeS: number;
	type: VehicleType;
	vin: string;
	supplyVolts: number;
	/** Whether the key is on: what lives on permanent power must know. */
	keyOn: boolean;
	motion: Motion;
	wheels: Map<Position, WheelCircuit>;
	steeringDeg: number;
	keyCycles: number;
	brakeMessage: BrakeMessage | null;
}

/** A module's own judgement of a code: its rule, and what it sees at this moment. */
export interface Watch {
	rule: MonitorRule;
	sample: (world: World, dtS: number) => Sample;
}

/**
 * A control module: monitors that run on its own cycle, identifiers it can tell, and a state that a diagnostic session
 * can change. Each kind of module is one file that fills these in.
 */
export abstract class Module {
	readonly monitors: Monitor[] = [];
	session: 'default' | 'extended' = 'default';
	/** Seconds since it got power. */
	awakeS = 0;
	private readonly watches: { monitor: Monitor; watch: Watch }[] = [];

	constructor(readonly address: number) {}

	protected watch(...watches: Watch[]): void {
		for (const watch of watches) {
			const monitor = new Monitor(watch.rule, true);
			this.monitors.push(monitor);
			this.watches.push({ monitor, watch });
		}
	}

	/** Identifiers this module answers to service 22, each with its value now (raw hex). */
	abstract identify(id: string, world: World): string | null;

	/** Identifiers frozen into a snapshot. */
	protected readonly snapshotIds: string[] = ['F40D', 'F442', 'F4A6'];

	step(world: World, dtS: number): void {
		this.awakeS += dtS;
		if (this.awakeS < BOOT_S) return;
		this.run(world, dtS);
		for (const { monitor, watch } of this.watches) {
			monitor.step(watch.sample(world, dtS), dtS, () =>
				this.snapshotIds.flatMap((id) => {
					const raw = this.identify(id, world);
					return raw === null ? [] : [{ id, raw }];
				})
			);
		}
	}

	/** Whatever the module does besides monitoring. */
	protected run(_world: World, _dtS: number): void {}

	get awake(): boolean {
		return this.awakeS >= BOOT_S;
	}

	/** The key is turned on: a new operation cycle, from cold where the module had no power. */
	newCycle(hadPower: boolean): void {
		if (!hadPower) this.restart();
		for (const monitor of this.monitors) monitor.newCycle();
	}

	/** Starts from cold; the operation cycle goes on. */
	restart(): void {
		this.awakeS = 0;
		this.session = 'default';
	}

	clear(dtc: string | null): boolean {
		const chosen = this.monitors.filter((monitor) => dtc === null || monitor.rule.dtc === dtc);
		for (const monitor of chosen) monitor.clear();
		return dtc === null || chosen.length > 0;
	}
}

/** From power to the first answer, in seconds. */
export const BOOT_S = 0.3;
