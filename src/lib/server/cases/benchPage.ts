import { mateOf } from '../../../../library/positions';
import { familyAt } from '../../case/measure/measured';
import { positionWords } from '../../case/words';
import { caseHere } from './access';
import { cautionsHere } from './cautionsHere';
import { cornersOf } from './corners';

/** What every page of the bench begins with: the case, the wheel it is about, its mate, and the kind of its sensor. */
export async function benchPage({
	params,
	url,
	depends,
	locals
}: {
	params: { id: string };
	url: URL;
	depends: (name: `${string}:${string}`) => void;
	locals: App.Locals;
}) {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	const corners = cornersOf(view, url.searchParams.get('at'));
	const { at } = corners;
	const mate = mateOf(at);
	return {
		cautions: await cautionsHere(locals.services, type),
		row,
		view,
		type,
		wheel: type?.wheels.find(({ position }) => position === at) ?? null,
		family: familyAt(view.entries, at),
		shared: { ...corners, mate, mateWords: positionWords(mate), standIn: row.vehicle.standInAddress !== null }
	};
}
