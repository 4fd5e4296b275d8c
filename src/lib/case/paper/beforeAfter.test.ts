import { describe, expect, it } from 'vitest';
import { beforeAfter, statusWords } from './beforeAfter';
import type { PayloadOf } from '../entries/entry';
import { caseReport, groupedCodes } from './report';
import { projectCase } from '../progress/project';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';

function proven(after: Parameters<ThreadMaker['scan']>[0] = [], silent: string[] = []): ThreadMaker {
	const maker = new ThreadMaker().listen();
	maker.add('lamps-reported', { lamps: [{ lamp: 'anti-lock', manner: 'steady', when: 'at key-on' }] });
	maker.scan([
		[BRAKE, OPEN, 0x2f],
		[CLUSTER, 'C41581', 0x2c]
	]);
	maker.repair().clear().cycleKey().lamps();
	maker.scan(after, {}, silent);
	return maker;
}

const NO_RINGS = { before: null, after: null };

describe('the network before and after', () => {
	it('sets the first reading against the last one since the clear, with lamps', () => {
		const sides = beforeAfter(proven().thread);
		expect(sides?.modules.map(({ before, after }) => [before.codes.length, after?.codes.length])).toEqual([
			[1, 0],
			[1, 0]
		]);
		expect(sides?.modules.flatMap(({ before }) => before.codes.map(({ status }) => status))).toEqual([
			'fails now',
			'stored'
		]);
		expect(sides?.lamps[0]).toEqual({
			lamp: 'anti-lock',
			before: 'steady, at key-on',
			after: 'lit and went out'
		});
		expect(sides?.added).toEqual([]);
	});

	it('calls out what is new, and who has fallen silent', () => {
		expect(beforeAfter(proven([[BRAKE, '45B013', 0x2f]]).thread)?.added[0]).toMatch(
			/^C05B0-13 in .+ was not there before: fails now\.$/
		);
		expect(beforeAfter(proven([], [CLUSTER]).thread)?.added).toEqual([
			'Instrument cluster answered before, and is silent now.'
		]);
	});

	it('has no second side before anything was cleared, and none at all before anything was read', () => {
		const maker = new ThreadMaker().listen();
		expect(beforeAfter(maker.thread)).toBeNull();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		expect(beforeAfter(maker.thread)).toMatchObject({ afterAt: null, added: [] });
	});

	it('sets what was found in live data and captures against what is found since the repair', () => {
		const recording = (texts: string[]) => ({
			name: 'road',
			source: { kind: 'vehicle' as const },
			durationS: 60,
			rows: 600,
			rateHz: 10,
			channels: ['vehicle', 'rear_left'],
			marks: [],
			endedBecause: null,
			findings: texts.map((text) => ({
				type: 'dropout' as const,
				channel: 'rear_left',
				startS: 1,
				endS: 2,
				count: 1,
				value: 0,
				text
			})),
			common: [],
			notes: [],
			verdict: 'x',
			shortestVisibleS: 0.1
		});
		const maker = new ThreadMaker().listen();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		maker.add('live-recording', recording(['drops out', 'drops out']));
		maker.repair();
		expect(beforeAfter(maker.thread)?.seen).toEqual([
			{ what: 'live: rear left', before: ['drops out'], after: null, rings: NO_RINGS }
		]);
		maker.add('live-recording', recording([]));
		expect(beforeAfter(maker.thread)?.seen).toEqual([
			{ what: 'live: rear left', before: ['drops out'], after: [], rings: NO_RINGS }
		]);
	});

	it('sets the ring as it came beside the ring as it goes: the worst picture of the one, the last of the other', () => {
		const seen = (turns: number, marked: number[]): PayloadOf<'scope-capture'> => ({
			name: '',
			typeId: 'brindle-marlow-16',
			source: { kind: 'instrument' },
			rateHz: 50_000,
			durationS: 2,
			samples: 100_000,
			teeth: 48,
			channels: [
				{
					name: 'rear_left',
					position: 'rear-left',
					probe: '',
					at: 'sensor',
					kind: 'active',
					lowV: 0.8,
					highV: 1.6,
					peakToPeakV: 0.8,
					pulses: 400,
					medianHz: 200,
					teethPerRev: 48,
					voltsPerHz: null,
					findings: marked.map((tooth) => ({
						type: 'missing-tooth',
						perRev: true,
						count: 5,
						times: [0.1],
						value: 2,
						text: `no pulse at tooth ${tooth}`,
						teeth: [tooth]
					})),
					ring: { teeth: 48, turns, height: Array(48).fill(1), seen: Array(48).fill(1) },
					proves: [],
					implicates: []
				}
			],
			comparison: null,
			verdict: 'x',
			knownGood: false
		});
		const maker = new ThreadMaker().listen();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		maker.add('scope-capture', seen(1, []));
		maker.add('scope-capture', seen(2, [7]));
		maker.add('scope-capture', seen(3, []));
		expect(beforeAfter(maker.thread)?.seen).toMatchObject([
			{ what: 'scope: rear left', rings: { before: { marked: [7], ring: { turns: 2 } }, after: null } }
		]);
		maker.repair();
		maker.add('scope-capture', seen(4, []));
		maker.add('scope-capture', seen(5, []));
		expect(beforeAfter(maker.thread)?.seen).toMatchObject([
			{ after: [], rings: { before: { ring: { turns: 2 } }, after: { marked: [], ring: { turns: 5 } } } }
		]);
	});

	it.each([
		[0x2f, 'fails now'],
		[0x2c, 'stored'],
		[0x04, 'seen once'],
		[0x50, 'not tested since the clear'],
		[0x00, 'not failing']
	])('status %i is said as "%s"', (status, words) => {
		expect(statusWords(status)).toBe(words);
	});
});

describe('a report', () => {
	it('tells the same code of many modules once, and what only follows from another as that', () => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'minibus', plate: '' });
		maker.listen();
		maker.scan([
			[BRAKE, OPEN, 0x2f],
			[CLUSTER, 'C41581', 0x2f]
		]);
		const report = caseReport(maker.thread, projectCase(maker.thread));
		expect(report.codes.map(({ text, follows }) => [text, follows])).toEqual([
			['C0045-13', false],
			['U0415-81', true]
		]);
		const [first] = report.codes;
		const twice = [first!, { ...first!, moduleName: 'another' }];
		expect(groupedCodes(twice).map(({ modules }) => modules.length)).toEqual([2]);
		expect(report).toMatchObject({ proven: false, chainBroken: null, signature: null });
		expect(report.open.length).toBeGreaterThan(0);
		expect(report.evidence).toHaveLength(maker.thread.length);
	});
});
