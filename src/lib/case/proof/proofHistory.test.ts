import { describe, expect, it } from 'vitest';
import { projectCase } from '../progress/project';
import type { ScannedModule } from '../entries/network-scan/payload';
import { begun, COMES_AND_GOES, ProofThread } from './proof.fixture';
import { BRAKE, CLUSTER, OPEN } from '../thread/threads.fixture';

describe('what a thread shows of a code', () => {
	it('a fault that is simply there asks for no distance', () => {
		const thread = begun().proving();
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code).toMatchObject({ verdict: 'proven-clear', comes: null, open: [] });
	});

	it('one that comes and goes asks how often it came, then for the distance that follows', () => {
		const thread = begun(COMES_AND_GOES).proving().driven(10);
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code).toMatchObject({ verdict: 'not-far-enough', proven: false });
		expect(thread.code.because).toMatch(/say how often/);
		thread.told(3, 30);
		// 30 · (0.05^(−1/3) − 1) = 51.4 km, of which 10 are driven.
		expect(thread.code.comes).toMatchObject({
			residual: expect.closeTo((30 / 40) ** 3, 9),
			furtherKm: expect.closeTo(30 * (0.05 ** (-1 / 3) - 1) - 10, 9)
		});
		thread.driven(42);
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code).toMatchObject({ verdict: 'proven-clear', proven: true });
	});

	it('what the shop asked for when it was told holds, whatever it asks for later', () => {
		const thread = begun(COMES_AND_GOES).told(1, 1, 0.1).proving().driven(10);
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code.verdict).toBe('proven-clear');
		thread.told(1, 1, 0.01);
		expect(thread.code.verdict).toBe('not-far-enough');
	});

	it('kilometres from before the last clear count for nothing', () => {
		const thread = begun(COMES_AND_GOES).told(1, 1).proving().driven(500);
		thread.clear().cycleKey().lamps();
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code).toMatchObject({ verdict: 'not-far-enough', comes: { afterKm: 0 } });
	});

	it('stored beside another that fails at the same wheel, it is the same fault and not one that comes and goes', () => {
		const thread = new ProofThread().listen() as ProofThread;
		thread.scan([
			[BRAKE, '40452F', COMES_AND_GOES],
			[BRAKE, OPEN, 0x2f]
		]);
		expect(thread.code.comes).toBeNull();
	});

	it('the counter of the module, which counts each pass to fail, is no number of returns', () => {
		const thread = begun(COMES_AND_GOES);
		const [, , scan] = thread.thread;
		if (scan?.kind !== 'network-scan') throw new Error('no scan');
		const code = scan.payload.modules.find(({ address }) => address === BRAKE)?.codes[0];
		if (!code) throw new Error('no code');
		code.occurrences = 8;
		expect(thread.code.comes).toMatchObject({ before: null, known: [] });
	});

	it('stored and not failing when first read, it comes and goes until it is shown to be there', () => {
		const NOT_RUN_YET = 0x6c;
		for (const status of [COMES_AND_GOES, NOT_RUN_YET]) {
			const quiet = begun(status).proving().driven(20);
			quiet.scan([[BRAKE, OPEN, 0]]);
			expect(quiet.code.verdict, `status ${status}`).toBe('not-far-enough');
			expect(quiet.code.because).toMatch(/how often/);
		}
		const failsAgain = begun(NOT_RUN_YET);
		failsAgain.scan([[BRAKE, OPEN, 0x2f]]);
		failsAgain
			.proving()
			.driven(20)
			.scan([[BRAKE, OPEN, 0]]);
		expect(failsAgain.code.verdict).toBe('proven-clear');
		const fails = begun(0x2f).proving().driven(20);
		fails.scan([[BRAKE, OPEN, 0]]);
		expect(fails.code.verdict).toBe('proven-clear');
	});

	it('a module that does not have a code any more has not tested it', () => {
		const proven = (change: (module: ScannedModule) => void) => {
			const thread = begun(0x2f).proving().driven(20);
			const scan = thread.scan([]);
			if (scan.kind !== 'network-scan') throw new Error('no scan');
			const module = scan.payload.modules.find(({ address }) => address === BRAKE);
			if (!module) throw new Error('no module');
			change(module);
			return thread.code;
		};
		// It lists what fails, and this is not among it: tested good.
		expect(proven((module) => (module.supported = [])).verdict).toBe('proven-clear');
		// It lists all that it can set, and this is not among them.
		const swapped = proven((module) => (module.supported = [{ dtc: '403513', status: 0 }]));
		expect(swapped.verdict).toBe('test-not-run');
		expect(swapped.because).toMatch(/does not have this code any more/);
		const updated = begun(0x2f);
		const [, , first] = updated.thread;
		if (first?.kind !== 'network-scan') throw new Error('no scan');
		for (const module of first.payload.modules) module.software = 'A1';
		updated.proving().driven(20);
		const after = updated.scan([]);
		if (after.kind !== 'network-scan') throw new Error('no scan');
		for (const module of after.payload.modules) Object.assign(module, { software: 'B7', supported: [] });
		expect(updated.code.verdict).toBe('test-not-run');
	});

	it('the same recording saved as a drive from two tabs counts its kilometres once', () => {
		const [first, second] = ['01JD0000000000000000000101', '01JD0000000000000000000102'];
		const thread = begun(COMES_AND_GOES).told(1, 1).proving();
		const drive = (distanceKm: number, ...recordings: string[]) =>
			thread.add('proving-drive', {
				distanceKm,
				topSpeedKmh: 60,
				stops: 1,
				road: 'dry',
				driver: '',
				note: '',
				recordings
			});
		thread.scan([[BRAKE, OPEN, 0]]);
		drive(10, first);
		drive(10, first);
		expect(thread.code.comes?.afterKm).toBe(10);
		drive(4, first, second);
		thread.driven(5);
		thread.driven(5);
		expect(thread.code.comes?.afterKm).toBe(24);
	});

	it('kilometres from before the clear do not count, whenever they are put on the thread', () => {
		const thread = begun(COMES_AND_GOES).told(1, 1);
		const recording = thread.recording().thread.at(-1)?.id ?? '';
		thread.driven(8);
		thread.proving().driven(10, { recordings: [recording] });
		expect(thread.code.comes?.afterKm).toBe(0);
		const since = thread.recording().thread.at(-1)?.id ?? '';
		thread.driven(3, { recordings: [recording, since] });
		expect(thread.code.comes?.afterKm).toBe(3);
	});

	it('seen in live data before, it must be seen clean in them after', () => {
		const thread = begun().dropsOut().proving();
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code).toMatchObject({ verdict: 'not-all-shown', proven: false });
		thread.recording({ channels: ['vehicle', 'front_left'] });
		expect(thread.code.verdict).toBe('not-all-shown');
		thread.recording();
		expect(thread.code).toMatchObject({ verdict: 'proven-clear', proven: true });
		thread.dropsOut();
		expect(thread.code).toMatchObject({ verdict: 'not-all-shown', because: 'rear left drops out' });
	});

	it('where the module cannot say, a recorded drive that met the conditions proves that its test ran', () => {
		const thread = begun().proving();
		const cannotSay = () => {
			const scan = thread.scan([]);
			if (scan.kind === 'network-scan')
				for (const module of scan.payload.modules) module.availabilityMask = 0x2f;
		};
		cannotSay();
		expect(thread.code.verdict).toBe('test-not-run');
		thread.recording({ conditions: [{ address: BRAKE, dtc: OPEN, metS: 14.4 }] });
		cannotSay();
		expect(thread.code.verdict).toBe('proven-clear');
		expect(thread.code.marks.find(({ mark }) => mark === 'test-ran')?.words).toMatch(/for 14 s/);
	});

	it('a lead lets the distance go by name: released, not proven, and signed as such', () => {
		const thread = begun(COMES_AND_GOES).told(2, 20).proving().driven(5);
		thread.scan([[BRAKE, OPEN, 0]]);
		expect(thread.code.waivable).toEqual(['exposure']);
		thread.letGo('exposure');
		expect(thread.code).toMatchObject({ verdict: 'released', proven: true, waivable: [] });
		expect(thread.code.because).toBe('Let go by Marit: The ferry leaves.');
		expect(projectCase(thread.thread).verdict).toBe('Released by a lead, not all of it proven');
	});

	it('lamps watched before the key cycle prove nothing, and the case stays open', () => {
		const thread = begun().repair().clear().lamps().cycleKey();
		thread.scan([[BRAKE, OPEN, 0]]);
		const { code } = thread as ProofThread;
		expect(code).toMatchObject({ verdict: 'not-all-shown', proven: false });
		expect(code.open).toEqual(['C0045-13 in Brake control: quiet, but not all is shown.']);
		(thread as ProofThread).letGo('lamps');
		expect((thread as ProofThread).code).toMatchObject({ verdict: 'released', proven: true });
	});

	it('names the entry that shows each mark', () => {
		const thread = begun().proving();
		const last = thread.scan([[BRAKE, OPEN, 0]]);
		const by = (mark: string) => thread.code.marks.find((line) => line.mark === mark)?.by?.entryId;
		expect(by('stayed-away')).toBe(last.id);
		expect(by('cleared')).toBe(thread.thread.find(({ kind }) => kind === 'codes-cleared')?.id);
	});

	it('a code that only says that another is missing is a consequence', () => {
		const thread = new ProofThread();
		thread.add('case-opened', {
			vehicleId: 'minibus',
			typeId: 'brindle-marlow-16',
			name: 'minibus',
			plate: ''
		});
		thread.listen();
		thread.scan([
			[BRAKE, OPEN, 0x2f],
			[CLUSTER, 'C41581', 0x2f]
		]);
		const verdicts = projectCase(thread.thread).codes.map(({ text, proof }) => `${text} ${proof.verdict}`);
		expect(verdicts).toEqual(['C0045-13 never-cleared', 'U0415-81 consequence']);
	});
});
