import { LAMPS } from '$library/positions';
import { latest } from '$lib/case/thread/thread';
import { lampTableOf, lampTables } from '$library/lampTables';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { caseHere } from '$lib/server/cases/access';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	const reported = latest(view.entries, 'lamps-reported')?.payload.lamps ?? [];
	const cautions = await cautionsHere(locals.services, type);
	return {
		lamps: [...LAMPS],
		/** The lamp that this is most likely about. */
		likely: reported[0]?.lamp ?? 'anti-lock',
		tables: [...lampTables.values()].map((table) => ({ ...table, cautions: cautions.words(table.exposes) })),
		own: lampTableOf(row.vehicle.typeId)?.id ?? null
	};
};
