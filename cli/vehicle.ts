import { checkDescription, readDescription, type Checked, type Problem } from '../library/vehicle/check';
import { TEMPLATES, type Template } from '../library/vehicle/given';
import { isSensorPlace, newDescription } from '../library/vehicle/newDescription';
import { USUAL } from '../library/vehicle/templates';
import { vehicleName } from '../library/vehicle/vehicleType';
import { WHEEL_SENSORS, type WheelSensor } from '../library/sensorKinds';
import {
	complain,
	DONE,
	NOT_UNDERSTOOD,
	readArguments,
	say,
	strong,
	WrongUsage,
	type Command
} from './command';
import { readWhole, UnreadableInput } from './openInput';

const DRIVES = ['front', 'rear', 'all', 'none'] as const;

/** `jaldi vehicle check FILE [--json]`, `jaldi vehicle new --template car …` */
export const vehicle: Command = async (args) => {
	const [what, ...rest] = args;
	if (what === 'check') return check(rest);
	if (what === 'new') return make(rest);
	throw new WrongUsage('expects "check FILE" or "new --template …"');
};

/** Reads a description from a file; null, with the reason told, where there is none to read. */
async function describedIn(file: string, command: string): Promise<Checked | null> {
	try {
		return readDescription((await readWhole(file)).toString('utf8'));
	} catch (error) {
		if (!(error instanceof UnreadableInput)) throw error;
		complain(`jaldi ${command}: ${error.message}`);
		return null;
	}
}

/** The vehicle that a file describes; null, with the reasons told, where it describes none. */
export async function vehicleIn(file: string, command: string): Promise<(Checked & { ok: true }) | null> {
	const read = await describedIn(file, command);
	if (read?.ok) return read;
	for (const { path, reason } of read?.problems ?? [])
		complain(`jaldi ${command}: ${file}: ${path || 'the whole'}: ${reason}`);
	return null;
}

async function check(args: string[]): Promise<number> {
	const { values, positionals } = readArguments(args, {});
	const [file, more] = positionals;
	if (file === undefined || more !== undefined)
		throw new WrongUsage('check expects one file, or - for standard input');
	const read = await describedIn(file, 'vehicle');
	if (!read) return NOT_UNDERSTOOD;
	const { described } = read;
	const found: Found = {
		id: described?.id ?? null,
		name: described ? vehicleName(described) : null,
		wheels: described?.wheels.length ?? 0,
		modules: described?.modules.length ?? 0,
		assumed: described?.assumed ?? [],
		problems: read.ok ? [] : read.problems
	};
	await say(values.json ? `${JSON.stringify(found)}\n` : told(found));
	return read.ok ? DONE : NOT_UNDERSTOOD;
}

interface Found {
	id: string | null;
	name: string | null;
	wheels: number;
	modules: number;
	assumed: string[];
	problems: Problem[];
}

function told({ id, name, wheels, modules, assumed, problems }: Found): string {
	if (problems.length > 0)
		return `${strong('This description cannot be used')}\n${problems.map(({ path, reason }) => `  ${path || '(the whole)'}: ${reason}\n`).join('')}`;
	return `${strong(`${name} (${id})`)}: ${wheels} wheels, ${modules} modules\n${assumed.length} things are assumed${assumed.length > 0 ? `:\n${assumed.map((path) => `  ${path}\n`).join('')}` : '\n'}`;
}

async function make(args: string[]): Promise<number> {
	const { values, positionals } = readArguments(args, {
		template: { type: 'string' },
		wheels: { type: 'string' },
		axles: { type: 'string' },
		drive: { type: 'string' },
		sensor: { type: 'string', multiple: true },
		volts: { type: 'string' },
		name: { type: 'string' },
		electric: { type: 'boolean' }
	});
	if (positionals.length > 0) throw new WrongUsage(`"${positionals[0]}" has no place here`);
	const template = oneOf('template', values.template, TEMPLATES);
	const volts =
		values.volts === undefined ? undefined : Number(oneOf('volts', values.volts, ['12', '24'] as const));
	const made = newDescription({
		template,
		name: values.name,
		axles: axlesOf(template, values.axles, values.wheels),
		drive: values.drive === undefined ? undefined : oneOf('drive', values.drive, DRIVES),
		volts: volts as 12 | 24 | undefined,
		sensors: (values.sensor ?? []).map(sensorOf),
		highVoltage: values.electric
	});
	if (!made.ok) throw new WrongUsage(made.error);
	// What is printed here is taken again, or there is something wrong with this program.
	const checked = checkDescription(made.value);
	if (!checked.ok)
		throw new Error(checked.problems.map(({ path, reason }) => `${path}: ${reason}`).join('; '));
	await say(`${JSON.stringify(made.value, null, '\t')}\n`);
	return DONE;
}

function oneOf<T extends string>(name: string, text: string | undefined, list: readonly T[]): T {
	const found = list.find((one) => one === text);
	if (found === undefined)
		throw new WrongUsage(
			`--${name} is one of ${list.join(', ')}${text === undefined ? '' : `, not "${text}"`}`
		);
	return found;
}

function sensorOf(text: string): [string, WheelSensor] {
	const [place = '', sensor] = text.split('=');
	if (!isSensorPlace(place))
		throw new WrongUsage(
			`--sensor expects PLACE=FAMILY, where PLACE is a position, front, rear or axle1 to axle3, not "${text}"`
		);
	return [place, oneOf('sensor PLACE', sensor, WHEEL_SENSORS)];
}

const whole = (name: string, text: string): number => {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 1)
		throw new WrongUsage(`--${name} expects a whole number, not "${text}"`);
	return number;
};

/** Axles by either of the two ways to say it, which have to agree. */
function axlesOf(
	template: Template,
	axlesText: string | undefined,
	wheelsText: string | undefined
): number | undefined {
	const perAxle = USUAL[template].wheels[0]?.length ?? 2;
	const axles = axlesText === undefined ? undefined : whole('axles', axlesText);
	if (wheelsText === undefined) return axles;
	const wheels = whole('wheels', wheelsText);
	const byWheels = wheels / perAxle;
	if (!Number.isInteger(byWheels) || (axles !== undefined && axles !== byWheels))
		throw new WrongUsage(
			`a ${USUAL[template].model} with ${wheels} wheels ${axles === undefined ? 'is not described' : `has not ${axles} axles`}`
		);
	return byWheels;
}
