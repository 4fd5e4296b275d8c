import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import { projectCase } from '../progress/project';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { cascadeOf } from './cascade';

const MINIBUS = vehicleTypes.get('brindle-marlow-16');
if (!MINIBUS) throw new Error('no minibus in the library');
const model = reasonModel(MINIBUS);
const cascade = (codes: [string, string, number][], silent: string[] = []) => {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: MINIBUS.id, name: 'Marlow', plate: 'TP 16' });
	maker.listen().scan(codes, {}, silent);
	const view = projectCase(maker.thread);
	return cascadeOf(view.codes, view.lastCompleteScan, model.type, shippedBook);
};

describe('codes that follow from others', () => {
	it('data called invalid follow from the sender’s own code', () => {
		const { causes, consequences, text } = cascade([
			[BRAKE, OPEN, 0x2f],
			[CLUSTER, 'C41581', 0x2f]
		]);
		expect(causes.map((code) => code.text)).toEqual(['C0045-13']);
		expect(consequences).toMatchObject([
			{ text: 'U0415-81', because: 'brake control marks its data as not valid because of C0045-13' }
		]);
		expect(text).toBe('Do not chase this 1 code: it follows from something else. Chase C0045-13.');
	});

	it('a message that is missing follows from the silence of its sender', () => {
		const { causes, consequences } = cascade([[CLUSTER, 'C12187', 0x2f]], [BRAKE]);
		expect(causes).toEqual([]);
		expect(consequences[0]?.because).toBe('brake control is silent');
	});

	it('a message missing from a sender that answers and knows nothing is a cause of its own', () => {
		const { causes, text } = cascade([[CLUSTER, 'C12187', 0x2f]]);
		expect(causes.map((code) => code.text)).toEqual(['U0121-87']);
		expect(text).toBeNull();
	});
});
