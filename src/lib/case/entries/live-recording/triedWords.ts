import type { TriedThing } from './payload';

/** What is done, in words that end a sentence: "plug X20 moved". */
export function provokingWords({ does, label }: Pick<TriedThing, 'does' | 'label'>): string {
	switch (does) {
		case 'move':
			return `the ${label} moved`;
		case 'wet':
			return 'water on plug and lead';
		case 'warm':
			return 'hot air at the sensor';
		case 'lock':
			return 'the steering from lock to lock';
		case 'in-gear':
			return 'the wheels in gear on stands';
	}
}

/** The same thing done at another time is the same thing. */
export const thingKey = ({ does, label }: { does: string; label: string }): string =>
	does === 'move' ? `move ${label}` : does;

/** What was done and what came of it: "lead: changed 3 times in 10 s; plug X20: nothing in 8 s". */
export const triedWords = (tried: readonly TriedThing[]): string =>
	tried
		.map(({ label, changes, seconds }) => {
			const what = changes === 0 ? 'nothing' : changes === 1 ? 'changed once' : `changed ${changes} times`;
			return `${label}: ${what} in ${Math.round(seconds)} s`;
		})
		.join('; ');
