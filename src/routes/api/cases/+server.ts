import { json } from '@sveltejs/kit';
import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';

export const _api: ApiRoute = {
	GET: {
		says: 'Cases, a page at a time: the open ones oldest first, the signed ones newest first.',
		query: {
			state: 'open (usual) or signed',
			page: 'from 1',
			vin: 'only those of the vehicle with this number',
			plate: 'only those of the vehicle with this plate; spaces and capitals do not matter'
		},
		gives: jsonOf('`cases`, and how many there are: `total`, `page`, `pages`.')
	}
};

const LONGEST = 40;

/** Cases by state and vehicle: where another program begins. */
export async function GET({ url, locals }) {
	const asked = (name: string) => url.searchParams.get(name)?.trim().slice(0, LONGEST) ?? null;
	const found = await locals.services.cases.page(asked('state') === 'signed', Number(asked('page')) || 1, {
		vin: asked('vin'),
		plate: asked('plate')
	});
	const { rows, total, page, pages } = found;
	return json({
		cases: rows.map(({ id, number, signed, length, vehicle, vehicleName, summary }) => ({
			id,
			number,
			signed,
			entries: length,
			vehicle: {
				name: vehicleName,
				nickname: vehicle.nickname,
				plate: vehicle.plate,
				vin: vehicle.vin
			},
			next: summary.next?.title ?? null
		})),
		total,
		page,
		pages
	});
}
