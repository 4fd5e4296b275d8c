export const load = async ({ url, locals }) => {
	const closed = await locals.services.cases.page(true, Number(url.searchParams.get('page')) || 1);
	return { closed, page: closed.page };
};
