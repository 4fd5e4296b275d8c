import { ofKind } from '$lib/case/thread/thread';
import { positionWords } from '$lib/case/words';
import { watchDefaults } from '$lib/case/watch/watchDefaults';
import { frozenWheels } from '$lib/case/reason/observations';
import { caseHere } from '$lib/server/cases/access';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { clock } from '$lib/server/cases/clock';
import { USUAL_VEHICLE } from '$lib/core/live/analyse';
import { liveVehicleOf } from '$lib/case/watch/recordingPayload';
import { liveSignals } from '../../../../../library/liveSignals';
import { CAR_POSITIONS, channelOf, isSingleTrack, type Position } from '../../../../../library/positions';
import { signals } from '../../../../../library/signals';

/** One wheel at an end is called by it: "front wheel". */
const wheelName = (position: Position): string => {
	const words = positionWords(position);
	return isSingleTrack(position) ? words : `${words} wheel`;
};

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	const why = watchDefaults(view);
	return {
		cautions: (await cautionsHere(locals.services, type)).words(['road', 'wheel-turns']),
		/** Wheels of which live data say nothing until their codes are cleared. */
		frozen: (type ? frozenWheels(view.entries, type, view.book, view.codes) : []).map(positionWords),
		linkAddress: row.vehicle.linkAddress,
		signals: (type ? liveSignals(type) : []).map(({ signal, name, unit, address, moduleName }) => ({
			signal,
			name,
			unit,
			address,
			moduleName,
			why: why.get(signal) ?? null
		})),
		vehicle: type ? liveVehicleOf(type) : USUAL_VEHICLE,
		wheels: (type?.wheels.map(({ position }) => position) ?? CAR_POSITIONS).map((position) => ({
			signal: channelOf(position),
			name: wheelName(position)
		})),
		knownSignals: [...signals.values()].map(({ signal, name }) => ({ signal, name })),
		recordings: ofKind(view.entries, 'live-recording')
			.map(({ id, observedAt, authorName, payload }) => ({
				id,
				time: clock(observedAt),
				by: authorName,
				name: payload.name,
				fileName: payload.source.kind === 'file' ? payload.source.fileName : null,
				durationS: payload.durationS,
				rateHz: payload.rateHz,
				verdict: payload.verdict,
				endedBecause: payload.endedBecause,
				findings: payload.findings.length
			}))
			.reverse(),
		rounds: ofKind(view.entries, 'wheel-round')
			.map(({ id, observedAt, authorName, payload }) => ({
				id,
				time: clock(observedAt),
				by: authorName,
				mode: payload.mode,
				corners: payload.corners
			}))
			.reverse()
	};
};
