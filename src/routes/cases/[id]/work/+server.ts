import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { caseCalibrations } from '$lib/case/mend/calibrations';
import { circuitCodesIn } from '$lib/case/codes/circuitCodes';
import { Ulid } from '$lib/case/entries/fields';
import { mayClear } from '$lib/case/codes/mayClear';
import type { Result } from '$lib/core/result';
import { Purpose } from '$lib/case/entries/live-recording/payload';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { liveSignals } from '../../../../../library/liveSignals';

const Work = z.discriminatedUnion('do', [
	z.object({ do: z.literal('scan'), entryId: Ulid }),
	z.object({ do: z.literal('find'), entryId: Ulid }),
	z.object({ do: z.literal('clear'), entryId: Ulid, only: z.string().nullable() }),
	z.object({ do: z.literal('key'), entryId: Ulid }),
	z.object({
		do: z.literal('calibrate'),
		entryId: Ulid,
		calibration: z.string().max(60),
		said: z.array(z.string().max(40)).max(30)
	}),
	z.object({
		do: z.literal('record'),
		entryId: Ulid,
		signals: z.array(z.string()).min(1).max(24),
		name: z.string().trim().max(120),
		purpose: Purpose.nullable().default(null),
		/** Whether every module is asked for its codes meanwhile. */
		listen: z.boolean().default(false)
	}),
	z.object({ do: z.literal('mark'), label: z.string().trim().max(120) }),
	z.object({ do: z.literal('cancel') })
]);

export const _api: ApiRoute = {
	POST: {
		says: 'Begins or cancels work on the vehicle of a case.',
		takes: Work,
		gives: jsonOf('How the work stands; its progress comes over the stream.')
	}
};

/** Begins (or cancels) work on the vehicle of this case. Progress and outcome come over the case's events. */
export async function POST(event) {
	const member = memberHere(event);
	const work = Work.safeParse(await event.request.json().catch(() => null));
	if (!work.success) error(400, z.prettifyError(work.error));
	const { row, view, thread } = await loadCase(event.locals.services, event.params.id);
	const { vehicleJobs } = event.locals.services;
	const answer = (result: Result<unknown>) =>
		result.ok ? json({ job: result.value }) : json({ message: result.error }, { status: 409 });

	if (work.data.do === 'cancel') return answer(vehicleJobs.cancel(row.id));
	if (work.data.do === 'mark') {
		const mark = vehicleJobs.mark(row.id, work.data.label);
		return mark.ok ? json({ mark: mark.value }) : json({ message: mark.error }, { status: 409 });
	}
	const { entryId } = work.data;
	// Sent again after it was done: it is done.
	if (thread.some((entry) => entry.id === entryId)) return json({ job: vehicleJobs.status(row.id) });
	if (view.signature) return json({ message: 'This case is signed: its thread is closed.' }, { status: 409 });
	switch (work.data.do) {
		case 'scan':
			return answer(vehicleJobs.startScan(row, member, entryId));
		case 'find':
			return answer(vehicleJobs.startFind(row, member, entryId));
		case 'record': {
			const type = row.type;
			const wanted = new Set(work.data.signals);
			const signals = (type ? liveSignals(type) : []).filter(({ signal }) => wanted.has(signal));
			if (signals.length === 0)
				return json({ message: 'None of these signals is known of this vehicle.' }, { status: 409 });
			const { name, purpose, listen } = work.data;
			const answering = view.lastScan?.payload.modules.filter(({ answered }) => answered) ?? [];
			const listenTo = listen ? answering.map(({ address }) => address) : [];
			return answer(vehicleJobs.startRecording(row, member, entryId, signals, { name, purpose, listenTo }));
		}
		case 'key':
			return answer(
				vehicleJobs.startKeyCheck(row, member, entryId, view.lastClear?.payload.keyCycles ?? null)
			);
		case 'calibrate': {
			const { calibration, said } = work.data;
			const due = caseCalibrations(view.entries).find(({ id }) => id === calibration);
			if (!due || due.placed.calibration.way.kind === 'hand')
				return json({ message: 'This is not due on this case, or no link does it.' }, { status: 409 });
			const circuitCodes = circuitCodesIn(view, due.placed.module.address);
			const order = { placed: due.placed, said: new Set(said), circuitCodes };
			return answer(vehicleJobs.startCalibration(row, member, entryId, order));
		}
		case 'clear': {
			const targets = mayClear(view, work.data.only);
			return answer(targets.ok ? vehicleJobs.startClear(row, member, entryId, targets.value) : targets);
		}
	}
}
