import { channelOf, mateOf, type Position } from '$library/positions';
import { watchDefaults } from '$lib/case/watch/watchDefaults';
import { mayWrite } from '$lib/server/accounts/members';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { caseHere } from '$lib/server/cases/access';
import { casePage } from '$lib/server/cases/page';
import { exposedByVehicle } from '../../../../../../library/exposed';
import { liveSignals } from '../../../../../../library/liveSignals';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const loaded = await caseHere({ params, locals });
	const { row, view, type } = loaded;
	const here = new Set((type?.wheels ?? []).map(({ position }) => position));
	const mateHere = (position: Position) => (here.has(mateOf(position)) ? channelOf(mateOf(position)) : null);
	const { number } = casePage(loaded);
	const cautions = await cautionsHere(locals.services, type);
	// This page has no frame of the case around it that says what the vehicle is.
	const vehicle = type ? exposedByVehicle(type) : [];
	return {
		cautions: {
			hand: cautions.words([...vehicle, 'wheel-turns', 'hands-near-wheel']),
			gear: cautions.words([...vehicle, 'wheels-driven'])
		},
		colours: 'bay' as const,
		caseId: row.id,
		number,
		linkAddress: row.vehicle.linkAddress,
		standIn: row.vehicle.standInAddress !== null,
		job: locals.services.vehicleJobs.status(params.id),
		mayRecord: locals.member !== null && mayWrite(locals.member) && !view.signature,
		signals: (type ? liveSignals(type) : []).map(({ signal, name, unit }) => ({ signal, name, unit })),
		defaults: [...watchDefaults(view).keys()],
		passive: type?.wheels.some(({ sensor }) => sensor === 'passive') ?? false,
		wheels: (type?.wheels ?? []).map(({ position, driven }) => ({
			position,
			channel: channelOf(position),
			driven,
			mate: mateHere(position)
		}))
	};
};
