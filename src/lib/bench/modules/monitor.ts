import type { DtcHex } from '../../core/codes/dtc';
import { decodeStatus, encodeStatus, type CodeStatus } from '../../core/codes/status';
import type { RawValue } from '../../core/uds/readCodes';

/** What a monitor sees in one step: a failing sample, a passing one, or nothing that lets it judge. */
export type Sample = 'fail' | 'pass' | 'none';

export interface MonitorRule {
	dtc: DtcHex;
	/** Failing samples in a row (net of passing ones) that mature the fault, in seconds. */
	failS: number;
	/** Passing samples that complete the test as good, in seconds. */
	passS: number;
	lamps: Lamp[];
}

export const BENCH_LAMPS = ['brake', 'anti-lock', 'stability', 'steering', 'restraint', 'engine'] as const;
export type Lamp = (typeof BENCH_LAMPS)[number];

export interface StoredSnapshot {
	record: number;
	values: RawValue[];
}

/** A monitor's memory, as it survives the key being off. */
export interface MonitorMemory {
	dtc: DtcHex;
	status: number;
	counter: number;
	occurrences: number;
	ageingCycles: number;
	snapshots: StoredSnapshot[];
}

/** Fault-free key cycles after which a confirmed code is forgotten. */
const AGEING_CYCLES = 40;

/**
 * One code's monitor: a two-sided debounce counter and the status bits it moves, by the rules of ISO 14229-1 annex D.2.
 * Passing never erases a confirmed code; only clearing or ageing does.
 */
export class Monitor {
	readonly rule: MonitorRule;
	private status: CodeStatus;
	/** −1 (passed) … +1 (failed), the fault detection counter as a share. */
	private counter = 0;
	occurrences = 0;
	ageingCycles = 0;
	snapshots: StoredSnapshot[] = [];

	constructor(rule: MonitorRule, testedBefore: boolean) {
		this.rule = rule;
		this.status = cleared();
		if (testedBefore) this.status.notTestedSinceClear = false;
	}

	get statusByte(): number {
		return encodeStatus(this.status);
	}

	get failing(): boolean {
		return this.status.testFailed;
	}

	get wantsLamp(): boolean {
		return this.status.lampRequested;
	}

	/** Fault detection counter as the standard sends it: −128 … 127. */
	get faultCounter(): number {
		return Math.round(this.counter > 0 ? this.counter * 127 : this.counter * 128);
	}

	get memory(): MonitorMemory {
		const { counter, occurrences, ageingCycles, snapshots } = this;
		return { dtc: this.rule.dtc, status: this.statusByte, counter, occurrences, ageingCycles, snapshots };
	}

	recall(memory: MonitorMemory): void {
		this.status = decodeStatus(memory.status);
		this.counter = memory.counter;
		this.occurrences = memory.occurrences;
		this.ageingCycles = memory.ageingCycles;
		this.snapshots = memory.snapshots;
	}

	/** Takes one sample. @param snapshot called when the fault matures, to freeze what the vehicle did */
	step(sample: Sample, dtS: number, snapshot: () => RawValue[]): void {
		if (sample === 'fail') {
			this.counter = Math.min(1, Math.max(this.counter, 0) + dtS / this.rule.failS);
			if (this.counter >= 1 - 1e-9) this.fail(snapshot);
		} else if (sample === 'pass') {
			this.counter = Math.max(-1, Math.min(this.counter, 0) - dtS / this.rule.passS);
			if (this.counter <= -1 + 1e-9) this.pass();
		}
	}

	private fail(snapshot: () => RawValue[]): void {
		if (!this.status.testFailed) {
			this.occurrences = Math.min(255, this.occurrences + 1);
			const values = snapshot();
			const first = this.snapshots[0];
			// Record 1 keeps the first time, record 2 the latest.
			this.snapshots = first ? [first, { record: 2, values }] : [{ record: 1, values }];
		}
		this.ageingCycles = 0;
		Object.assign(this.status, {
			testFailed: true,
			testFailedThisCycle: true,
			pending: true,
			confirmed: true,
			notTestedSinceClear: false,
			failedSinceClear: true,
			notTestedThisCycle: false,
			lampRequested: this.rule.lamps.length > 0
		} satisfies CodeStatus);
	}

	private pass(): void {
		this.status.testFailed = false;
		this.status.notTestedSinceClear = false;
		this.status.notTestedThisCycle = false;
		this.status.lampRequested = false;
	}

	/** By age: the code and what was kept of it go, but only a clear makes its test one that has not run since the clear. */
	private forget(): void {
		const { notTestedSinceClear } = this.status;
		this.clear();
		this.status.notTestedSinceClear = notTestedSinceClear;
	}

	clear(): void {
		this.status = cleared();
		this.counter = 0;
		this.occurrences = 0;
		this.ageingCycles = 0;
		this.snapshots = [];
	}

	/** The key is turned on again: what was known of the cycle before becomes history. */
	newCycle(): void {
		const { testFailedThisCycle, notTestedThisCycle, confirmed } = this.status;
		if (!notTestedThisCycle && !testFailedThisCycle) {
			this.status.pending = false;
			if (confirmed && ++this.ageingCycles >= AGEING_CYCLES) this.forget();
		}
		this.counter = 0;
		this.status.testFailedThisCycle = false;
		this.status.notTestedThisCycle = true;
	}
}

const cleared = (): CodeStatus => ({
	testFailed: false,
	testFailedThisCycle: false,
	pending: false,
	confirmed: false,
	notTestedSinceClear: true,
	failedSinceClear: false,
	notTestedThisCycle: true,
	lampRequested: false
});
