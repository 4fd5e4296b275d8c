import type { Position } from '../../../../library';
import type { CornerCodes } from './wheelReader';

/** C0035 … C0050 and C0030 … C0039 of a car; C1C11 … and C1C31 … of makers of anything else. */
export const CORNER_CODES: Record<Position, CornerCodes> = {
	'front-left': { circuit: '4035', ring: '4030' },
	'front-right': { circuit: '4040', ring: '4033' },
	'rear-left': { circuit: '4045', ring: '4036' },
	'rear-right': { circuit: '4050', ring: '4039' },
	'front-wheel': { circuit: '5C17', ring: '5C37' },
	'rear-wheel': { circuit: '5C18', ring: '5C38' },
	'axle1-left': { circuit: '5C11', ring: '5C31' },
	'axle1-right': { circuit: '5C12', ring: '5C32' },
	'axle2-left': { circuit: '5C13', ring: '5C33' },
	'axle2-right': { circuit: '5C14', ring: '5C34' },
	'axle3-left': { circuit: '5C15', ring: '5C35' },
	'axle3-right': { circuit: '5C16', ring: '5C36' }
};
export const WHEEL_SPEED_ID: Record<Position, string> = {
	'front-left': 'D101',
	'front-right': 'D102',
	'rear-left': 'D103',
	'rear-right': 'D104',
	'front-wheel': 'D127',
	'rear-wheel': 'D128',
	'axle1-left': 'D121',
	'axle1-right': 'D122',
	'axle2-left': 'D123',
	'axle2-right': 'D124',
	'axle3-left': 'D125',
	'axle3-right': 'D126'
};
