import { services } from '$lib/server/running';

export const load = async ({ url }) => {
	const closed = await services().cases.page(true, Number(url.searchParams.get('page')) || 1);
	return { closed, page: closed.page };
};
