import { fail, redirect } from '@sveltejs/kit';
import { MOST_BUNDLE_BYTES } from '$lib/case/paper/bundle';
import { takeInBundle } from '$lib/server/bundle/importBundle';

export const actions = {
	default: async (event) => {
		// A thread carries the names of whoever wrote it: who vouches for that is a lead.
		const form = await event.request.formData().catch(() => null);
		if (!form) return fail(400, { error: 'This upload cannot be read: it was cut off, or is no form.' });
		const file = form.get('bundle');
		if (!(file instanceof File) || file.size === 0)
			return fail(400, { error: 'Choose a bundle: a ZIP file.' });
		if (file.size > MOST_BUNDLE_BYTES) return fail(413, { error: 'It is larger than any bundle.' });
		const { db, threads, cases, heavy, shelf } = event.locals.services;
		const examined = await heavy.ask('examineBundle', new Uint8Array(await file.arrayBuffer()));
		if (!examined.ok) return fail(400, { error: examined.error });
		const taken = await takeInBundle(db, threads, examined.value, shelf);
		if (!taken.ok) return fail(400, { error: taken.error });
		await cases.refresh(taken.value.caseId);
		redirect(303, `/cases/${taken.value.caseId}`);
	}
};
