import { z } from 'zod';
import { linkTypes, type VehicleType } from '../../../../library';
import { placesFor } from '../../../../library/faultPlaces';
import { faults, type Fault } from '../../../../library/faults';
import { withDrawnFamilies } from '../../../../library/wheelSensors';
import { LINKS } from '../../../../library/links';
import { parseJsonText } from '../../core/jsonText';
import { fail, ok, type Result } from '../../core/result';
import { mixedSeed } from '../technician/mixedSeed';
import { uniform } from '../vehicle';
import type { TrialCase } from './trialCase';

/** What `jaldi trial --faults` reads: vehicles with what is wrong with them, by link and mode. */
const FaultFile = z
	.array(
		z.object({
			/** Vehicle type; where absent, one that can have all of them. */
			vehicle: z.string().optional(),
			faults: z
				.array(
					z.object({
						position: z.string().nullish(),
						link: z.enum(LINKS),
						mode: z.string(),
						severity: z.number().min(0).max(1).default(0.6),
						intermittentKm: z.number().positive().nullish()
					})
				)
				.min(1)
				.max(4)
		})
	)
	.min(1);
/** Sensors are drawn so many times for one that can have what is asked for. */
const FAMILY_TRIES = 50;
type Described = z.infer<typeof FaultFile>[number];

/** Every fault by link and mode, with where it can be. */
export const listFaults = () =>
	[...faults.values()].map(({ link, mode, at, name, id }) => ({ link, mode, at, name, id }));

/** The cases of a file, and how many of them no vehicle can have. */
export interface FileCases {
	cases: TrialCase[];
	skipped: number;
}

/**
 * The cases of a file, `count` of them in turn; null = each once. One that no vehicle can have is left out. The error names the
 * case and what was expected.
 */
export function casesOfFile(
	text: string,
	count: number | null,
	seed: number,
	only?: VehicleType
): Result<FileCases> {
	const json = parseJsonText(text);
	if (!json.ok) return json;
	const parsed = FaultFile.safeParse(json.value);
	if (!parsed.success) {
		const [issue] = parsed.error.issues;
		return fail(`at ${issue?.path.join('.') || 'the top'}: ${issue?.message}`);
	}
	const list = parsed.data;
	const cases: TrialCase[] = [];
	const impossible = new Set<number>();
	for (let i = 0; cases.length < (count ?? list.length) && impossible.size < list.length; i++) {
		if (count === null && i >= list.length) break;
		const at = i % list.length;
		if (impossible.has(at)) continue;
		const one = caseOf(list[at] as Described, mixedSeed(seed * 1_000_003 + i), only);
		if (!one.ok) return fail(`case ${at + 1}: ${one.error}`);
		if (one.value) cases.push(one.value);
		else impossible.add(at);
	}
	return ok({ cases, skipped: impossible.size });
}

/** null = no vehicle can have all of these. */
function caseOf(
	{ vehicle, faults: described }: Described,
	seed: number,
	only?: VehicleType
): Result<TrialCase | null> {
	const random = uniform(seed);
	const pick = <T>(of: readonly T[]): T | undefined => of[Math.floor(random() * of.length)];
	const wanted: { fault: Fault; one: Described['faults'][number] }[] = [];
	for (const one of described) {
		const fault = [...faults.values()].find(({ link, mode }) => link === one.link && mode === one.mode);
		if (!fault) return fail(`there is no mode "${one.mode}" of ${one.link}; --list-faults lists them`);
		wanted.push({ fault, one });
	}
	const place = (type: VehicleType, { fault, one }: (typeof wanted)[number]): string[] =>
		placesFor(fault, type).filter(
			(at) =>
				one.position === null || one.position === undefined || fault.at !== 'corner' || at === one.position
		);
	const types = (only ? [only] : linkTypes).filter(
		(type) =>
			(only !== undefined || vehicle === undefined || type.id === vehicle) &&
			wanted.every((each) => place(type, each).length > 0)
	);
	const type = pick(types);
	if (!type) return ok(null);
	// A family that all the faults can have.
	const fits = (built: VehicleType) => wanted.every((each) => place(built, each).length > 0);
	let built = withDrawnFamilies(type, random);
	for (let tries = 0; tries < FAMILY_TRIES && !fits(built); tries++) built = withDrawnFamilies(type, random);
	if (!fits(built)) return ok(null);
	return ok({
		type,
		built,
		seed,
		faults: wanted.map((each) => ({
			id: each.fault.id,
			at: pick(place(built, each)) ?? '',
			severity: each.one.severity,
			everyKm: each.one.intermittentKm ?? null
		}))
	});
}
