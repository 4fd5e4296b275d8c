import { vehicleName } from '../../../../../library/vehicle/vehicleType';
import { entryKind, line } from '../kind';
import { VehicleDescribed } from './payload';

export const vehicleDescribed = entryKind('vehicle-described', VehicleDescribed, {
	about: 'The vehicle as it is described from here on, with what of it is only assumed.',
	group: 'said',
	writer: 'rule',
	changesVerdicts: true,
	line: ({ description, because }) => {
		const { version, wheels, modules, assumed } = description;
		const parts = `${wheels.length} wheels, ${modules.length} modules; ${assumed.length === 0 ? 'nothing' : assumed.length} assumed`;
		return version === 1
			? line('Vehicle described', `${vehicleName(description)}: ${parts}`)
			: line('Description of the vehicle corrected', because || parts);
	}
});
