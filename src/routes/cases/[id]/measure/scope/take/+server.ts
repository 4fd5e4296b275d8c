import { knownTeeth } from '$library/vehicle/known';
import { likeliestFamilyAt } from '$library/wheelSensors';
import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { channelOf } from '$library/positions';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { Ulid } from '$lib/case/entries/fields';
import { familyAt } from '$lib/case/measure/measured';
import { positionWords } from '$lib/case/words';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { addCapture } from '$lib/server/cases/addCapture';
import { StandInInstruments } from '$lib/server/jobs/standInInstruments';
import { Position } from '../../../../../../../library';
import { scopeProbe } from '../../../../../../../library/measurePoints';

const Asked = z.object({
	id: Ulid,
	name: z.string().trim().max(120),
	positions: z.array(Position).min(1).max(4),
	at: z.enum(['module', 'sensor']),
	rateHz: z.number().min(1_000).max(1_000_000),
	durationS: z.number().min(0.05).max(20),
	knownGood: z.boolean(),
	/** The wheels turned while it was taken. */
	turned: z.boolean().default(false)
});

export const _api: ApiRoute = {
	POST: {
		says: 'Takes a capture from the oscilloscope of this workplace.',
		takes: Asked,
		gives: jsonOf('The id of its entry.')
	}
};

/** Takes a capture from the oscilloscope that is connected to this workplace, and says what it is. */
export async function POST(event) {
	const member = memberHere(event);
	const asked = Asked.safeParse(await event.request.json().catch(() => null));
	if (!asked.success) error(400, z.prettifyError(asked.error));
	const { id, name, positions, at, rateHz, durationS, knownGood, turned } = asked.data;
	const { row, view, thread, type } = await loadCase(event.locals.services, event.params.id);
	if (thread.some((entry) => entry.id === id)) return json({ id });
	if (view.signature) error(409, 'This case is signed: its thread is closed.');
	if (!row.vehicle.standInAddress) error(409, 'No oscilloscope is connected here: bring in its file.');
	if (!type) error(409, 'The library does not describe this vehicle: bring in a file.');
	const probes = positions.map((position) =>
		scopeProbe(
			type,
			position,
			at,
			familyAt(view.entries, position)?.family ?? likeliestFamilyAt(type, position)
		)
	);
	const taken = await new StandInInstruments(row.vehicle.standInAddress).capture({
		probes,
		rateHz,
		durationS
	});
	if (!taken.ok) error(409, taken.error);
	const stored = await addCapture(
		event.locals.services,
		{ id, caseId: row.id },
		{
			capture: {
				rateHz: taken.value.rateHz,
				startS: 0,
				channels: taken.value.channels.map((volts, i) => ({
					name: positions[i] ? channelOf(positions[i]) : '',
					volts
				}))
			},
			probes: positions.map((position) => ({
				position,
				probe: `${positionWords(position)}, ${at === 'module' ? 'at the module' : 'at the sensor'}`,
				at
			})),
			about: {
				name,
				knownGood,
				turned,
				typeId: type.id,
				source: { kind: 'instrument' },
				teeth: knownTeeth(type, positions[0])
			}
		},
		member
	);
	if (!stored.ok) error(409, stored.error);
	return json({ id });
}
