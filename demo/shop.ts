import { vinCheckDigit } from '../src/lib/core/vehicle/vin';
import { benchFault, type BenchFault } from '../src/lib/bench/faults/benchFault';
import type { Role } from '../src/lib/server/accounts/members';

/** Tern Point Works, the workshop of a tidal-island ferry community. All of it is invented. */

export const SHOP_NAME = 'Tern Point Works';
export const PASSWORD = 'ebb-and-flow';

export const PEOPLE: { name: string; username: string; role: Role }[] = [
	{ name: 'Ana', username: 'ana', role: 'technician' },
	{ name: 'Teo', username: 'teo', role: 'technician' },
	{ name: 'Marit', username: 'marit', role: 'lead' },
	{ name: 'Office', username: 'office', role: 'office' },
	{ name: 'Guest', username: 'guest', role: 'viewer' }
];

/** Who brings the vehicles in, by vehicle. */
export const CUSTOMERS: Record<string, { id: string; name: string; phone: string; email: string }> =
	Object.fromEntries(
		(
			[
				['minibus', 'Tern Point School', '01632 560 110', 'office@school.example'],
				['vet', 'Island Vet Practice', '01632 560 124', ''],
				['dairy', 'Saltmarsh Dairy', '01632 560 137', 'round@dairy.example'],
				['shuttle', 'Harbour Shuttle', '01632 560 151', ''],
				['ambulance', 'Volunteer Ambulance', '01632 560 199', ''],
				['crew', 'Tidal Ferry Company', '01632 560 100', 'crew@ferry.example'],
				['bakery', 'Slipway Bakery', '01632 560 142', '']
			] as const
		).map(([vehicle, name, phone, email], nth) => [
			vehicle,
			{ id: `01JC0000000000000000000C${String(nth + 1).padStart(2, '0')}`, name, phone, email }
		])
	);

/** What the shop asks for an hour. */
export const TERMS = { currency: 'EUR', ratePerHour: 8400, taxBasisPoints: 2100 };

/** Puts the right check digit at place 9 of a 17-sign number. */
const vin = (signs: string) => signs.slice(0, 8) + vinCheckDigit(signs) + signs.slice(9);

export interface DemoVehicle {
	id: string;
	typeId: string;
	nickname: string;
	plate: string;
	vin: string;
	odometerKm: number;
	faults: BenchFault[];
}

export const VEHICLES: DemoVehicle[] = [
	{
		id: 'minibus',
		typeId: 'brindle-marlow-16',
		nickname: 'school minibus',
		plate: 'TPI 16',
		vin: vin('BRM16SCH0P0004183'),
		odometerKm: 84_210,
		faults: [benchFault('lead-open', 'rear-left')]
	},
	{
		id: 'vet',
		typeId: 'norvane-lichen',
		nickname: 'island vet',
		plate: 'TPI 7',
		vin: vin('NVLCHVET0K0011902'),
		odometerKm: 131_655,
		faults: [benchFault('ring-loose', 'front-right', 0.46)]
	},
	{
		id: 'dairy',
		typeId: 'velmora-skiff',
		nickname: 'dairy, refrigerated',
		plate: 'TPI 31',
		vin: vin('VLMSKFDA0N0020077'),
		odometerKm: 58_390,
		// One corroded splice of the bus, two modules behind it.
		faults: [benchFault('splice-corroded', 'S7')]
	},
	{
		id: 'shuttle',
		typeId: 'ottaro-pip',
		nickname: 'electric shuttle',
		plate: 'TPI 22',
		vin: vin('TTRPPSHT0R0000314'),
		odometerKm: 21_004,
		// Dust of a hundred short stops, packed on one side of the encoder.
		faults: [benchFault('encoder-dust', 'rear-left', 0.5)]
	},
	{
		id: 'ambulance',
		typeId: 'norvane-heath',
		nickname: 'volunteer ambulance',
		plate: 'TPI 3',
		vin: vin('NVHTHAMB0M0007741'),
		odometerKm: 40_118,
		faults: [benchFault('lead-open', 'front-left')]
	},
	{
		id: 'crew',
		typeId: 'brindle-marlow-16',
		nickname: 'ferry crew bus',
		plate: 'TPI 18',
		vin: vin('BRM16CRW0L0003020'),
		odometerKm: 112_870,
		faults: [benchFault('lead-open', 'front-right')]
	},
	{
		id: 'bakery',
		typeId: 'velmora-skiff',
		nickname: 'bakery van',
		plate: 'TPI 40',
		vin: vin('VLMSKFBK0J0015560'),
		odometerKm: 96_402,
		faults: [benchFault('ring-loose', 'front-left', 0.54)]
	},
	{
		id: 'trailer',
		typeId: 'hexley-drover',
		nickname: 'livestock trailer',
		plate: 'TPI 55',
		vin: vin('HXDRVLST0N0000219'),
		odometerKm: 18_730,
		faults: [benchFault('lead-chafed', 'axle2-left', 0.7)]
	},
	{
		id: 'post',
		typeId: 'velmora-skiff',
		nickname: 'post van',
		plate: 'TPI 12',
		vin: vin('VLMSKFPS0M0018204'),
		odometerKm: 73_118,
		faults: [benchFault('module-internal', 'brake')]
	},
	{
		id: 'pilot',
		typeId: 'ottaro-pip',
		nickname: 'harbour pilot',
		plate: 'TPI 3',
		vin: vin('TTRPPPLT0P0000907'),
		odometerKm: 22_540,
		// A track rod was renewed elsewhere, and the steering angle never reset.
		faults: [benchFault('steering-angle-off-centre', 'steering-angle', 0.6)]
	},
	{
		id: 'slip',
		typeId: 'norvane-wold',
		nickname: 'slipway pick-up',
		plate: 'TPI 61',
		vin: vin('NVWLDSLP0A0003316'),
		odometerKm: 241_877,
		// Older than any link: its lamp counts the code out, and salt has eaten the lead.
		faults: [benchFault('lead-open', 'front-right')]
	}
];

/** Ports of a demo vehicle's interface, control panel and CAN adapter, from the first port given to the bench. */
export const portsOf = (index: number, firstPort: number) => ({
	linkPort: firstPort + index * 2,
	panelPort: firstPort + index * 2 + 1,
	canPort: firstPort + 2 * VEHICLES.length + index
});
