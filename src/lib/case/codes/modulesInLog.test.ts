import { describe, expect, it } from 'vitest';
import { keptLog, readLog } from './frameLogReading';
import { modulesInLog } from './modulesInLog';

const found = async (...lines: string[]) => {
	const text = lines.map((line, i) => `(${(i / 100).toFixed(6)}) can0 ${line}`).join('\n');
	const analysis = await readLog(
		(async function* () {
			yield new TextEncoder().encode(text);
		})()
	);
	return modulesInLog(keptLog(analysis, 'ride.log', text.length));
};

describe('the modules that a frame log shows', () => {
	it('are those that answered, with what they said of themselves', async () => {
		const log = await found(
			// Name F197 "ABS 8" in two frames.
			'7E0#0322F19700000000',
			'7E8#1008 62F197414253'.replace(' ', ''),
			'7E0#3000000000000000',
			'7E8#212038',
			// Supply F442: 13.80 V.
			'7E0#0322F442',
			'7E8#0562F44235E8',
			// Coded: 1950 mm, 48 teeth.
			'7E0#0322D150',
			'7E8#0562D150079E',
			'7E0#0322D151',
			'7E8#0462D15130',
			// Codes that it can set.
			'7E0#02190A',
			'7E8#07590AFF40351408',
			// Someone who never answers, and someone who answered a question to all.
			'7A1#023E00',
			'7DF#023E00',
			'7EB#027E00',
			// A module on 29 bits.
			'18DA28F1#0322F195',
			'18DAF128#0562F1955637',
			// Ordinary traffic.
			'1A0#1122334455667788'
		);
		expect(log?.modules).toEqual([
			expect.objectContaining({ address: '0028', software: 'V7', silent: null }),
			expect.objectContaining({ address: '07A1', silent: expect.stringMatching(/did not answer/) }),
			expect.objectContaining({
				address: '07E0',
				name: 'ABS 8',
				volts: 13.8,
				tells: ['F197', 'F442', 'D150', 'D151'],
				coded: { circumferenceMm: 1950, teeth: 48 },
				knows: ['403514']
			}),
			expect.objectContaining({ address: '07E3', name: null, silent: null })
		]);
		expect(log?.stoppedBecause).toBe('Taken from ride.log: whom nobody asked there is not known.');
	});

	it('refused what it was asked, a module is there all the same', async () => {
		const log = await found('7E0#0322F197', '7E8#037F2231');
		expect(log?.modules).toEqual([expect.objectContaining({ address: '07E0', silent: null, tells: [] })]);
	});

	it('are none where nobody is asked anything', async () => {
		expect(await found('1A0#1122334455667788', '18FEF100#FFFFFFFFFFFFFFFF')).toBeNull();
	});
});
