import { isPinTold, pinPath } from '../../../../library/vehicle/pins';
import { lowerFirst } from '../words';
import type { Described, VehicleType } from '../../../../library/vehicle/vehicleType';

/** One value of a description that somebody at the vehicle can put right. */
export interface VehicleField {
	path: string;
	label: string;
	value: string | number | boolean;
	/** Usual on such a vehicle, and not known for this one. */
	assumed: boolean;
	kind: 'text' | 'number' | 'choice';
	unit: string;
	choices: readonly (readonly [value: string, words: string])[];
}

export interface VehicleThing {
	name: string;
	fields: VehicleField[];
}

export interface VehicleSection {
	title: string;
	things: VehicleThing[];
}

const SENSORS = [
	['unknown', 'not known yet'],
	['passive', 'passive coil'],
	['two-wire', 'active, two wires'],
	['two-wire-direction', 'active, two wires, tells direction'],
	['two-wire-pulse-width', 'active, two wires, pulses of set lengths'],
	['three-wire', 'active, three wires']
] as const;
const DRIVES = [
	['front', 'front'],
	['rear', 'rear'],
	['all', 'all'],
	['none', 'none']
] as const;

type MakeField = (
	path: string,
	label: string,
	value: string | number | boolean,
	more?: Partial<Pick<VehicleField, 'unit' | 'choices'>> & { whole?: string }
) => VehicleField;

const fieldsOf = ({ assumed: paths }: Pick<VehicleType, 'assumed'>): MakeField => {
	const assumed = new Set(paths);
	return (path, label, value, more = {}) => ({
		path,
		label,
		value,
		assumed: assumed.has(path) || (more.whole !== undefined && assumed.has(more.whole)),
		kind: more.choices ? 'choice' : typeof value === 'number' ? 'number' : 'text',
		unit: more.unit ?? '',
		choices: more.choices ?? []
	});
};

/** What a description is called and is of as a whole: for whoever keeps it in order. */
export function namingSection(type: VehicleType): VehicleSection {
	const field = fieldsOf(type);
	return {
		title: 'What it is called',
		things: [
			{
				name: 'its name',
				fields: [
					field('maker', 'maker', type.maker),
					field('model', 'model', type.model),
					field('use', 'what it is', type.use)
				]
			},
			{
				name: 'its supply',
				fields: [
					field('volts', 'rated', type.volts, {
						unit: 'V',
						choices: [
							['12', '12'],
							['24', '24']
						]
					}),
					field(
						'senseResistorOhms',
						'resistor that two-wire sensors are read across',
						type.senseResistorOhms,
						{
							unit: 'Ω'
						}
					)
				]
			}
		]
	};
}

/** A description as it is shown and corrected: what is asked for at the vehicle first. */
export function vehicleSections(type: VehicleType | (Described & VehicleType)): VehicleSection[] {
	const field = fieldsOf(type);
	const wheels = type.wheels.map(({ position, sensor, ringTeeth, circumferenceM }): VehicleThing => ({
		name: position.replace('-', ' '),
		fields: [
			{
				...field(`wheels.${position}.sensor`, 'sensor', sensor, { choices: SENSORS }),
				assumed: sensor === 'unknown'
			},
			field(`wheels.${position}.ringTeeth`, 'teeth of its ring', ringTeeth),
			field(`wheels.${position}.circumferenceM`, 'circumference', circumferenceM, { unit: 'm' })
		]
	}));
	const plugs = type.harness.plugs.map(({ name, where, accessMin }): VehicleThing => {
		const whole = `harness.plugs.${name}`;
		return {
			name,
			fields: [
				field(`${whole}.where`, 'where', where, { whole }),
				field(`${whole}.accessMin`, 'minutes to reach', accessMin, { unit: 'min', whole })
			]
		};
	});
	const modules = type.modules.map(({ role, name, address, doip, can, accessMin }): VehicleThing => ({
		name,
		fields: [
			field(`modules.${role}.accessMin`, 'minutes to its plug', accessMin, { unit: 'min' }),
			...(doip === undefined ? [] : [field(`modules.${role}.doip`, 'answers on the network at', doip)]),
			...(can === undefined ? [] : [field(`modules.${role}.can`, 'is asked and answers on CAN', can)]),
			...((doip ?? can) === undefined ? [field(`modules.${role}.address`, 'address', address)] : [])
		]
	}));
	const supplies = [
		...type.harness.fuses.map(({ name, where, amps }): VehicleThing => {
			const whole = `harness.fuses.${name}`;
			return {
				name: `fuse: ${name}`,
				fields: [
					field(`${whole}.where`, 'where', where, { whole }),
					field(`${whole}.amps`, 'rated', amps, { unit: 'A', whole })
				]
			};
		}),
		...type.harness.grounds.map(({ name, where }): VehicleThing => ({
			name: `ground: ${name}`,
			fields: [field(`harness.grounds.${name}.where`, 'where', where, { whole: `harness.grounds.${name}` })]
		}))
	];
	const positions = new Set<string>(type.wheels.map(({ position }) => position));
	/** Which pin of a module a wire begins at; what nobody has told is empty. */
	const pinField = (point: string): VehicleField[] => {
		const [role = '', pin = ''] = point.split('.');
		const module = type.modules.find((one) => one.role === role);
		const does = module?.pins[pin];
		if (!module || does === undefined) return [];
		const told = isPinTold(type, role, does);
		const label = `pin at ${lowerFirst(module.name)}`;
		return [{ ...field(pinPath(role, does), label, told ? pin : ''), assumed: !told }];
	};
	const leads = type.harness.conductors.flatMap(({ id, colour, points }): VehicleThing[] => {
		const [position = '', pin] = (points.at(-1) ?? '').split('.');
		if (!positions.has(position)) return [];
		const wire = pin === '1' ? 'feed' : pin === '2' ? 'signal' : 'third wire';
		const whole = `harness.conductors.${id}`;
		return [
			{
				name: `${position.replace('-', ' ')}, ${wire}`,
				fields: [field(`${whole}.colour`, 'colour', colour, { whole }), ...pinField(points[0] ?? '')]
			}
		];
	});
	const vehicleItself: VehicleSection = {
		title: 'The vehicle',
		things: [
			{
				name: 'what can hurt',
				fields: [
					field('highVoltage', 'high voltage (electric, hybrid)', type.highVoltage, {
						choices: [
							['true', 'yes'],
							['false', 'no']
						]
					}),
					field('brakes', 'brakes pressed by', type.brakes, {
						choices: [
							['hydraulic', 'fluid or cables'],
							['air', 'compressed air']
						]
					}),
					field('parkingBrake.by', 'parking brake set by', type.parkingBrake.by, {
						choices: [
							['hand', 'hand or foot'],
							['motor', 'a motor']
						],
						whole: 'parkingBrake'
					})
				]
			},
			{
				name: 'chassis',
				fields: [
					field('chassis.drive', 'driven wheels', type.chassis.drive, { choices: DRIVES }),
					field('chassis.wheelbaseM', 'wheelbase', type.chassis.wheelbaseM, { unit: 'm' }),
					field('chassis.trackM', 'track', type.chassis.trackM, { unit: 'm' })
				]
			}
		]
	};
	return [
		vehicleItself,
		{ title: 'Wheels', things: wheels },
		{ title: 'Plugs on the way to the wheels', things: plugs },
		{ title: 'Modules', things: modules },
		{ title: 'Fuses and grounds', things: supplies },
		{ title: 'Wires of the wheel sensors', things: leads }
	];
}
