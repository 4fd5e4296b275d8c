import { redirect } from '@sveltejs/kit';

/** A case opens at the station where the next step is. */
export const load = async ({ params, parent }) => {
	const { case: shown } = await parent();
	redirect(303, `/cases/${params.id}/${shown.next?.station ?? 'hand-over'}`);
};
