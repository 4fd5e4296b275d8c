/**
 * What an address asks for, changed.
 *
 * @param search as in `location.search`
 * @param changes by name; null or empty = no longer asked
 */
export function askedWith(search: string, changes: Readonly<Record<string, string | null>>): string {
	const asked = new URLSearchParams(search);
	for (const [name, value] of Object.entries(changes))
		if (value === null || value === '') asked.delete(name);
		else asked.set(name, value);
	return `?${asked.toString()}`;
}
