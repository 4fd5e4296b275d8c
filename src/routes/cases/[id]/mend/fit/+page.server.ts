import { allPlaces } from '$library/faultPlaces';
import { PLACES, repairs } from '$library/repairs';
import type { VehicleType } from '$library/index';
import { exposedBySheet } from '$library/exposedBySteps';
import { bleedOrder, fittingSheets, sheetFor, sheetOn } from '$library/fittingSheets';
import { torqueWords } from '$lib/core/calibrate/torque';
import { fittingLacks } from '$lib/case/entries/fitting/lacks';
import { suspectCorners } from '$lib/case/measure/measured';
import { lastFittings } from '$lib/case/mend/fittings';
import type { Entry } from '$lib/case/entries/entry';
import { happenedAfter, latest, ofKind } from '$lib/case/thread/thread';
import { positionWords } from '$lib/case/words';
import { caseHere } from '$lib/server/cases/access';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { clock } from '$lib/server/cases/clock';

function canBeAt(repair: string, place: string, type: VehicleType): boolean {
	const at = repairs.get(repair)?.at;
	return PLACES.some((one) => (at === 'any' || one === at) && allPlaces(one, type).includes(place));
}

/** The repair that a sheet is, where nobody has written it down apart. @param chosen what was chosen on Reason, or done last */
function repairOfSheet(
	of: readonly string[],
	place: string | null,
	chosen: string | null,
	entries: readonly Entry[]
): string | null {
	const kind = of.find((id) => id === chosen) ?? of[0];
	const last = latest(entries, 'repair');
	const does = last?.payload.does;
	const written =
		does !== undefined &&
		of.includes(does.kind) &&
		does.place === (place ?? 'vehicle') &&
		!ofKind(entries, 'fitting').some((sheet) => happenedAfter(entries, sheet, last));
	return written ? null : (kind ?? null);
}

export const load = async ({ params, depends, url, locals }) => {
	depends('jaldi:case');
	const { row, view } = await caseHere({ params, locals });
	const type = row.type;
	const planned = latest(view.entries, 'repair-planned')?.payload ?? null;
	const done = latest(view.entries, 'repair')?.payload.does ?? null;
	const work = planned ? { kind: planned.repair, place: planned.place } : done;
	const chosen =
		fittingSheets.get(url.searchParams.get('sheet') ?? '') ??
		(work && sheetFor(work.kind)) ??
		[...fittingSheets.values()][0] ??
		null;
	const wheels = type?.wheels.map(({ position }) => position as string) ?? [];
	const modules = type?.modules.map(({ role, name }) => ({ id: role as string, words: name })) ?? [];
	const fuses =
		type?.harness.fuses.map(({ name, amps }) => ({ id: name, words: `${name}, ${amps} A` })) ?? [];
	const places =
		chosen?.at === 'corner' || chosen?.at === 'any'
			? wheels.map((position) => ({ id: position, words: positionWords(position) }))
			: chosen?.at === 'module'
				? modules
				: chosen?.at === 'fuse'
					? fuses
					: [];
	const [suspected = ''] = suspectCorners(view.entries, view.codes);
	const asked = url.searchParams.get('place') ?? work?.place ?? suspected;
	const place = places.find(({ id }) => id === asked)?.id ?? places[0]?.id ?? null;
	const sheet = chosen && sheetOn(chosen, type, place);
	const mayBe = (sheet?.repairs ?? []).filter((id) => !type || canBeAt(id, place ?? 'vehicle', type));
	const cautions = await cautionsHere(locals.services, type);
	return {
		sheets: [...fittingSheets.values()].map(({ id, name }) => ({ id, name })),
		sheet: sheet && {
			...sheet,
			cautions: cautions.list(type ? exposedBySheet(sheet, type, place) : sheet.exposes),
			steps: sheet.steps.map((step) => ({
				...step,
				torque: step.do === 'torque' ? torqueWords(step) : null
			}))
		},
		places,
		place,
		bleed: type ? bleedOrder(type).map((position) => ({ id: position, words: positionWords(position) })) : [],
		plate: row.vehicle.plate,
		/** The repair that it is; null where that is written down already, or there is none that it could be. */
		asRepair: repairOfSheet(mayBe, place, work?.kind ?? null, view.entries),
		/** Repairs that can be done there at all. */
		mayBe,
		/** What would be done on the stand-in vehicle; null where there is none. */
		standInRepair:
			row.vehicle.standInAddress && sheet && sheet.repairs.length > 0
				? ((work && sheet.repairs.includes(work.kind) ? work.kind : sheet.repairs[0]) ?? null)
				: null,
		done: lastFittings(view.entries).map(({ id, payload, observedAt, authorName }) => ({
			id,
			name: payload.name,
			place: payload.place,
			lacks: fittingLacks(payload),
			time: clock(observedAt),
			by: authorName
		}))
	};
};
