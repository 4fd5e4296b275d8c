import { describe, expect, it } from 'vitest';
import type { ComplaintAnswered } from '../entries/complaint-answered/payload';
import { PAYLOADS } from '../entries/registry';
import { standingItems } from '../progress/standingItems';
import { mayNotSign } from '../progress/signing';
import { projectCase } from '../progress/project';
import { standing } from '../thread/thread';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { complaintOpen, complaintThings } from './complaintThings';

const told = (felt: string[], symptoms: string[] = []) => {
	const maker = new ThreadMaker();
	maker.add('complaint', { words: 'It pulls, and hums', symptoms, conditions: [], felt, when: [] });
	maker.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 10 });
	return maker;
};
const answer = (maker: ThreadMaker, how: ComplaintAnswered['how'], thing = 'pulls-aside') =>
	maker.add('complaint-answered', {
		what: thing === 'pulls-aside' ? 'felt' : 'words',
		thing,
		how,
		why: '60 km/h, dry'
	});
const openIn = ({ thread }: ThreadMaker) => complaintOpen(standing(thread)).map(({ words }) => words);
const refusal = ({ thread }: ThreadMaker) => mayNotSign(projectCase(thread), 'lead', true);

describe('the complaint as something to be proven', () => {
	it('is each thing that was said; where nothing was chosen, the words themselves', () => {
		const maker = told(['pulls-aside'], ['a hum at 80']);
		maker.add('lamps-reported', { lamps: [{ lamp: 'anti-lock', manner: 'steady', when: 'always' }] });
		expect(complaintThings(standing(maker.thread)).map(({ words }) => words)).toEqual([
			'pulls to one side',
			'a hum at 80',
			'anti-lock lamp'
		]);
		expect(complaintThings(standing(told([]).thread)).map(({ words }) => words)).toEqual([
			'It pulls, and hums'
		]);
	});

	it('keeps a case without a code from being signed until each thing is gone or explained', () => {
		const maker = told(['pulls-aside']);
		maker.scan([]);
		expect(refusal(maker)).toContain('pulls to one side');
		answer(maker, 'does-not-show');
		expect(refusal(maker)).toContain('did not show');
		answer(maker, 'shows-again');
		expect(refusal(maker)).toContain('shows again');
		answer(maker, 'explained');
		expect(openIn(maker)).toEqual([]);
		expect(refusal(maker)).toBeNull();
	});

	it('asks anew after another repair whether it is gone, and lets an explanation stand', () => {
		const maker = told(['pulls-aside']);
		maker.scan([]);
		// Nothing has ended it yet: that it is gone settles nothing.
		answer(maker, 'gone');
		expect(refusal(maker)).toContain('nothing was mended');
		maker.repair();
		expect(openIn(maker)).toEqual(['pulls to one side']);
		answer(maker, 'gone');
		expect(openIn(maker)).toEqual([]);
		const explained = told(['pulls-aside']);
		explained.scan([]);
		answer(explained, 'explained');
		explained.repair();
		expect(openIn(explained)).toEqual([]);
	});

	it('is one thing though it was said twice, and can be released however long it is', () => {
		expect(complaintThings(standing(told([], ['a hum', 'a hum']).thread))).toHaveLength(1);
		const long = 'It hums. '.repeat(222);
		for (const symptoms of [[long], []]) {
			const maker = new ThreadMaker();
			maker.add('complaint', { words: long, symptoms, conditions: [] });
			const [item] = standingItems(standing(maker.thread));
			const release = { subject: item?.subject, of: item?.of, words: item?.words, why: 'known' };
			expect(PAYLOADS.release.safeParse(release).success).toBe(true);
		}
	});

	it('is let go by a lead by name, each thing for itself', () => {
		const maker = told(['pulls-aside', 'noise']);
		maker.scan([]);
		maker.add('release', { subject: 'complaint', of: 'felt:noise', words: 'noise', why: 'tyres, known' });
		expect(refusal(maker)).toContain('pulls to one side');
		maker.add('release', { subject: 'complaint', of: 'felt:pulls-aside', words: 'pull', why: 'known' });
		expect(refusal(maker)).toBeNull();
	});

	it('is answered for a lamp by the lamp, once it lit and went out after the repair', () => {
		const maker = told([]);
		maker.scan([]);
		maker.add('lamps-reported', { lamps: [{ lamp: 'anti-lock', manner: 'steady', when: 'always' }] });
		const check = (result: 'lit and went out' | 'stays on') =>
			maker.add('lamp-check', { lamps: [{ lamp: 'anti-lock', result }] });
		check('stays on');
		expect(openIn(maker)).toEqual(['anti-lock lamp']);
		check('lit and went out');
		expect(refusal(maker)).toContain('did not show');
		maker.repair();
		expect(openIn(maker)).toEqual(['anti-lock lamp']);
		check('lit and went out');
		expect(openIn(maker)).toEqual([]);
	});

	it('where codes were told and mended, is what was seen to show again since the repair', () => {
		const maker = told(['pulls-aside']);
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		expect(openIn(maker)).toEqual(['pulls to one side']);
		maker.repair();
		expect(openIn(maker)).toEqual([]);
		answer(maker, 'shows-again');
		expect(openIn(maker)).toEqual(['pulls to one side']);
		maker.repair();
		expect(openIn(maker)).toEqual([]);
	});
});
