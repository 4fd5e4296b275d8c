import { describe, expect, it } from 'vitest';
import { believe } from '../../src/lib/core/path/believe';
import type { Observation } from '../../src/lib/core/path/model';
import { vehicleTypes } from '../vehicles';
import { reasonModel } from './model';
import { signKey } from './signs';

const type = vehicleTypes.get('ottaro-pip');
if (!type) throw new Error('no pip');
const model = reasonModel(type);
const LOST = 'power-steering';
/** One module is missed by the others; it answers, and nobody has a code of their own. */
const scan = (epoch: number): Observation[] =>
	type.modules.flatMap(({ role }) =>
		[
			['own-code', 'none'],
			['silent', 'answers'],
			['accused', role === LOST ? 'missing-many' : 'none']
		].flatMap(([sign = '', outcome = '']) => {
			const key = signKey(sign, role);
			return model.sign(key) ? [{ sign: key, outcome, entry: '', epoch }] : [];
		})
	);
const indexOf = (id: string) => model.faults.findIndex((one) => one.id === id);
/** What is believed after scans, each after a repair that cures some of the library's faults. */
function believed(...repairs: string[]) {
	const cured = new Map<number, number>();
	for (const [i, repair] of repairs.entries()) {
		const at = model.repairs.findIndex(({ id }) => id === repair);
		if (at < 0) throw new Error(repair);
		for (const [fault, { curedBy }] of model.faults.entries())
			if (curedBy.includes(at) && !cured.has(fault)) cured.set(fault, i + 1);
	}
	const seen = Array.from({ length: repairs.length + 1 }, (_, epoch) => scan(epoch)).flat();
	return believe(model, seen, (fault) => cured.get(fault) ?? Infinity, repairs.length);
}

describe('something that is not described', () => {
	it('hangs together: a whole scan of one plain picture leaves it thinkable', () => {
		const { present } = believed();
		const unknown = present[indexOf(`not-described@${LOST}`)] ?? 0;
		// Its prior is a few in a thousand at one module.
		expect(unknown).toBeGreaterThan(0.02);
		expect(unknown).toBeLessThan(0.5);
	});

	it('is what is left when one repair after another did not help', () => {
		const after = [
			[`repair-bus@${LOST}`],
			[`repair-bus@${LOST}`, 'renew-fuse@F2'],
			[`repair-bus@${LOST}`, 'renew-fuse@F2', 'clean-ground@G7', `clean-module-plug@${LOST}`]
		].map((repairs) => believed(...repairs).present[indexOf(`not-described@${LOST}`)] ?? 0);
		expect(after).toEqual([...after].sort((a, b) => a - b));
		expect(after.at(-1)).toBeGreaterThan(0.5);
	});

	it('may be there beside something that was described and mended', () => {
		const { states } = believed(`repair-bus@${LOST}`);
		const unknown = indexOf(`not-described@${LOST}`);
		expect(states.some(({ faults }) => faults.length === 2 && faults.includes(unknown))).toBe(true);
		expect(
			states.some(({ faults }) => faults.every((fault) => model.background.has(fault)) && faults.length === 2)
		).toBe(false);
	});
});
