import type { Author } from '../src/lib/server/db/threads';
import { complaintOf, type Story } from './story';

type People = Record<'ana' | 'teo' | 'marit', Author>;
/** Out of the yard, along the causeway and back to a stop: above about 45 km/h the loose ring swings away. */
const CAUSEWAY_DRIVE = [
	{ toKmh: 0, overS: 2 },
	{ toKmh: 18, overS: 6 },
	{ toKmh: 18, overS: 5, steeringDeg: 160 },
	{ toKmh: 30, overS: 5, steeringDeg: 0 },
	{ toKmh: 30, overS: 8, steeringDeg: -90 },
	{ toKmh: 68, overS: 14, steeringDeg: 0 },
	{ toKmh: 68, overS: 22 },
	{ toKmh: 40, overS: 7 },
	{ toKmh: 40, overS: 8 },
	{ toKmh: 0, overS: 10 },
	{ toKmh: 0, overS: 2 }
];

type Tell = (story: Story, people: People) => Promise<void>;

const bothLamps = (when: string) => [
	{ lamp: 'anti-lock' as const, manner: 'steady' as const, when },
	{ lamp: 'stability' as const, manner: 'steady' as const, when }
];

const MAINLAND_PRINT_OUT = `Mainland Garage        job 2291        Date: 02.11.2026
Vehicle: minibus, 83 960 km

Brake control - 2 codes
-----------------------
C0045-13   Rear left wheel sensor     Status: 2F
    present
    Vehicle speed : 0 km/h
    Supply voltage : 12,4 V
C0045-2F   Rear left wheel sensor     stored

Cluster
U0415-81   Invalid data               stored

Sensor replaced, codes cleared. Customer informed.`;

/** Asked twice on the way over the causeway; the first answer lost a segment. */
const CAUSEWAY_LOG = [
	'(1764000000.000000) bus0 0C0#11A0020000000000',
	'(1764000000.010000) bus0 7E0#031902FF00000000',
	'(1764000000.012000) bus0 7E8#100B5902FF40402F',
	'(1764000000.013000) bus0 7E0#3000000000000000',
	'(1764000000.016000) bus0 7E8#222FC4158128FFFF',
	'(1764000000.200000) bus0 0C0#11A4020000000000',
	'(1764000001.010000) bus0 7E0#031902FF00000000',
	'(1764000001.012000) bus0 7E8#100B5902FF40402F',
	'(1764000001.013000) bus0 7E0#3000000000000000',
	'(1764000001.016000) bus0 7E8#212FC4158128FFFF',
	'(1764000001.050000) bus0 7E0#0322F40D00000000',
	'(1764000001.052000) bus0 7E8#0462F40D2F000000',
	'(1764000001.060000) bus0 7E2#023E000000000000'
].join('\n');

/** The demo shop's cases: which vehicle, how many hours ago it came in, and what has happened since. */
export const CASES: { vehicle: string; hoursAgo: number; tell: Tell }[] = [
	{
		vehicle: 'bakery',
		hoursAgo: 50,
		tell: async (story, { ana, teo, marit }) => {
			story.driveAway();
			await story.open({ inHours: -20 }, teo);
			await story.listen(
				'Both lamps come on past the school, never in the yard',
				[],
				['above a speed'],
				bothLamps('above a speed'),
				'205/65R16C',
				teo
			);
			await story.scan(teo);
			await story.later(60).mend(
				{
					title: 'Ring pressed back on its seat and pinned',
					part: 'ring',
					number: 'VS-2204',
					note: 'Had crept 4 mm; gap 1.1 mm all round after.',
					position: 'front-left'
				},
				'refit-ring',
				ana
			);
			await story.proveStanding(ana);
			await story.later(20).provingDrive(ana, 'dry');
			await story.tellReturns(2, 9, 45, ana);
			await story.scan(ana);
			await story
				.later(30)
				.releaseEarly('The bakery has no second van', 'drives on, and comes back if it shows', marit);
			await story.sign(marit);
		}
	},
	{
		vehicle: 'minibus',
		hoursAgo: 2,
		tell: async (story, { ana }) => {
			await story.open({ inHours: 2 }, ana);
			await story.give(ana, ana);
			await story.listen(
				'The lamp stays on since the winter salt, and the hill start is gone',
				['hill start does not hold'],
				['at key-on'],
				bothLamps('stays on from key-on'),
				'205/75R16C',
				ana
			);
			await story.printOut('print-out of the mainland garage', MAINLAND_PRINT_OUT, ana);
			await story.priorWork(
				'rear-left wheel speed sensor',
				'wheel-sensor',
				'three weeks ago',
				'a garage on the mainland',
				ana
			);
			await story.scan(ana);
		}
	},
	{
		vehicle: 'vet',
		hoursAgo: 5,
		tell: async (story, { teo }) => {
			story.driveAway();
			await story.open({ inHours: 4 }, teo);
			await story.give(teo, teo);
			await story.listen(
				'Lamps on along the causeway, off again next morning',
				['pedal pulses at walking pace'],
				['above a speed'],
				bothLamps('above a speed'),
				'235/65R17',
				teo
			);
			await story.frameLog('causeway.log', CAUSEWAY_LOG, teo);
			await story.scan(teo);
			await story.recordDrive(
				'along the causeway',
				CAUSEWAY_DRIVE,
				[{ atS: 48, label: 'lamps come on' }],
				teo
			);
			await story.captureWheels('as it came', ['front-right', 'front-left'], teo);
			await story.later(70).mend(
				{
					title: 'Loose ring refitted',
					part: 'ring',
					number: 'NL-118',
					note: 'Ring turned by hand on the hub; seat cleaned to bright metal.',
					position: 'front-right'
				},
				'refit-ring',
				teo
			);
			await story.captureWheels('ring refitted', ['front-right', 'front-left'], teo);
			await story.tellReturns(3, 14, 45, teo);
			await story.proveStanding(teo);
			await story.recordDrive('to the causeway and back', CAUSEWAY_DRIVE, [], teo);
		}
	},
	{
		vehicle: 'dairy',
		hoursAgo: 3,
		tell: async (story, { ana }) => {
			await story.open({ inHours: 26 }, ana);
			await story.give(ana, ana);
			await story.listen(
				'The dash is dead but it drives',
				['dead speedometer'],
				['at key-on'],
				[{ lamp: 'dead speedometer', manner: 'steady', when: 'stays on from key-on' }],
				'195/75R16C',
				ana
			);
			await story.scan(ana);
			await story.waits('nothing', 'lift 2', '', ana);
			await story.later(6).step('fuse', 'F8', { 'fuse@F8': 'whole' }, 2.5, ana);
			await story.later(4).step('battery', 'vehicle', { 'battery@vehicle': 'in' }, 3, ana);
		}
	},
	{
		vehicle: 'shuttle',
		hoursAgo: 1,
		tell: async (story, { teo }) => {
			story.driveAway();
			await story.open('when the road is dry', teo);
			await story.add(
				'complaint',
				{
					words: 'It loses power for a moment on the long straight',
					...complaintOf(['power is cut'], ['above a speed'])
				},
				teo
			);
			await story.waits('a dry road', '', 'It only does it where it is let run.', teo);
		}
	},
	{
		vehicle: 'ambulance',
		hoursAgo: 26,
		tell: async (story, { ana }) => {
			await story.open('as soon as can be', ana);
			await story.give(ana, ana);
			await story.listen(
				'Lamp came back one day after the new sensor',
				[],
				['at key-on'],
				bothLamps('stays on from key-on'),
				'235/65R16C',
				ana
			);
			await story.scan(ana);
			await story.later(45).mend(
				{
					title: 'Sensor renewed',
					part: 'wheel speed sensor',
					number: 'NH-7301',
					note: 'Old one looked rubbed.',
					position: 'front-left'
				},
				'renew-sensor',
				ana
			);
			await story.proveStanding(ana);
		}
	},
	{
		vehicle: 'crew',
		hoursAgo: 7,
		tell: async (story, { ana, teo }) => {
			await story.open({ inHours: 5 }, teo);
			await story.listen(
				'Anti-lock lamp since it stood in the flood tide',
				[],
				['at key-on'],
				bothLamps('stays on from key-on'),
				'205/75R16C',
				teo
			);
			await story.scan(teo);
			await story.later(15).measureBoth('front-right', 'front-left', 'feed-loaded', teo);
			await story.estimate(
				[
					{ what: 'Finding the fault', minutes: 25 },
					{
						what: 'Lead to the sensor renewed, front right',
						minutes: 40,
						repair: { kind: 'renew-lead', place: 'front-right' }
					},
					{ what: 'Sensor lead BM-4410', amount: 3860 }
				],
				'the ferry company’s office',
				teo
			);
			await story.later(50).mend(
				{
					title: 'Lead to the sensor renewed',
					part: 'sensor lead',
					number: 'BM-4410',
					note: 'Green copper at the inner clip; routed clear of the shield.',
					position: 'front-right'
				},
				'renew-lead',
				ana
			);
			await story.proveStanding(ana);
			await story.later(15).provingDrive(ana, 'wet');
			await story.scan(ana);
		}
	},
	{
		vehicle: 'trailer',
		hoursAgo: 4,
		tell: async (story, { teo }) => {
			story.driveAway();
			await story.open('before the market', teo);
			await story.listen(
				'The red lamp on the drawbar comes on over the cobbles by the pier',
				[],
				['on a rough road', 'when loaded'],
				[{ lamp: 'brake', manner: 'steady', when: 'above a speed' }],
				'195/60R12C',
				teo
			);
			await story.scan(teo);
			await story.waits('a helper', 'yard, by the ramp', 'Somebody to pull it over the cobbles.', teo);
		}
	},
	{
		vehicle: 'post',
		hoursAgo: 2.5,
		tell: async (story, { teo }) => {
			await story.open({ inHours: 3 }, teo);
			await story.give(teo, teo);
			await story.listen(
				'Lamps on from one day to the next',
				[],
				['at key-on'],
				bothLamps('stays on from key-on'),
				'195/75R16C',
				teo
			);
			await story.scan(teo);
			await story.later(80).mend(
				{
					title: 'Brake control module renewed',
					part: 'brake control module',
					number: 'VS-9120',
					note: 'Supply and ground measured under load first: good. The code is of the module itself.',
					position: null,
					place: 'brake'
				},
				'renew-module',
				teo
			);
			await story.scan(teo);
		}
	},
	{
		vehicle: 'pilot',
		hoursAgo: 2,
		tell: async (story, { ana }) => {
			story.driveAway();
			await story.open({ inHours: 20 }, ana);
			await story.give(ana, ana);
			await story.listen(
				'The stability lamp comes on in the bends by the slip',
				['pulls to one side'],
				['when turning'],
				[{ lamp: 'stability', manner: 'steady', when: 'when turning' }],
				'185/60R15',
				ana
			);
			await story.priorWork(
				'track rod, right',
				'steering-gear',
				'last month',
				'a garage on the mainland',
				ana
			);
			await story.scan(ana);
			await story.estimate(
				[
					{ what: 'Tracking looked at, steering angle set to its centre', minutes: 45 },
					{ what: 'Drive to prove it', minutes: 20 }
				],
				null,
				ana
			);
		}
	},
	{
		// Released early three days ago, and here again.
		vehicle: 'bakery',
		hoursAgo: 3,
		tell: async (story, { teo }) => {
			story.driveAway();
			await story.comeback({ inHours: 24 }, teo);
			await story.listen(
				'It is the same again: both lamps, past the school',
				[],
				['above a speed'],
				bothLamps('above a speed'),
				'205/65R16C',
				teo
			);
			await story.scan(teo);
		}
	},
	{
		vehicle: 'slip',
		hoursAgo: 1,
		tell: async (story, { teo }) => {
			story.driveAway();
			await story.open('this week', teo);
			await story.listen(
				'The anti-lock lamp has been on since the winter, and the mainland has no cable for it',
				[],
				[],
				[{ lamp: 'anti-lock', manner: 'steady', when: 'at key-on' }],
				'195/75R16C',
				teo
			);
		}
	}
];
