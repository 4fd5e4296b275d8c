import { services } from '$lib/server/running';

export const load = async ({ url }) => {
	const page = Math.max(1, Number(url.searchParams.get('page')) || 1);
	return { closed: await services().cases.page(true, page), page };
};
