import { describe, expect, it } from 'vitest';
import { leftOpen, mayNotCloseUnproven, mayNotSign } from './signing';
import { CLOSED_UNPROVEN, projectCase } from './project';
import { standingItems } from './standingItems';
import { standing } from '../thread/thread';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';

const itemsOf = ({ thread }: ThreadMaker) => standingItems(standing(thread));
const refusal = ({ thread }: ThreadMaker) => mayNotSign(projectCase(thread), 'lead', true);
const heard = () => {
	const maker = new ThreadMaker();
	maker.add('complaint', { words: 'It pulls to the left', symptoms: [], conditions: [] });
	maker.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 10 });
	return maker;
};
const looked = (maker: ThreadMaker, result: 'good' | 'bad') =>
	maker.add('inspection', {
		position: 'rear-left',
		inspection: 'seating',
		name: 'Seating',
		result,
		found: [],
		gapMm: null,
		note: '',
		photos: [],
		proves: [],
		implicates: [],
		says: 'x'
	});
const release = (maker: ThreadMaker, subject: 'complaint' | 'finding' | 'vehicle-number', of: string) =>
	maker.add('release', { subject, of, words: 'it', why: 'the customer knows' });

describe('what stands before a signature besides codes', () => {
	it('a complaint that nobody did anything about, until a lead releases it by name', () => {
		const maker = heard();
		maker.scan([]);
		expect(itemsOf(maker)).toMatchObject([{ subject: 'complaint', page: 'prove' }]);
		expect(refusal(maker)).toContain('It pulls to the left');
		release(maker, 'complaint', 'complaint');
		expect(refusal(maker)).toBeNull();
		// What the customer says anew is not what was released.
		maker.add('complaint', { words: 'Now it squeals', symptoms: [], conditions: [] });
		expect(itemsOf(maker)).toHaveLength(1);
	});

	it('sidewalls that contradict each other or the placard, until they are read anew after tyres were changed', () => {
		const maker = heard();
		maker.scan([]);
		release(maker, 'complaint', 'complaint');
		const read = (front: string, rear: string, placard?: string) =>
			maker.add('tyres-fitted', {
				tyres: (['front-left', 'front-right', 'rear-left', 'rear-right'] as const).map((position) => ({
					position,
					size: position.startsWith('front') ? front : rear,
					brand: '',
					treadMm: null,
					pressureKpa: null
				})),
				...(placard ? { placard: [{ axle: 1, size: placard }] } : {})
			});
		read('205/75R16C', '205/65R16C');
		expect(refusal(maker)).toContain('The sidewalls differ');
		maker.add('repair', {
			title: 'Tyres',
			position: 'rear-left',
			parts: [],
			temporary: false,
			note: '',
			does: { kind: 'fit-right-tyre', place: 'rear-left' }
		});
		expect(itemsOf(maker)).toMatchObject([{ of: 'tyres', words: expect.stringContaining('again') }]);
		read('205/75R16C', '205/75R16C', '205/75R16C');
		expect(itemsOf(maker)).toEqual([]);
		read('205/75R16C', '205/75R16C', '205/65R16C');
		expect(itemsOf(maker)).toMatchObject([{ words: expect.stringContaining('placard') }]);
	});

	it('what was found since the last repair, until it is looked at again and good', () => {
		const maker = heard();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		looked(maker, 'bad');
		maker.repair();
		expect(itemsOf(maker)).toEqual([]);
		looked(maker, 'bad');
		expect(itemsOf(maker)).toMatchObject([{ subject: 'finding', of: 'look:seating@rear-left' }]);
		looked(maker, 'good');
		expect(itemsOf(maker)).toEqual([]);
		looked(maker, 'bad');
		release(maker, 'finding', 'look:seating@rear-left');
		expect(itemsOf(maker)).toEqual([]);
	});

	it('a number whose check digit does not fit, and one that the vehicle denies', () => {
		const maker = new ThreadMaker();
		maker.add('vehicle-checked', { vin: '21111111111111111', checkDigitFits: false, odometerKm: 10 });
		maker.scan([], { vin: '11111111111111111' });
		expect(itemsOf(maker).map(({ of }) => of)).toEqual(['check-digit', 'other-vehicle']);
		release(maker, 'vehicle-number', 'check-digit');
		release(maker, 'vehicle-number', 'other-vehicle');
		expect(itemsOf(maker)).toEqual([]);
	});
});

describe('the next step never names what another page refuses', () => {
	it('asks to read again where clearing would lose what came back since', () => {
		const maker = heard();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		maker.repair().clear().cycleKey().lamps();
		// Mended again after the clear, and nothing read since.
		maker.repair();
		expect(projectCase(maker.thread).next).toMatchObject({
			title: 'Read every module again',
			anchor: 'read'
		});
	});
});

describe('closing a case that cannot be proven', () => {
	it('is a lead’s way out of every state in which something is open, and says what was', () => {
		const maker = heard();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		looked(maker, 'bad');
		const view = projectCase(maker.thread);
		expect(mayNotSign(view, 'lead', true)).not.toBeNull();
		expect(mayNotCloseUnproven(view)).toBeNull();
		expect(leftOpen(view).join(' ')).toMatch(/C0045.*bad when it was last looked at/s);
		maker.add('signature', {
			statement: 'The customer sells it.',
			verdict: CLOSED_UNPROVEN,
			outcome: 'unproven',
			left: leftOpen(view)
		});
		const closed = projectCase(maker.thread);
		expect(closed).toMatchObject({ next: null, verdict: CLOSED_UNPROVEN });
		expect(mayNotCloseUnproven(closed)).toMatch(/signed already/);
	});

	it('tells the same code in many modules once', () => {
		const maker = heard();
		maker.scan([
			[BRAKE, OPEN, 0x2f],
			['1030', OPEN, 0x2f]
		]);
		expect(leftOpen(projectCase(maker.thread)).filter((one) => one.startsWith('C0045'))).toEqual([
			'C0045-13 in 2 modules: never cleared.'
		]);
	});

	it('is refused where nothing is open, and while something of ours is in the vehicle', () => {
		const maker = heard();
		maker.scan([]);
		release(maker, 'complaint', 'complaint');
		expect(mayNotCloseUnproven(projectCase(maker.thread))).toMatch(/sign it/);
		maker.add('signal-held', { position: 'rear-left', method: 'resistor', name: 'A resistor', on: true });
		expect(mayNotCloseUnproven(projectCase(maker.thread))).toMatch(/still in place/);
	});
});

describe('what the vehicle itself counts', () => {
	const counted = (maker: ThreadMaker, odometerKm: number) => maker.scan([], { odometerKm });

	it('an odometer that is not the one on paper stands, until it is read again', () => {
		const maker = heard();
		counted(maker, 84_210);
		release(maker, 'complaint', 'complaint');
		expect(itemsOf(maker)).toMatchObject([
			{ subject: 'vehicle-number', of: 'odometer', words: expect.stringContaining('84,210 km, not 10') }
		]);
		maker.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 84_210 });
		expect(itemsOf(maker)).toEqual([]);
	});

	it('a drive that the odometer did not go stands; one that it went, and one that nobody counted, do not', () => {
		const driven = (from: number | null, to: number | null) => {
			const maker = heard();
			release(maker, 'complaint', 'complaint');
			if (from === null) maker.scan([]);
			else counted(maker, from);
			maker.drive();
			if (to === null) maker.scan([]);
			else counted(maker, to);
			return itemsOf(maker).map(({ of, words }) => (of.startsWith('drive:') ? words : of));
		};
		expect(driven(10, 13.1)).toEqual([]);
		expect(driven(10, 12.2)).toEqual([]);
		expect(driven(10, 10.4)).toEqual([
			'3.0 km are written down as driven, and the odometer went 0.4 km: withdraw the drive on the thread, and write it down as it was.'
		]);
		expect(driven(null, 10.4)).toEqual([]);
		expect(driven(10, null)).toEqual([]);
	});
});
