import { fail } from '@sveltejs/kit';
import { ofKind } from '$lib/case/thread/thread';
import { describeEntry } from '$lib/case/thread/describe';
import { maySign } from '$lib/server/accounts/members';
import { caseHere, memberHere } from '$lib/server/cases/access';
import { knownHere } from '$lib/server/cases/knownHere';
import { clock } from '$lib/server/cases/clock';
import type { Services } from '$lib/server/services';
import { orLater } from '../../../later';

export const load = async ({ params, url, depends, locals }) => {
	depends('jaldi:case');
	const { thread, type, view } = await caseHere({ params, locals });
	const asked = Number(url.searchParams.get('upto') ?? NaN);
	const upTo = Number.isInteger(asked) && asked >= 1 && asked < thread.length ? asked : null;
	const moments = thread.map((entry) => ({
		seq: entry.seq,
		time: clock(entry.observedAt),
		title: describeEntry(entry).title
	}));
	const mayLead = locals.member !== null && maySign(locals.member);
	const about = `${params.id} ${upTo ?? 'now'}`;
	const reasoned = await orLater(
		about,
		reasonedAs(locals.services, params.id, { upTo, length: thread.length })
	);
	return {
		moments,
		upTo,
		mayLead,
		reasoned,
		byLamp: type?.tells === 'lamp',
		toldOnly: ofKind(view.entries, 'codes-reported').length > 0
	};
};

async function reasonedAs(
	services: Services,
	caseId: string,
	{ upTo, length }: { upTo: number | null; length: number }
) {
	const reason = await services.thinking.ask('reasonPage', { caseId, upTo });
	const known = (await knownHere(services)).stamp;
	const toGo = upTo === null && reason ? await services.outlooks.of(caseId, { seq: length, known }) : null;
	return reason && { ...reason, toGo };
}

export const actions = {
	/** How sure the shop wants to be before a part is ordered: a lead decides. */
	policy: async (event) => {
		const member = memberHere(event);
		const form = await event.request.formData();
		const proving = Number(form.get('proving')) / 100;
		if (!(proving >= 0 && proving <= 1))
			return fail(400, { message: 'It goes from 0 (track record) to 100 (prove first).' });
		await event.locals.services.settings.write('proving', proving, member);
		return { saved: true };
	}
};
