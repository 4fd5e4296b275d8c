import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import { placeWords } from '$lib/case/reason/words';
import { maySign } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { paperDate } from '$lib/server/cases/clock';
import { caseNumber } from '$lib/server/db/caseNumber';
import { typeName } from '$lib/server/db/cases';
import { repairs } from '$library/repairs';
import { vehicleTypes } from '$library/index';

const Off = z.object({
	caseId: z.string().max(40),
	reason: z.string().trim().min(1, 'Why should nothing be learned from it?').max(300)
});

export const load = async ({ locals }) => {
	const taught = await locals.services.trackRecord.taught();
	return {
		mayChange: locals.member !== null && maySign(locals.member),
		cases: taught
			.map((one) => {
				const type = vehicleTypes.get(one.typeId);
				return {
					id: one.caseId,
					number: caseNumber(one.number),
					vehicle: `${typeName(one.typeId)}, ${one.nickname}`,
					repair: repairs.get(one.kind)?.name ?? one.kind,
					place: type ? placeWords(one.place, type) : one.place,
					codes: one.codes,
					km: one.km,
					at: one.at,
					day: paperDate(one.at),
					off: one.unlearned
				};
			})
			.sort((a, b) => b.at.localeCompare(a.at))
	};
};

export const actions = {
	off: async (event) => {
		const member = memberHere(event);
		const told = Off.safeParse(Object.fromEntries(await event.request.formData()));
		if (!told.success)
			return fail(400, { caseId: '', error: told.error.issues[0]?.message ?? 'That is no case.' });
		const { caseId, reason } = told.data;
		const done = await event.locals.services.trackRecord.unlearn(caseId, reason, member);
		return done.ok ? { caseId, error: null } : fail(409, { caseId, error: done.error });
	},
	again: async (event) => {
		const caseId = String((await event.request.formData()).get('caseId') ?? '');
		await event.locals.services.trackRecord.learnAgain(caseId, memberHere(event));
		return { caseId, error: null };
	}
};
