import { error } from '@sveltejs/kit';
import { vehicleSections } from '$lib/case/thread/vehicleView';
import { caseHere } from '$lib/server/cases/access';
import { stillAssumed } from '$library/vehicle/known';
import { vehicleName } from '$library/vehicle/vehicleType';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { type } = await caseHere({ params, locals });
	if (!type) error(404, 'The vehicle of this case is not described.');
	return {
		name: vehicleName(type),
		version: type.version,
		assumed: stillAssumed(type).length,
		sections: vehicleSections(type)
	};
};
