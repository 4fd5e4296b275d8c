import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../library';
import { AnyOrder } from './anyOrder.fixture';
import { disagreements } from './agreement.fixture';

const STEPS = Number(process.env.JALDI_STEPS ?? 2000);
const A_CASE = 40;
/** Reasoning takes its time: every so many steps it is asked as well. */
const REASONED_EACH = Number(process.env.JALDI_EACH ?? 10);
const TIMEOUT_MS = 600_000;
const FIRST_SEED = Number(process.env.JALDI_SEED ?? 1);

describe('work in any order, on simulated vehicles', () => {
	it(
		'always leaves a way to the end, and no page advises what another excludes',
		() => {
			const types = [...vehicleTypes.values()];
			const wrong: string[] = [];
			for (let step = 0, seed = FIRST_SEED; step < STEPS; seed++) {
				// Every other one any type with a link, as often as they come in.
				const person = new AnyOrder(seed, seed % 2 ? undefined : types[(seed / 2) % types.length]);
				for (let at = 0; at < A_CASE && step < STEPS && !person.view.signature; at++, step++) {
					person.step();
					const said = disagreements(person.view, at % REASONED_EACH === 0 ? person.reasoning : null);
					const stuck = person.view.signature ? null : person.end();
					for (const one of stuck ? [...said, `no way out: ${stuck}`] : said)
						wrong.push(`seed ${seed}: ${one}\n\t\t${person.story.join('\n\t\t')}`);
					if (said.length > 0 || stuck) break;
				}
			}
			expect(wrong.slice(0, 8).join('\n')).toBe('');
		},
		TIMEOUT_MS
	);
});
