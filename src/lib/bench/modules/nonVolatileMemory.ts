import { numberOf } from './identity';

/** What a module keeps without power besides codes: configuration and calibrations, each under its identifier. */
export class NonVolatileMemory {
	/** Raw hex by identifier; null = erased, as in a new module. */
	private readonly values = new Map<string, string | null>();
	/** Identifiers a tester may write, once unlocked. */
	private readonly writable = new Set<string>();
	private readonly shipped = new Map<string, string>();
	private readonly erasedAs = new Map<string, string>();
	private readonly numbers = new Map<string, number | null>();
	/** Moves with every change, so that what is worked out from kept values need not be worked out again. */
	version = 0;

	/** Declares a value with what a vehicle leaves the works with, and what it reads as when there is none. */
	declare(id: string, raw: string, erasedAs: string, writable: boolean): void {
		this.values.set(id, raw);
		this.shipped.set(id, raw);
		this.erasedAs.set(id, erasedAs);
		if (writable) this.writable.add(id);
	}

	/** Raw hex; erased memory reads as "not available". Null for what it does not keep. */
	read(id: string): string | null {
		const value = this.values.get(id);
		if (value === undefined) return null;
		return value ?? this.erasedAs.get(id) ?? null;
	}

	has(id: string): boolean {
		return (this.values.get(id) ?? null) !== null;
	}

	/** A kept value in its unit; null where there is none. */
	number(id: string): number | null {
		const known = this.numbers.get(id);
		if (known !== undefined) return known;
		const value = numberOf(id, this.values.get(id) ?? null);
		this.numbers.set(id, value);
		return value;
	}

	private changed(): void {
		this.version += 1;
		this.numbers.clear();
	}

	mayWrite(id: string): boolean {
		return this.writable.has(id);
	}

	bytes(id: string): number {
		return (this.shipped.get(id)?.length ?? 0) / 2;
	}

	/** Keeps a value. False where this module has no such thing or the length is wrong. */
	write(id: string, raw: string | null): boolean {
		if (!this.values.has(id) || (raw !== null && raw.length !== this.shipped.get(id)?.length)) return false;
		this.values.set(id, raw);
		this.changed();
		return true;
	}

	/** Writes what a tester may write as the vehicle left the works: coding. What was learned stays. */
	code(): void {
		for (const id of this.writable) this.values.set(id, this.shipped.get(id) ?? null);
		this.changed();
	}

	/** As a new part comes: nothing is written into it. */
	erase(): void {
		for (const id of this.values.keys()) this.values.set(id, null);
		this.changed();
	}

	get memory(): [string, string | null][] {
		return [...this.values];
	}

	recall(memory: [string, string | null][]): void {
		for (const [id, raw] of memory) if (this.values.has(id)) this.values.set(id, raw);
		this.changed();
	}
}
