import { services } from '$lib/server/running';

export const load = async ({ depends }) => {
	depends('jaldi:shop');
	return { shopName: await services().settings.read('shopName') };
};
