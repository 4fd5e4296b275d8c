import { entryKind, line } from '../kind';
import { VehicleChecked } from './payload';

export const vehicleChecked = entryKind('vehicle-checked', VehicleChecked, {
	about: 'Vehicle number and kilometres as they were read on the vehicle.',
	group: 'said',
	writer: 'hand',
	atDesk: true,
	changesVerdicts: false,
	line: ({ vin, odometerKm, checkDigitFits }) =>
		line(
			'Vehicle read',
			`${vin} at ${odometerKm.toLocaleString('en-GB')} km`,
			checkDigitFits ? null : 'check digit does not fit'
		)
});
