import { openWords } from '../codes/openReason';
import { describe, expect, it } from 'vitest';
import { caseCalibrations, openCalibrations } from './calibrations';
import type { PayloadOf } from '../entries/entry';
import { projectCase } from '../progress/project';
import { BRAKE, ThreadMaker } from '../thread/threads.fixture';
import { standing } from '../thread/thread';

const NOT_CODED = '455055';
const PRESSURE_MISSING = '413154';
const STEERING = '1020';

function minibus(): ThreadMaker {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'Marlow', plate: 'TP 16' });
	return maker.listen();
}
const repair = (change: Partial<PayloadOf<'repair'>>): PayloadOf<'repair'> => ({
	title: 'Done',
	position: null,
	parts: [],
	temporary: false,
	note: '',
	...change
});
const calibrated = (
	calibration: string,
	role: string,
	state: 'done' | 'failed' | 'interrupted' = 'done'
): PayloadOf<'calibration'> => ({
	calibration,
	role,
	address: role === 'brake' ? BRAKE : STEERING,
	name: calibration,
	how: 'link',
	state,
	values: [],
	conditions: [],
	detail: ''
});
const due = (maker: ThreadMaker) => openCalibrations(standing(maker.thread)).map(({ id }) => id);

const AFTER_MODULE = [
	'coding@brake',
	'steering-zero@steering-angle',
	'yaw-zero@yaw',
	'pressure-zero@brake',
	'drive-learn@brake'
];

describe('work and the calibrations that it calls for, in order', () => {
	it.each<[string, Partial<PayloadOf<'repair'>>, string[]]>([
		['brake module replaced', { does: { kind: 'renew-module', place: 'brake' } }, AFTER_MODULE],
		['the same in words', { title: 'Stability control unit replaced' }, AFTER_MODULE],
		[
			'steering angle sensor replaced',
			{ does: { kind: 'renew-module', place: 'steering-angle' } },
			['steering-zero@steering-angle', 'drive-learn@brake']
		],
		['yaw sensor replaced', { does: { kind: 'renew-module', place: 'yaw' } }, ['yaw-zero@yaw']],
		['yaw sensor fastened', { does: { kind: 'fasten-sensor', place: 'yaw' } }, ['yaw-zero@yaw']],
		[
			'power steering replaced',
			{ does: { kind: 'renew-module', place: 'power-steering' } },
			['steering-zero@steering-angle', 'end-stops@power-steering']
		],
		[
			'parking brake module',
			{ does: { kind: 'renew-module', place: 'park-brake' } },
			['clamp-run@park-brake']
		],
		[
			'rear caliper',
			{ title: 'Caliper rear left renewed' },
			['pump-bleed@brake', 'pressure-zero@brake', 'clamp-run@park-brake']
		],
		['rear discs', { title: 'Rear discs and pads renewed' }, ['clamp-run@park-brake']],
		['front pads', { title: 'Front pads renewed' }, []],
		[
			'track rod',
			{ title: 'Track rod left renewed' },
			['alignment@steering-angle', 'steering-zero@steering-angle']
		],
		['alignment alone', { title: 'Wheel alignment set' }, ['steering-zero@steering-angle']],
		['brake hose', { title: 'Brake hose front left renewed' }, ['pump-bleed@brake', 'pressure-zero@brake']],
		['battery', { does: { kind: 'charge-battery', place: 'vehicle' } }, ['end-stops@power-steering']],
		['tyre', { does: { kind: 'fit-right-tyre', place: 'rear-left' } }, ['tyre-monitoring@brake']],
		[
			'a wheel sensor',
			{ title: 'Wheel sensor rear left', does: { kind: 'renew-sensor', place: 'rear-left' } },
			[]
		],
		['a lead', { title: 'Lead to the sensor renewed' }, []],
		['engine module', { does: { kind: 'renew-module', place: 'engine' } }, []]
	])('%s', (_, change, expected) => {
		const maker = minibus();
		maker.add('repair', repair(change));
		expect(due(maker)).toEqual(expected);
	});

	it('a vehicle without the module owes nothing to it', () => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: 'hexley-drover', name: 'Drover', plate: 'TP 9' });
		maker.add('repair', repair({ does: { kind: 'renew-module', place: 'trailer-brake' } }));
		expect(due(maker)).toEqual(['coding@trailer-brake']);
	});

	it('a calibration that was chosen as the repair is to be done, and is the repair once it is', () => {
		const maker = minibus();
		const planned = { repair: 'calibrate', place: 'steering-angle', title: 'Calibrate' } as const;
		maker.add('repair-planned', {
			...planned,
			answer: 'yes',
			missing: [],
			instead: [],
			expectedMinutes: 30,
			because: ''
		});
		expect(due(maker)).toEqual(['steering-zero@steering-angle']);
		maker.add('calibration', calibrated('steering-zero', 'steering-angle'));
		expect(due(maker)).toEqual([]);
		expect(projectCase(maker.thread).stations.find(({ id }) => id === 'mend')?.state).toBe('done');
		// The same told as a repair counts as done by hand.
		maker.add('repair', repair({ title: 'Track rod right' }));
		expect(due(maker)).toContain('steering-zero@steering-angle');
		maker.add(
			'repair',
			repair({ title: 'Calibrated', does: { kind: 'calibrate', place: 'steering-angle' } })
		);
		expect(due(maker)).not.toContain('steering-zero@steering-angle');
	});

	it('a module that says so itself calls for it too, until its test does not fail any more', () => {
		const maker = minibus();
		maker.scan([
			[BRAKE, NOT_CODED, 0x2f],
			[BRAKE, PRESSURE_MISSING, 0x2f]
		]);
		expect(due(maker)).toEqual(['coding@brake', 'pressure-zero@brake']);
		maker.add('calibration', calibrated('coding', 'brake'));
		maker.scan([
			[BRAKE, NOT_CODED, 0x2e],
			[BRAKE, PRESSURE_MISSING, 0x2f]
		]);
		expect(due(maker)).toEqual(['pressure-zero@brake']);
	});
});

describe('a module that was just taught', () => {
	it('may say for a while that it was not: only after a clear or a key cycle that counts again', () => {
		const maker = minibus();
		maker.scan([[BRAKE, NOT_CODED, 0x2f]]);
		maker.add('calibration', calibrated('coding', 'brake'));
		maker.scan([[BRAKE, NOT_CODED, 0x2f]]);
		expect(due(maker)).toEqual([]);
		maker.add('key-cycled', { confirmedBy: 'person', countBefore: null, countAfter: null });
		maker.scan([[BRAKE, NOT_CODED, 0x2f]]);
		expect(due(maker)).toEqual(['coding@brake']);
	});
});

describe('a case with calibrations due', () => {
	const replaced = () => {
		const maker = minibus();
		maker.scan([[BRAKE, '455004', 0x2f]]);
		maker.add('repair', repair({ title: 'Module renewed', does: { kind: 'renew-module', place: 'brake' } }));
		return maker;
	};

	it('asks for the first of them, is not proven while one is open, and names each with its reason', () => {
		const maker = replaced();
		const view = projectCase(maker.thread);
		expect(view.next).toMatchObject({ station: 'mend', title: 'Coding, brake control', anchor: 'calibrate' });
		expect(view.open.map(openWords)).toContain(
			'Coding, brake control, is due: the brake control module was replaced.'
		);
		expect(view.stations.find(({ id }) => id === 'mend')?.lacks).toBe('5 due');
		maker.add('calibration', calibrated('coding', 'brake', 'interrupted'));
		expect(projectCase(maker.thread).next?.why).toMatch(/^It was cut short\. /);
		maker.add('calibration', calibrated('coding', 'brake'));
		expect(projectCase(maker.thread).next?.title).toBe('Steering angle zero, steering angle');
	});

	it('goes on once the rest is waived or done', () => {
		const maker = replaced();
		maker.add('calibration', calibrated('coding', 'brake'));
		for (const id of AFTER_MODULE.slice(1)) {
			const [calibration = '', role = ''] = id.split('@');
			maker.add('calibration-waived', {
				calibration,
				role,
				name: calibration,
				why: 'sublet to the ferry yard'
			});
		}
		expect(due(maker)).toEqual([]);
		expect(caseCalibrations(standing(maker.thread)).map(({ state }) => state)).toEqual([
			'done',
			'waived',
			'waived',
			'waived',
			'waived'
		]);
		expect(projectCase(maker.thread).next?.station).toBe('prove');
	});

	it('expects the codes of a new module, and takes the calibration for their repair', () => {
		const maker = replaced();
		maker.scan([[BRAKE, NOT_CODED, 0x2f]]);
		const code = () => projectCase(maker.thread).codes.find(({ dtc }) => dtc === NOT_CODED);
		expect(code()?.expected).toBe('the brake control module was replaced');
		maker.add('calibration', calibrated('coding', 'brake'));
		expect(code()?.proof.marks.mended?.state).toBe('good');
		// The fault that was there first is not expected by anything.
		expect(projectCase(maker.thread).codes.find(({ dtc }) => dtc === '455004')?.expected).toBeNull();
	});
});
