import { error } from '@sveltejs/kit';
import { GROUPS } from '$library/codePack';
import { numberCalled, slugOfNumber } from '$lib/case/codes/decoderAnswer';

export const load = async ({ params, url, locals }) => {
	const page = Math.max(1, Number(url.searchParams.get('page')) || 1);
	const found = await locals.services.codes.packPage(params.pack, page);
	if (!found) error(404, 'There is no such pack. It may have been taken away.');
	const { pack, pages, definitions } = found;
	return {
		pack,
		page,
		pages,
		rows: definitions.map(({ code, failureType, title, group }) => ({
			text: numberCalled(code, failureType),
			slug: slugOfNumber(code, failureType),
			title,
			group: GROUPS[group]
		}))
	};
};
