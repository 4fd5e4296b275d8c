import { sql } from 'drizzle-orm';
import { vehicleTypes } from '../../../../library';
import { wheelCircuitOf } from '../../../../library/codePack';
import { shippedBook, titleSource } from '../../../../library/codes';
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
const MOST_LISTED = 500;

/** Signed cases, each with how it was signed, its last repair and whether it came back. */
interface Signed extends CaseLine {
	verdict: string;
	outcome: 'proven' | 'released' | 'unproven' | null;
	kind: string | null;
	cameBack: number;
	/** Without suffix, with commas between. */
	codes: string | null;
	typeId: string;
}

/** What a wheel's circuit code is answered with by whoever goes by the code. */
const BY_THE_CODE = 'renew-sensor';

/** Of a signature from before its outcome was kept, in the words that it had then. */
const SAID_RELEASED = 'Released';
const outcomeOf = ({ outcome, verdict }: Signed) =>
	outcome ?? (verdict.startsWith(SAID_RELEASED) ? 'released' : 'proven');

/** What this shop's own cases come to. All of it is counted from threads; nothing is entered. */
export class ShopFigures {
	constructor(private readonly db: Database) {}

	/** All of them: of many cases it takes long. */
	async all() {
		return {
			figures: await this.figures(),
			minutes: await this.minutesByStation(),
			codes: await this.codesByType()
		};
	}

	async figures(): Promise<Figure[]> {
		const signed = await this.db.all<Signed>(sql`
			select c.id, c.number, v.nickname, v.type_id as typeId,
				json_extract(s.payload, '$.verdict') as verdict, json_extract(s.payload, '$.outcome') as outcome,
				(select json_extract(r.payload, '$.does.kind') from entry r
					where r.case_id = c.id and r.kind = 'repair' order by r.seq desc limit 1) as kind,
				c.id in (select json_extract(o.payload, '$.comebackOf.caseId') from entry o where o.kind = 'case-opened'
					and json_extract(o.payload, '$.comebackOf.caseId') is not null) as cameBack,
				(select group_concat(distinct k.code) from case_code k where k.case_id = c.id) as codes
			from case_record c
			join vehicle v on v.id = c.vehicle_id
			join entry s on s.case_id = c.id and s.kind = 'signature'
			where c.from_shop is null
			order by c.number desc limit ${MOST_LISTED}`);
		const proven = signed.filter((one) => outcomeOf(one) === 'proven');
		const wheel = signed.filter(
			(one) => outcomeOf(one) !== 'unproven' && one.kind !== null && hadWheelCode(one)
		);
		const avoided = wheel.filter(({ kind, cameBack }) => kind !== BY_THE_CODE && !cameBack);
		return [
			figure('proven', proven, signed.length),
			figure(
				'released',
				signed.filter((one) => outcomeOf(one) === 'released'),
				signed.length
			),
			figure(
				'unproven',
				signed.filter((one) => outcomeOf(one) === 'unproven'),
				signed.length
			),
			figure(
				'comebacks',
				signed.filter(({ cameBack }) => cameBack),
				signed.length
			),
			figure('avoided', avoided, wheel.length)
		];
	}

	/** Minutes that steps took by the timer, at each station. */
	async minutesByStation(): Promise<NamedCount[]> {
		const rows = await this.db.all<CaseLine & { station: string; minutes: number }>(sql`
			select json_extract(e.payload, '$.station') as station,
				sum(json_extract(e.payload, '$.minutes')) as minutes, c.id, c.number, v.nickname
			from entry e join case_record c on c.id = e.case_id join vehicle v on v.id = c.vehicle_id
			where e.kind = 'test-step' and json_extract(e.payload, '$.minutes') > 0 and c.from_shop is null
			group by station, c.id order by c.number desc limit ${MOST_LISTED}`);
		return summed(rows.map((row) => ({ ...row, name: row.station, amount: row.minutes })));
	}

	/** Codes of each type of vehicle: on how many cases. */
	async codesByType(): Promise<NamedCount[]> {
		const rows = await this.db.all<CaseLine & { typeId: string; code: string }>(sql`
			select distinct v.type_id as typeId, k.code, c.id, c.number, v.nickname
			from case_code k join case_record c on c.id = k.case_id join vehicle v on v.id = c.vehicle_id
			where k.code not like 'U%' and c.from_shop is null
			order by c.number desc limit ${MOST_LISTED}`);
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

const lineOf = ({ id, number, nickname }: CaseLine): CaseLine => ({ id, number, nickname });
const figure = (id: string, cases: readonly CaseLine[], of: number): Figure => ({
	id,
	value: cases.length,
	of,
	cases: cases.map(lineOf)
});

function summed(rows: readonly (CaseLine & { name: string; amount: number })[]): NamedCount[] {
	const found = new Map<string, NamedCount>();
	for (const row of rows) {
		const known = found.get(row.name) ?? { name: row.name, value: 0, cases: [] };
		known.value += row.amount;
		if (!known.cases.some(({ id }) => id === row.id)) known.cases.push(lineOf(row));
		found.set(row.name, known);
	}
	return [...found.values()].sort((a, b) => b.value - a.value || a.name.localeCompare(b.name));
}
