import { hexToBytes } from '@noble/hashes/utils.js';
import type { ModuleRole, ModuleType } from '../../../../library';
import type { RawValue } from '../../core/uds/readCodes';
import { supplyVolts, type World } from '../world';
import { commonValue, rawValue } from './identity';
import { NonVolatileMemory } from './nonVolatileMemory';
import type { Said } from './messages';
import { Monitor, type Lamp, type MonitorRule, type Sample } from './monitor';

/** A module's own judgement of a code: its rule, and what it sees at this moment. */
export interface Watch {
	rule: MonitorRule;
	sample: (world: World, dtS: number) => Sample;
	/** Looked at in every cycle; others every {@link SLOW_CYCLE_S}. */
	fast?: boolean;
}

/** A routine a tester can start (service 31). */
export interface Routine {
	/** Why it cannot run now, as a negative response code; null where it can. */
	refuses?: (world: World) => number | null;
	/** Seconds it takes. */
	takesS: number;
	/** Asked in every cycle once that time is over; until then it goes on. */
	ready?: (world: World, dtS: number) => boolean;
	/** Ends it. @returns false where it did not succeed */
	done: (world: World) => boolean;
}

/** One identifier that is sent by itself. */
export interface PeriodicItem {
	number: number;
	id: string;
}

/** A module sends at most one periodic message in this time: with more identifiers each is refreshed more slowly. */
const PERIODIC_SLOT_S = 0.01;

/** What changes slowly is judged this often. */
const SLOW_CYCLE_S = 0.05;

/** From power to the first answer, in seconds. */
export const BOOT_S = 0.3;
/** A session other than the default ends this long after the last request (S3 of ISO 14229-2). */
const SESSION_TIMEOUT_S = 5;

/**
 * A control module: monitors that run on its own cycle, identifiers it can tell, what it keeps, and a state that a
 * diagnostic session can change. Each kind of module is one file that fills these in.
 */
export abstract class Module {
	readonly monitors: Monitor[] = [];
	readonly nonVolatile = new NonVolatileMemory();
	readonly routines = new Map<string, Routine>();
	/** A routine that runs or has run since power came: its number, its end, and how it went. */
	routine: { id: string; endsAtS: number; result: 'running' | 'good' | 'failed' } | null = null;
	session: 'default' | 'extended' = 'default';
	unlocked = false;
	/** Seed that was given and not yet answered, and wrong keys so far. */
	readonly lock = { seed: null as number | null, wrong: 0, waitUntilS: 0 };
	/** Outputs a tester can operate (service 2F), by identifier. */
	readonly outputs = new Map<string, number>();
	private periodic: { list: PeriodicItem[]; intervalS: number; next: number; dueS: number } | null = null;
	/** Seconds since it got power. */
	awakeS = 0;
	private lastAskedS = 0;
	private readonly watches: { monitor: Monitor; watch: Watch }[] = [];
	/** Identifiers frozen into a snapshot. */
	protected readonly snapshotIds: string[] = ['F40D', 'F442', 'F4A6'];
	private owedS = 0;
	private slowOwedS = 0;
	private lamps: Lamp[] = [];

	/** @param cycleS how often it runs */
	constructor(
		readonly type: ModuleType,
		private readonly cycleS: number,
		private readonly software: string
	) {}

	abstract readonly role: ModuleRole;

	get address(): number {
		return parseInt(this.type.address, 16);
	}

	watch(...watches: Watch[]): void {
		for (const watch of watches) {
			const monitor = new Monitor(watch.rule, true);
			this.monitors.push(monitor);
			this.watches.push({ monitor, watch });
		}
	}

	/** Declares something it keeps without power. @param writable by a tester that has unlocked it */
	protected keep(id: string, value: number | string, writable: boolean): void {
		this.nonVolatile.declare(id, rawValue(id, value), rawValue(id, null), writable);
	}

	/** Identifiers of its own, each with its value now (raw hex). */
	protected abstract tell(id: string, world: World): string | null;

	/** Identifiers this module answers to service 22. */
	identify(id: string, world: World): string | null {
		const driven = this.outputs.get(id);
		if (driven !== undefined) return rawValue(id, driven);
		return this.tell(id, world) ?? this.nonVolatile.read(id) ?? commonValue(id, this, world, this.software);
	}

	step(world: World, dtS: number): void {
		this.awakeS += dtS;
		this.owedS += dtS;
		if (this.owedS < this.cycleS - 1e-9) return;
		const cycleS = this.owedS;
		this.owedS = 0;
		if (!this.awake) return;
		if (this.session === 'extended' && world.timeS - this.lastAskedS > SESSION_TIMEOUT_S) this.endSession();
		if (this.routine?.result === 'running' && world.timeS >= this.routine.endsAtS) {
			const { ready, done } = this.routines.get(this.routine.id) ?? {};
			if (!ready || ready(world, cycleS)) this.routine.result = done?.(world) ? 'good' : 'failed';
		}
		this.run(world, cycleS);
		this.slowOwedS += cycleS;
		const slowS = this.slowOwedS >= SLOW_CYCLE_S - 1e-9 ? this.slowOwedS : 0;
		if (slowS > 0) this.slowOwedS = 0;
		for (const { monitor, watch } of this.watches) {
			const sinceS = watch.fast ? cycleS : slowS;
			if (sinceS === 0) continue;
			const sample = watch.sample(world, sinceS);
			if (sample !== 'none') monitor.step(sample, sinceS, () => this.freeze(world));
		}
		if (slowS > 0) {
			this.lamps = this.lampsAsked;
			this.judge(world, slowS);
		}
	}

	/** What a snapshot keeps of this moment. */
	private freeze(world: World): RawValue[] {
		return this.snapshotIds.flatMap((id) => {
			const raw = this.identify(id, world);
			return raw === null ? [] : [{ id, raw }];
		});
	}

	/** Conclusions that are drawn slowly. */
	protected judge(_world: World, _dtS: number): void {}

	/** Whatever the module does besides monitoring. */
	protected run(_world: World, _dtS: number): void {}

	/** Says its message to everybody who can hear it. */
	protected say<K extends ModuleRole>(
		this: Module & { role: K },
		world: World,
		said: Said[K],
		valid = true
	): void {
		const lost = world.frameLoss > 0 && world.random() < world.frameLoss;
		world.messages.send(this.role, said, valid, this.lamps, world.timeS, world.hears, lost);
	}

	get lampsAsked(): Lamp[] {
		const lamps: Lamp[] = [];
		for (const monitor of this.monitors) {
			if (!monitor.wantsLamp) continue;
			for (const lamp of monitor.rule.lamps) if (!lamps.includes(lamp)) lamps.push(lamp);
		}
		return lamps;
	}

	startPeriodic(items: PeriodicItem[], everyS: number): void {
		const list = [
			...(this.periodic?.list ?? []).filter((old) => !items.some(({ id }) => id === old.id)),
			...items
		];
		const intervalS = Math.max(PERIODIC_SLOT_S, everyS / list.length);
		this.periodic = { list, intervalS, next: 0, dueS: this.awakeS + intervalS };
	}

	/** Ends the sending of some numbers, or of all where none is named. */
	stopPeriodic(numbers: number[]): void {
		const list =
			numbers.length > 0 ? (this.periodic?.list ?? []).filter(({ number }) => !numbers.includes(number)) : [];
		if (this.periodic && list.length > 0) Object.assign(this.periodic, { list, next: 0 });
		else this.periodic = null;
	}

	/** Messages that are due: the number and the value's bytes, as in ISO 14229-1 for service 2A. */
	takePeriodic(world: World): number[][] {
		const due: number[][] = [];
		const { periodic } = this;
		while (periodic && this.awakeS >= periodic.dueS) {
			const item = periodic.list[periodic.next % periodic.list.length];
			periodic.next += 1;
			periodic.dueS += periodic.intervalS;
			const raw = item && this.identify(item.id, world);
			if (item && raw) due.push([item.number, ...hexToBytes(raw)]);
		}
		return due;
	}

	get awake(): boolean {
		return this.awakeS >= BOOT_S;
	}

	failing(...dtcs: string[]): boolean {
		return this.monitors.some((monitor) => monitor.failing && dtcs.includes(monitor.rule.dtc));
	}

	/** A request has come: the session lives on. */
	asked(timeS: number): void {
		this.lastAskedS = timeS;
	}

	endSession(): void {
		this.session = 'default';
		this.unlocked = false;
		this.lock.seed = null;
		this.periodic = null;
		for (const id of this.outputs.keys()) this.outputs.set(id, 0);
	}

	/** The key is turned on: a new operation cycle, from cold where the module had no power. */
	newCycle(hadPower: boolean): void {
		if (!hadPower) this.restart();
		for (const monitor of this.monitors) monitor.newCycle();
	}

	/** Starts from cold; the operation cycle goes on. */
	restart(): void {
		this.awakeS = 0;
		this.owedS = 0;
		this.slowOwedS = 0;
		this.lamps = [];
		this.routine = null;
		this.endSession();
	}

	clear(dtc: string | null): boolean {
		const chosen = this.monitors.filter((monitor) => dtc === null || monitor.rule.dtc === dtc);
		for (const monitor of chosen) monitor.clear();
		return dtc === null || chosen.length > 0;
	}

	/** Volts between its pins. */
	volts(world: World): number {
		return supplyVolts(world, this.role);
	}
}
