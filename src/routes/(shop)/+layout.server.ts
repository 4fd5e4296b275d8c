export const load = async ({ depends, locals }) => {
	depends('jaldi:shop');
	return { shopName: await locals.services.settings.read('shopName') };
};
