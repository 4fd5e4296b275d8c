import { codeKey, type CodeKey } from '../../core/codes/codeKey';
import { facetsOf, type Facet } from '../../../../library/vocabulary';
import { liveSignals } from '../../../../library/liveSignals';
import { signalsOf, type Condition } from '../../core/conditions/condition';
import { isSettled } from '../../core/prove/proof';
import { legWords, planDrive, withGiven, type DriveLeg } from '../../core/prove/drivePlan';
import { sayCondition } from '../../../../library/signals';
import { typeOf } from '../thread/vehicleOf';
import type { CaseFacts } from '../codes/caseFacts';
import { proofView } from './proofView';
import type { ShowsWhen } from '../entries/returns-told/payload';
import { caseTestConditions } from '../watch/testConditions';
import { latest } from '../thread/thread';

/** What a proving drive has to bring about, and the shortest way found to do it. */
export interface ProvingDrivePlan {
	legs: (Pick<DriveLeg, 'for'> & { words: string })[];
	minutes: number;
	km: number;
	/** Each thing that is covered while it is driven. */
	tasks: DriveGoal[];
	/** Codes of which nothing says what their test needs. */
	unknown: string[];
	/** Goals that no drive on a sound vehicle brings about. */
	unmet: string[];
	/** Still to be driven for what comes and goes, and which code asks for it; null where none does. */
	exposure: ExposureGoal | null;
}

/** The distance that what comes and goes still asks for. */
export interface ExposureGoal {
	/** Still to be driven, km. */
	km: number;
	for: string;
	/** In the customer's words. */
	when: string;
	/** How it has to be driven to count; null = any way. */
	showsWhen: ShowsWhen | null;
	/** The same in words; empty where any way counts. */
	so: string;
}

export interface DriveGoal {
	name: string;
	/** What must happen, in words. */
	words: string;
	/** With what cannot be read of this vehicle taken as given. */
	condition: Condition;
	/** Signals of it that cannot be read. */
	notRead: string[];
	/** Codes whose test it runs, `address/dtc`: their modules may say so themselves. */
	codes: CodeKey[];
}

const compare = (signal: string, is: 'above' | 'below', value: number): Condition => ({
	kind: 'compare',
	left: { kind: 'signal', signal },
	is,
	right: { kind: 'value', value },
	hysteresis: 0
});
const held = (forS: number, ...of: Condition[]): Condition => ({
	kind: 'held',
	forS,
	of: { kind: 'all', of }
});

/** What customers say of when it shows, as something that can be driven. */
const CIRCUMSTANCES: { shows: Facet; goals: [name: string, condition: Condition][] }[] = [
	{
		shows: 'turning',
		goals: [
			['in a bend to the left', held(5, compare('steering', 'above', 60), compare('vehicle', 'above', 8))],
			['in a bend to the right', held(5, compare('steering', 'below', -60), compare('vehicle', 'above', 8))]
		]
	},
	{
		shows: 'fast',
		goals: [['at speed', held(30, compare('vehicle', 'above', 70))]]
	},
	{
		shows: 'slow',
		goals: [['at a walking pace', held(8, compare('vehicle', 'above', 3), compare('vehicle', 'below', 12))]]
	}
];

/** Past the speed at which it showed, and not at one of ours. */
const atTheirSpeed = (kmh: number): [name: string, condition: Condition] => [
	'at the customer’s speed',
	held(20, compare('vehicle', 'above', kmh))
];

export function provingDrivePlan(facts: CaseFacts): ProvingDrivePlan {
	const { entries, codes } = facts;
	const open = codes.filter(({ proof }) => !isSettled(proof.verdict));
	const tests = caseTestConditions({ ...facts, codes: open });
	const type = typeOf(entries);
	const readable = new Set([...(type ? liveSignals(type) : []).map(({ signal }) => signal), 'key_on']);
	const goals = new Map<string, DriveGoal>();
	for (const { condition, code } of tests) {
		const words = sayCondition(condition);
		const known = goals.get(words);
		const name =
			known && !known.name.split(', ').includes(code.text)
				? `${known.name}, ${code.text}`
				: (known?.name ?? code.text);
		const ofCodes = [...(known?.codes ?? []), codeKey(code)];
		goals.set(words, goalOf(name, words, condition, readable, ofCodes));
	}
	const complaint = latest([...entries], 'complaint')?.payload;
	const shows = facetsOf(complaint?.when ?? []);
	const circumstances = [
		...CIRCUMSTANCES.filter((one) => shows.has(one.shows) && !(one.shows === 'fast' && complaint?.atKmh)),
		...(complaint?.atKmh ? [{ goals: [atTheirSpeed(complaint.atKmh)] }] : [])
	].flatMap(({ goals: own }) =>
		own.map(([name, condition]) =>
			goalOf(name, `as the customer says: ${sayCondition(condition)}`, condition, readable)
		)
	);
	const tasks = [...goals.values(), ...circumstances];
	const plan = planDrive(tasks);
	const tested = new Set(tests.map(({ code }) => code.text));
	return {
		legs: plan.legs.map((leg) => ({ words: legWords(leg), for: leg.for })),
		minutes: plan.seconds / 60,
		km: plan.km,
		tasks: tasks.filter(({ name }) => !plan.unmet.includes(name)),
		unknown: [...new Set(open.map(({ text }) => text))].filter((text) => !tested.has(text)),
		unmet: plan.unmet,
		exposure: exposureWanted(facts)
	};
}

function goalOf(
	name: string,
	words: string,
	condition: Condition,
	readable: ReadonlySet<string>,
	codes: CodeKey[] = []
): DriveGoal {
	return {
		name,
		words,
		codes,
		condition: withGiven(condition, true, readable),
		notRead: signalsOf(condition).filter((signal) => !readable.has(signal))
	};
}

function exposureWanted({ entries, codes }: CaseFacts): ProvingDrivePlan['exposure'] {
	const wanted = codes
		.map((code) => ({ code, comes: proofView(code, entries, codes).comes }))
		.filter(({ comes }) => (comes?.furtherKm ?? 0) > 0)
		.sort((a, b) => (b.comes?.furtherKm ?? 0) - (a.comes?.furtherKm ?? 0));
	const [most] = wanted;
	if (!most?.comes?.furtherKm) return null;
	const told = entries
		.filter((entry) => entry.kind === 'returns-told')
		.filter(({ payload }) => codeKey(payload) === codeKey(most.code))
		.at(-1);
	return {
		km: most.comes.furtherKm,
		for: most.code.text,
		when: told?.payload.conditions ?? '',
		showsWhen: most.comes.showsWhen,
		so: most.comes.drivenSo ?? ''
	};
}
