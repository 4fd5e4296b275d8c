import { services } from '$lib/server/running';

export const load = async ({ url, depends }) => {
	depends('jaldi:floor');
	const page = Math.max(1, Number(url.searchParams.get('page')) || 1);
	return { floor: await services().cases.page(false, page), page };
};
