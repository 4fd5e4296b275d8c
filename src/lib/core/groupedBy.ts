/** Things by a key of theirs, each in the order in which they came. */
export function groupedBy<T, K>(all: readonly T[], keyOf: (one: T) => K): Map<K, T[]> {
	const groups = new Map<K, T[]>();
	for (const one of all) {
		const key = keyOf(one);
		const known = groups.get(key);
		if (known) known.push(one);
		else groups.set(key, [one]);
	}
	return groups;
}
