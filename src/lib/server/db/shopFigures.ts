import { sql } from 'drizzle-orm';
import { vehicleTypes } from '../../../../library';
import { wheelCircuitOf } from '../../../../library/codePack';
import { shippedBook, titleSource } from '../../../../library/codes';
import { repairs } from '../../../../library/repairs';
import { Estimate } from '../../case/entries/estimate/payload';
import { typeName } from './cases';
import type { Database } from './open';

/** One number of the shop, with the cases behind it. */
export interface Figure {
	id: string;
	value: number;
	/** Out of so many, where it is a share. */
	of: number | null;
	cases: { id: string; number: number; nickname: string }[];
}
export interface NamedCount {
	name: string;
	value: number;
	/** Where its cases are found. */
	cases: Figure['cases'];
}

interface CaseLine {
	id: string;
	number: number;
	nickname: string;
}
/** Cases that are counted, the newest first: of more nobody would wait for the number. */
const MOST_COUNTED = 20_000;
/** Cases that are named under a number. */
const MOST_LISTED = 200;

/** What is counted. */
export interface Within {
	/** Moments in writing, from and before which cases were signed or steps done; null = whenever. */
	from: string | null;
	before: string | null;
	/** Account of whoever did the last repair, or the step; null = everybody. */
	by: string | null;
}
export const EVER: Within = { from: null, before: null, by: null };

/** A signed case, with how it was signed, its last repair and whether it came back. */
export interface Signed extends CaseLine {
	verdict: string;
	outcome: 'proven' | 'released' | 'unproven' | null;
	signedAt: string;
	/** What was done last, as it was written down. */
	repair: string | null;
	/** The same by the library; null where it is none of its repairs. */
	kind: string | null;
	repairedBy: string | null;
	cameBack: number;
	/** Without suffix, with commas between. */
	codes: string | null;
	typeId: string;
	/** By the timer of its steps. */
	minutes: number | null;
	/** Payload of the last estimate; null = there was none. */
	estimate: string | null;
	/** What was done last on the comeback; null where there is none, or nothing was done yet. */
	backRepair: string | null;
	backKind: string | null;
}

/** A case that came back: what was done, and what was done then. */
export interface CameBack extends CaseLine {
	before: string;
	/** Null = nothing yet. */
	after: string | null;
	/** Whether the same repair was done once more: the part, or the way it was done. Null = nobody can tell. */
	again: boolean | null;
}

/** What a wheel's circuit code is answered with by whoever goes by the code. */
const BY_THE_CODE = 'renew-sensor';

/** Of a signature from before its outcome was kept, in the words that it had then. */
const SAID_RELEASED = 'Released';
export const outcomeOf = ({ outcome, verdict }: Pick<Signed, 'outcome' | 'verdict'>) =>
	outcome ?? (verdict.startsWith(SAID_RELEASED) ? 'released' : 'proven');

/** Minutes of work that the customer was told of; null where there was no estimate. */
export function estimatedMinutes({ estimate }: Pick<Signed, 'estimate'>): number | null {
	const read = estimate === null ? null : Estimate.safeParse(JSON.parse(estimate));
	if (!read?.success) return null;
	return read.data.lines.reduce((sum, line) => sum + ('minutes' in line ? line.minutes : 0), 0);
}

/** What this shop's own cases come to. All of it is counted from threads; nothing is entered. */
export class ShopFigures {
	constructor(private readonly db: Database) {}

	/** All of them: of many cases it takes long. */
	async all(within: Within = EVER) {
		const signed = await this.signed(within);
		return {
			figures: figuresOf(signed),
			isAll: signed.length < MOST_COUNTED,
			cameBack: cameBackOf(signed),
			estimated: estimatedAgainstUsed(signed),
			saved: savedBy(signed),
			minutes: await this.minutesByStation(within),
			codes: await this.codesByType(within)
		};
	}

	async figures(within: Within = EVER): Promise<Figure[]> {
		return figuresOf(await this.signed(within));
	}

	/** Signed cases of this shop, the newest first. */
	async signed({ from, before, by }: Within = EVER): Promise<Signed[]> {
		const repair = (of: string, what: string) =>
			sql.raw(
				`(select ${what} from entry r where r.case_id = ${of} and r.kind = 'repair' order by r.seq desc limit 1)`
			);
		const back = `(select o.case_id from entry o where o.kind = 'case-opened'
			and json_extract(o.payload, '$.comebackOf.caseId') = c.id order by o.rowid desc limit 1)`;
		const rows = await this.db.all<Signed & { repairedById: string | null }>(sql`
			select c.id, c.number, v.nickname, v.type_id as typeId, s.received_at as signedAt,
				json_extract(s.payload, '$.verdict') as verdict, json_extract(s.payload, '$.outcome') as outcome,
				${repair('c.id', `json_extract(r.payload, '$.title')`)} as repair,
				${repair('c.id', `json_extract(r.payload, '$.does.kind')`)} as kind,
				${repair('c.id', 'r.author_name')} as repairedBy,
				${repair('c.id', 'r.author_id')} as repairedById,
				${sql.raw(back)} is not null as cameBack,
				${repair(back, `json_extract(r.payload, '$.title')`)} as backRepair,
				${repair(back, `json_extract(r.payload, '$.does.kind')`)} as backKind,
				(select group_concat(distinct k.code) from case_code k where k.case_id = c.id) as codes,
				(select sum(json_extract(t.payload, '$.minutes')) from entry t
					where t.case_id = c.id and t.kind = 'test-step' and json_extract(t.payload, '$.how') = 'done') as minutes,
				(select e.payload from entry e where e.case_id = c.id and e.kind = 'estimate' order by e.seq desc limit 1)
					as estimate
			from entry s indexed by entry_kind
			join case_record c on c.id = s.case_id
			join vehicle v on v.id = c.vehicle_id
			where s.kind = 'signature' and c.from_shop is null and c.coming_in = 0
				and (${from} is null or s.received_at >= ${from}) and (${before} is null or s.received_at < ${before})
			order by c.number desc limit ${MOST_COUNTED}`);
		return by === null ? rows : rows.filter(({ repairedById }) => repairedById === by);
	}

	/** Minutes that steps took by the timer, at each station. */
	async minutesByStation({ from, before, by }: Within = EVER): Promise<NamedCount[]> {
		const rows = await this.db.all<CaseLine & { station: string; minutes: number }>(sql`
			select json_extract(e.payload, '$.station') as station,
				sum(json_extract(e.payload, '$.minutes')) as minutes, c.id, c.number, v.nickname
			from entry e join case_record c on c.id = e.case_id join vehicle v on v.id = c.vehicle_id
			where e.kind = 'test-step' and json_extract(e.payload, '$.minutes') > 0 and c.from_shop is null
				and (${from} is null or e.received_at >= ${from}) and (${before} is null or e.received_at < ${before})
				and (${by} is null or e.author_id = ${by})
			group by station, c.id order by c.number desc limit ${MOST_COUNTED}`);
		return summed(rows.map((row) => ({ ...row, name: row.station, amount: row.minutes })));
	}

	/** Codes of each type of vehicle: on how many cases. */
	async codesByType({ from, before }: Pick<Within, 'from' | 'before'> = EVER): Promise<NamedCount[]> {
		const rows = await this.db.all<CaseLine & { typeId: string; code: string }>(sql`
			select distinct v.type_id as typeId, k.code, c.id, c.number, v.nickname
			from case_code k join case_record c on c.id = k.case_id join vehicle v on v.id = c.vehicle_id
			where k.code not like 'U%' and c.from_shop is null
				and (${from} is null or c.created_at >= ${from}) and (${before} is null or c.created_at < ${before})
			order by c.number desc limit ${MOST_COUNTED}`);
		return summed(
			rows.map((row) => ({ ...row, name: `${row.code} ${typeName(row.typeId)}`, amount: 1 }))
		).slice(0, 12);
	}
}

/** Whether a code of a wheel stood, by the library's own word for it. */
function hadWheelCode({ codes, typeId }: Signed): boolean {
	const maker = vehicleTypes.get(typeId)?.maker ?? null;
	return (codes ?? '')
		.split(',')
		.some((code) => wheelCircuitOf(titleSource(shippedBook, { code, failureType: '00', maker })));
}

function figuresOf(signed: readonly Signed[]): Figure[] {
	const endedAs = (outcome: string) => signed.filter((one) => outcomeOf(one) === outcome);
	return [
		figure('proven', endedAs('proven'), signed.length),
		figure('released', endedAs('released'), signed.length),
		figure('unproven', endedAs('unproven'), signed.length),
		figure(
			'comebacks',
			signed.filter(({ cameBack }) => cameBack),
			signed.length
		),
		figure('avoided', avoidedIn(signed), wheelCases(signed).length)
	];
}

const wheelCases = (signed: readonly Signed[]): Signed[] =>
	signed.filter((one) => outcomeOf(one) !== 'unproven' && one.kind !== null && hadWheelCode(one));

/** Cases on which whoever goes by the code would have renewed a good part. */
const avoidedIn = (signed: readonly Signed[]): Signed[] =>
	wheelCases(signed).filter(({ kind, cameBack }) => kind !== BY_THE_CODE && !cameBack);

/** What those parts would have cost by the library's prices, in whole units of the shop's money. */
const savedBy = (signed: readonly Signed[]): number =>
	avoidedIn(signed).length * (repairs.get(BY_THE_CODE)?.price ?? 0);

function cameBackOf(signed: readonly Signed[]): CameBack[] {
	return signed
		.filter(({ cameBack }) => cameBack)
		.slice(0, MOST_LISTED)
		.map((one) => ({
			...lineOf(one),
			before: one.repair ?? 'nothing was mended',
			after: one.backRepair,
			again: one.kind === null || one.backKind === null ? null : one.kind === one.backKind
		}));
}

/** Minutes that customers were told of against those that the timer counted, of cases that have both. */
function estimatedAgainstUsed(signed: readonly Signed[]): { estimated: number; used: number; cases: number } {
	const both = signed.flatMap((one) => {
		const estimated = estimatedMinutes(one);
		return estimated !== null && one.minutes !== null ? [{ estimated, used: one.minutes }] : [];
	});
	return {
		estimated: both.reduce((sum, { estimated }) => sum + estimated, 0),
		used: both.reduce((sum, { used }) => sum + used, 0),
		cases: both.length
	};
}

const lineOf = ({ id, number, nickname }: CaseLine): CaseLine => ({ id, number, nickname });
const figure = (id: string, cases: readonly CaseLine[], of: number): Figure => ({
	id,
	value: cases.length,
	of,
	cases: cases.slice(0, MOST_LISTED).map(lineOf)
});

function summed(rows: readonly (CaseLine & { name: string; amount: number })[]): NamedCount[] {
	const found = new Map<string, NamedCount>();
	for (const row of rows) {
		const known = found.get(row.name) ?? { name: row.name, value: 0, cases: [] };
		known.value += row.amount;
		if (known.cases.length < MOST_LISTED && !known.cases.some(({ id }) => id === row.id))
			known.cases.push(lineOf(row));
		found.set(row.name, known);
	}
	return [...found.values()].sort((a, b) => b.value - a.value || a.name.localeCompare(b.name));
}
