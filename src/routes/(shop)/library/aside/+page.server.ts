import { maySign } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { caseNumber } from '$lib/server/db/caseNumber';

const KIND_WORDS: Record<string, string> = {
	scan: 'A reading of all modules',
	clear: 'A clearing of codes',
	calibrate: 'A calibration',
	key: 'A check of the key',
	record: 'A recording of live data'
};

export const load = async ({ locals }) => {
	const works = await locals.services.putAside.unseen();
	return {
		mayLook: locals.member !== null && maySign(locals.member),
		works: works.map(({ caseNumber: number, kind, at, ...work }) => ({
			...work,
			number: caseNumber(number),
			what: KIND_WORDS[kind] ?? kind,
			time: clock(at)
		}))
	};
};

export const actions = {
	default: async (event) => {
		const member = memberHere(event);
		const id = String((await event.request.formData()).get('id') ?? '');
		await event.locals.services.putAside.seen(id, member.name);
		return { seen: true };
	}
};
