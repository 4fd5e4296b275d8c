import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseCodes } from '../codes/caseCodes';
import { oneCodeRead } from '../thread/oneCode.fixture';
import { standing } from '../thread/thread';
import type { ThreadMaker } from '../thread/threads.fixture';
import { restsOn } from './bearing';
import { reasonAbout } from './reasoning';

const AMBULANCE = vehicleTypes.get('norvane-heath');
if (!AMBULANCE) throw new Error('no ambulance in the library');
const model = reasonModel(AMBULANCE);
const begun = () => oneCodeRead(AMBULANCE, 'brake', '404513', 0x2f);
const key = ({ thread }: ThreadMaker) => restsOn(standing(thread));
const about = ({ thread }: ThreadMaker) =>
	reasonAbout(standing(thread), model, {
		book: shippedBook,
		codes: caseCodes(thread, shippedBook),
		policy: PROVE_FIRST
	});

describe('what a reasoning rests on', () => {
	it('does not change with what says nothing, whatever stands in it; neither does the reasoning', () => {
		const before = begun();
		const after = begun();
		after.add('note', { text: 'sensor rear left open circuit, lead cut through, renew it' });
		after.add('waiting', { what: 'a part', lift: '', note: 'sensor rear left' });
		expect(key(after)).toBe(key(before));
		expect(about(after).belief).toEqual(about(before).belief);
		expect(about(after).decision.why).toEqual(about(before).decision.why);
	});

	it('changes with what was seen, and back when that is taken back', () => {
		const look = (text: string) => ({ words: text, symptoms: [], conditions: [] });
		const before = begun();
		const after = begun();
		const told = after.add('complaint', look('lamp on'));
		expect(key(after)).not.toBe(key(before));
		const corrected = begun();
		corrected.add('complaint', look('lamp on'));
		corrected.add('complaint', look('lamp off'), { supersedes: { entryId: told.id, why: 'misheard' } });
		expect(key(corrected)).not.toBe(key(after));
	});
});
