/** The few latest of what is dear to work out, by what it was worked out from; the one longest unused goes. */
export class LatestCache<T> {
	private readonly byKey = new Map<string, { of: string; value: T }>();

	/** @param most how many are kept */
	constructor(private readonly most: number) {}

	/** What is kept under a key, as long as it was worked out from the same. */
	find(key: string, of: string): T | undefined {
		const known = this.byKey.get(key);
		if (known?.of !== of) return undefined;
		this.byKey.delete(key);
		this.byKey.set(key, known);
		return known.value;
	}

	keep(key: string, of: string, value: T): T {
		this.byKey.delete(key);
		this.byKey.set(key, { of, value });
		if (this.byKey.size > this.most) this.byKey.delete(this.byKey.keys().next().value ?? '');
		return value;
	}

	forget(key: string): void {
		this.byKey.delete(key);
	}

	/** What is kept under the key that says all it was worked out from; made where it is not. */
	get(key: string, make: () => T): T {
		return this.find(key, key) ?? this.keep(key, key, make());
	}
}
