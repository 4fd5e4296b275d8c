import { openWords } from '../codes/openReason';
import { beforeEach, describe, expect, it } from 'vitest';
import { proofHeadline } from '../proof/headline';
import { mayClear } from '../codes/mayClear';
import { projectCase } from './project';
import { summarise } from './summary';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';

let maker: ThreadMaker;
beforeEach(() => {
	maker = new ThreadMaker();
});
const view = () => projectCase(maker.thread);
const next = () => view().next?.title;
const state = (station: string) => view().stations.find((s) => s.id === station)?.state;

describe('the one thing to do next', () => {
	it('walks through a whole job in the trade’s order', () => {
		maker.add('case-opened', {
			vehicleId: 'v',
			typeId: 'brindle-marlow-16',
			name: 'minibus',
			plate: 'TPI 16'
		});
		expect(next()).toBe('Write down what the customer says');
		maker.add('complaint', { words: 'Lamp on', symptoms: [], conditions: [] });
		expect(next()).toBe('Enter VIN and odometer');
		maker.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 10 });
		expect(next()).toBe('Scan every module');
		maker.scan([[BRAKE, OPEN, 0xaf]]);
		expect(next()).toBe('Measure at rear left');
		maker.repair();
		expect(next()).toBe('Clear the codes');
		maker.clear();
		expect(next()).toBe('Turn the key off, wait, and on again');
		maker.cycleKey();
		expect(next()).toBe('Watch the lamps at key-on');
		maker.lamps();
		expect(next()).toBe('Read every module again');
		maker.scan([[BRAKE, OPEN, 0x50]]);
		expect(next()).toBe('Drive it');
		expect(view().next?.why).toContain('rear-left wheel speed above 5 km/h');
		maker.drive();
		expect(next()).toBe('Read every module again');
		maker.scan([]);
		expect(next()).toBe('Ask a lead to sign');
		expect(view().proven).toBe(true);
		maker.add('signature', { statement: 'Released', verdict: view().verdict });
		expect(next()).toBeUndefined();
		expect(view().stations.map((s) => s.state)).toEqual([
			'begun',
			'done',
			'open',
			'open',
			'done',
			'done',
			'done',
			'done'
		]);
	});

	it('asks for another scan while the last one is partial, and says why it stopped', () => {
		maker.listen().scan([], {
			outcome: 'partial',
			stoppedBecause: 'The vehicle closed the connection.',
			modules: [],
			modulesExpected: 2
		});
		expect(view().next).toMatchObject({
			title: 'Scan again',
			why: 'The last scan is partial: the vehicle closed the connection.'
		});
	});

	it('sends back to the fault when a code came back, until another repair is written down', () => {
		maker.listen().scan([[BRAKE, OPEN, 0xaf]]);
		maker
			.repair()
			.clear()
			.cycleKey()
			.lamps('stays on')
			.scan([[BRAKE, OPEN, 0xaf]]);
		expect(next()).toBe('Look again: C0045-13 came back');
		expect(state('mend')).toBe('bad');
		maker.repair();
		expect(next()).toBe('Clear the codes');
	});

	it('sends to what two wheels share before either of them, until all of it was looked at', () => {
		maker.add('case-opened', {
			vehicleId: 'v',
			typeId: 'brindle-marlow-16',
			name: 'minibus',
			plate: 'TPI 16'
		});
		maker.listen().scan([
			[BRAKE, OPEN, 0x2f],
			[BRAKE, '405013', 0x2f]
		]);
		expect(next()).toBe('Rear left and rear right fail at once: look first at what they share');
		const shared = ['shared-plug@X3', 'shared-plug@X20', 'module-plug@brake'];
		const measured = ['meter:module-supply@brake', 'meter:ground-drop@brake'];
		maker.add('test-step', {
			test: 'shared-plug',
			place: 'X20',
			name: 'Look',
			station: 'measure',
			from: 'own',
			how: 'done',
			seen: Object.fromEntries([...shared, ...measured].map((key) => [key, 'clean'])),
			because: '',
			minutes: 4
		});
		expect(next()).not.toContain('at once');
	});

	it('takes a silent module for a finding, with or without codes', () => {
		maker.listen().scan([], {}, [CLUSTER]);
		expect(next()).toBe('Find out why the instrument cluster is silent');
		expect(view().proven).toBe(false);
		maker.repair();
		expect(next()).toBe('Scan again');
		maker.scan([]);
		expect(next()).toBe('Ask a lead to sign');
	});
});

describe('what keeps a case open', () => {
	it('is everything that is not proven, in words', () => {
		maker.listen().scan([[BRAKE, OPEN, 0xaf]]);
		maker.repair().clear().cycleKey();
		expect(view().open.map(openWords)).toEqual([
			'C0045-13 in Brake control: cleared, but its test has not run.',
			'The lamps have not been watched at key-on since the clear.',
			'Not every module has been read since the clear.'
		]);
		maker.lamps('stays on').scan([]);
		expect(view().open.map(openWords)).toEqual(['The anti-lock lamp stays on.']);
	});

	it('is a new code in any module, though the old one is proven', () => {
		maker.listen().scan([[BRAKE, OPEN, 0xaf]]);
		maker
			.repair()
			.clear()
			.cycleKey()
			.lamps()
			.scan([[CLUSTER, 'C41581', 0x2f]]);
		expect(view().open.map(openWords)).toEqual(['U0415-81 in Instrument cluster: new.']);
		expect(view().verdict).toBe('New');
		expect(proofHeadline(view().codes)).toBe('1 new, 1 proven clear');
	});

	it('is a module that answered before and is silent now', () => {
		maker.listen().scan([[BRAKE, OPEN, 0xaf]]);
		maker.repair().clear().cycleKey().lamps().scan([], {}, [CLUSTER]);
		expect(view().open.map(openWords)).toEqual(['Instrument cluster does not answer.']);
	});

	it('counts a clear only for the modules that were cleared', () => {
		maker.listen().scan([
			[BRAKE, OPEN, 0xaf],
			[CLUSTER, 'C41581', 0x2f]
		]);
		maker
			.repair()
			.clear(BRAKE)
			.cycleKey()
			.lamps()
			.scan([[CLUSTER, 'C41581', 0x28]]);
		const verdicts = view().codes.map((code) => [code.text, code.proof.verdict]);
		expect(verdicts).toEqual([
			['C0045-13', 'proven-clear'],
			['U0415-81', 'never-cleared']
		]);
	});
});

describe('leave to clear', () => {
	const allowed = (only: string | null = null) => mayClear(view(), only);

	it('needs a complete record first', () => {
		expect(allowed()).toEqual({
			ok: false,
			error: 'Nothing is cleared before it is recorded: read every module first.'
		});
		maker.scan([[BRAKE, OPEN, 0xaf]], { outcome: 'partial' });
		expect(allowed().ok).toBe(false);
		expect(allowed(BRAKE).ok).toBe(true);
		maker.scan([[BRAKE, OPEN, 0xaf]]);
		expect(allowed()).toMatchObject({ ok: true, value: [{ address: BRAKE }, { address: CLUSTER }] });
	});

	it('needs a new record after every clear', () => {
		maker.scan([[BRAKE, OPEN, 0xaf]]);
		maker.clear();
		expect(allowed()).toMatchObject({ ok: false, error: expect.stringContaining('Read again first') });
		maker.scan([]);
		expect(allowed().ok).toBe(true);
	});

	it('leaves silent modules out, and is not given where codes could not be read', () => {
		const scan = maker.scan([], {}, [CLUSTER]);
		expect(allowed()).toEqual({ ok: true, value: [{ address: BRAKE, name: 'Brake control' }] });
		expect(allowed(CLUSTER).ok).toBe(false);
		if (scan.kind === 'network-scan') scan.payload.modules[0]!.trouble = 'Its codes could not be read: cut.';
		expect(allowed()).toMatchObject({
			ok: false,
			error: expect.stringContaining('would lose what it holds')
		});
	});

	it('is gone once a lead has signed', () => {
		maker.scan([]);
		maker.add('signature', { statement: 'Released', verdict: 'No codes' });
		expect(allowed().ok).toBe(false);
	});
});

describe('corrections', () => {
	it('take the place of what they correct, at its time', () => {
		maker.listen().scan([[BRAKE, OPEN, 0xaf]]);
		maker.repair();
		const wrong = maker.thread.at(-1)!;
		maker.clear();
		maker.add(
			'repair',
			{ title: 'Sensor renewed', position: 'rear-left', parts: [], temporary: false, note: '' },
			{ supersedes: { entryId: wrong.id, why: 'wrong line' }, observedAt: wrong.observedAt }
		);
		const repairs = view().entries.filter((e) => e.kind === 'repair');
		expect(repairs.map((r) => r.payload.title)).toEqual(['Sensor renewed']);
		// Still mended before the clear, although written down after it.
		expect(view().codes[0]?.proof.marks.mended?.state).toBe('good');
	});
});

describe('the floor’s summary', () => {
	it('says who was last at it and what comes next', () => {
		maker.listen();
		expect(summarise(maker.thread)).toMatchObject({
			withName: 'Ana',
			complaint: 'Lamp on',
			verdict: 'Not read yet',
			next: { title: 'Scan every module' }
		});
	});
});

describe('a code that was stored and does not fail now', () => {
	const stored = () => {
		const maker = new ThreadMaker().listen();
		maker.scan([[BRAKE, OPEN, 0x2c]]);
		return maker;
	};
	const nextOf = ({ thread }: ThreadMaker) => projectCase(thread).next;
	const tried = (maker: ThreadMaker, changes: number) =>
		maker.provoked({ position: 'rear-left', does: 'move', is: 'lead', label: 'lead', seconds: 20, changes });

	it('is provoked and not measured at rest, and what made it come is done again before it is driven on', () => {
		const maker = stored();
		expect(nextOf(maker)).toMatchObject({
			station: 'measure',
			page: 'provoke',
			title: 'Make it come, rear left'
		});
		tried(maker, 3);
		expect(nextOf(maker)?.page).toBeUndefined();
		maker.repair().clear().cycleKey().lamps();
		maker.scan([[BRAKE, OPEN, 0]]);
		expect(nextOf(maker)).toMatchObject({ page: 'provoke', title: 'Do the same again as before the repair' });
		tried(maker, 1);
		expect(nextOf(maker)).toMatchObject({ station: 'mend', title: 'Look again: C0045-13 still shows' });
	});

	it('without a link it is told by steps, and goes on by what they showed', () => {
		const maker = stored();
		maker.add('test-step', {
			test: 'wiggle-lead',
			place: 'rear-left',
			name: 'Move the lead',
			station: 'watch',
			from: 'own',
			how: 'done',
			seen: { 'wiggle-lead@rear-left': 'steady' },
			because: '',
			minutes: 4
		});
		expect(nextOf(maker)?.page).toBeUndefined();
	});

	it('one that fails now is measured', () => {
		const maker = new ThreadMaker().listen();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		expect(nextOf(maker)?.title).toBe('Measure at rear left');
	});
});
