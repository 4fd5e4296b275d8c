import { closedPage } from '$lib/server/cases/closedPage';
import { narrowedBy } from '$lib/server/cases/floorPage';

export const load = async ({ url, locals }) => {
	const asked = { words: narrowedBy(url, 'words'), code: narrowedBy(url, 'code') };
	const page = Number(url.searchParams.get('page')) || 1;
	return { closed: await closedPage(locals.services, { ...asked, page }), asked };
};
