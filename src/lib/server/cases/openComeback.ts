import { comebackStart } from '../../case/proof/comeback';
import { ulid } from 'ulid';
import { latest } from '../../case/thread/thread';
import { fail, ok, type Result } from '../../core/result';
import type { Author } from '../db/threads';
import type { Services } from '../services';
import { loadCase } from './access';
import { addEntry } from './addEntry';

/**
 * Opens the case that begins where a signed one ended. Asked twice with the same ids, it is opened once.
 *
 * @param ids of the new case and of its entry on what was done before, both made by whoever asks
 */
export async function openComeback(
	services: Services,
	signedId: string,
	{ id, worksId, describedId = ulid() }: { id: string; worksId: string; describedId?: string },
	member: Author
): Promise<Result<null>> {
	const { row, thread, view } = await loadCase(services, signedId);
	if (!view.signature) return fail('It is not signed: go on with this case.');
	const { cases, settings } = services;
	const start = comebackStart(thread, row.number, await settings.read('shopName'));
	if (!start) return fail('This case has no beginning: nothing can come back of it.');
	const there = await cases.find(id);
	if (there && there.vehicle.id !== row.vehicle.id)
		return fail('Another case has this id: load the page again.');
	await cases.open(id, row.vehicle.id);
	const opened = await addEntry(
		services,
		{ id, caseId: id, kind: 'case-opened', payload: start.opened },
		member
	);
	if (!opened.ok) return opened;
	// It is worked with what was known of the vehicle in the end.
	const described = latest(view.entries, 'vehicle-described');
	if (described) {
		const again = await addEntry(
			services,
			{ id: describedId, caseId: id, kind: 'vehicle-described', payload: described.payload },
			member
		);
		if (!again.ok) return again;
	}
	if (start.works.length === 0) return ok(null);
	const works = { id: worksId, caseId: id, kind: 'prior-work' as const, payload: { works: start.works } };
	const told = await addEntry(services, works, member);
	return told.ok ? ok(null) : told;
}
