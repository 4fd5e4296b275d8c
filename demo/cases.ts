import type { Author } from '../src/lib/server/db/threads';
import type { Story } from './story';

type People = Record<'ana' | 'teo' | 'marit', Author>;
type Tell = (story: Story, people: People) => Promise<void>;

const bothLamps = (when: string) => [
	{ lamp: 'anti-lock' as const, manner: 'steady' as const, when },
	{ lamp: 'stability' as const, manner: 'steady' as const, when }
];

/** The demo shop's cases: which vehicle, how many hours ago it came in, and what has happened since. */
export const CASES: { vehicle: string; hoursAgo: number; tell: Tell }[] = [
	{
		vehicle: 'bakery',
		hoursAgo: 50,
		tell: async (story, { ana, teo, marit }) => {
			story.driveAway();
			await story.open('yesterday', teo);
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
			await story.scan(ana);
			await story.later(30).sign(marit);
		}
	},
	{
		vehicle: 'minibus',
		hoursAgo: 2,
		tell: async (story, { ana }) => {
			await story.open('today 15:30', ana);
			await story.listen(
				'The lamp stays on since the winter salt, and the hill start is gone',
				['hill start does not hold'],
				['at key-on'],
				bothLamps('stays on from key-on'),
				'205/75R16C',
				ana
			);
			await story.priorWork(
				'rear-left wheel speed sensor',
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
			await story.open('today 17:00', teo);
			await story.listen(
				'Lamps on along the causeway, off again next morning',
				['pedal pulses at walking pace'],
				['above a speed'],
				bothLamps('above a speed'),
				'235/65R17',
				teo
			);
			await story.scan(teo);
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
			await story.proveStanding(teo);
		}
	},
	{
		vehicle: 'dairy',
		hoursAgo: 3,
		tell: async (story, { ana }) => {
			await story.open('tomorrow', ana);
			await story.listen(
				'The dash is dead but it drives',
				['dead speedometer'],
				['at key-on'],
				[{ lamp: 'dead speedometer', manner: 'steady', when: 'stays on from key-on' }],
				'195/75R16C',
				ana
			);
			await story.scan(ana);
		}
	},
	{
		vehicle: 'shuttle',
		hoursAgo: 1,
		tell: async (story, { teo }) => {
			story.driveAway();
			await story.open('dry road', teo);
			await story.add(
				'complaint',
				{
					words: 'It loses power for a moment on the long straight',
					symptoms: ['power is cut'],
					conditions: ['above a speed']
				},
				teo
			);
		}
	},
	{
		vehicle: 'ambulance',
		hoursAgo: 26,
		tell: async (story, { ana }) => {
			await story.open('as soon as can be', ana);
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
			await story.open('today 18:00', teo);
			await story.listen(
				'Anti-lock lamp since it stood in the flood tide',
				[],
				['at key-on'],
				bothLamps('stays on from key-on'),
				'205/75R16C',
				teo
			);
			await story.scan(teo);
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
	}
];
