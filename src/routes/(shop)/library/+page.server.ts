import { fail } from '@sveltejs/kit';
import { memberHere } from '$lib/server/cases/access';
import { mayEditCodes } from '$lib/server/accounts/members';
import { MOST_PACK_BYTES, parsePackFile } from '$library/packFile';

export const load = async (event) => ({
	packs: await event.locals.services.codes.packs(),
	mayEdit: mayEditCodes(memberHere(event))
});

export const actions = {
	import: async (event) => {
		const member = memberHere(event);
		const file = (await event.request.formData()).get('file');
		if (!(file instanceof File) || file.size === 0)
			return fail(400, {
				refused: { name: '', line: null, reason: 'Choose a pack file first, JSON or CSV.' }
			});
		const refuse = (reason: string, line: number | null = null) =>
			fail(400, { refused: { name: file.name, line, reason } });
		if (file.size > MOST_PACK_BYTES) return refuse(`It has more than ${MOST_PACK_BYTES / 1e6} MB.`);
		const pack = parsePackFile(await file.text());
		if (!pack.ok) return refuse(pack.error.reason, pack.error.line);
		const taken = await event.locals.services.codes.importPack(pack.value, member);
		if (!taken.ok) return refuse(taken.error);
		return { taken: { name: pack.value.name, definitions: taken.value } };
	},
	remove: async (event) => {
		const id = String((await event.request.formData()).get('id') ?? '');
		const removed = await event.locals.services.codes.removePack(id, memberHere(event));
		if (!removed.ok) return fail(400, { refused: { name: id, line: null, reason: removed.error } });
		return { removed: id };
	}
};
