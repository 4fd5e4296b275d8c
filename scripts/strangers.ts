// npm run strangers -- [SEED] [CASES]: trials on ten vehicles that nobody tuned anything for, drawn from a seed.
import { execFileSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { randomFromText } from '../src/lib/core/path/randomFromText';
import { checkDescription } from '../library/vehicle/check';
import { completed } from '../library/vehicle/complete';
import type { Given, Template } from '../library/vehicle/given';
import { newDescription } from '../library/vehicle/newDescription';
import type { Described, ModuleRole } from '../library/vehicle/vehicleType';
import { WHEEL_SENSORS } from '../library/sensorKinds';

const [SEED = '1', CASES = '40'] = process.argv.slice(2);
const FOLDER = 'data/strangers';

/** Kinds of vehicles, with the axles of a trailer. */
const KINDS: readonly (readonly [template: Template, axles?: number])[] = [
	['car'],
	['car'],
	['van'],
	['light-truck'],
	['four-wheel-drive'],
	['electric'],
	['motorcycle'],
	['trailer', 1],
	['trailer', 2],
	['trailer', 3]
];
/** Modules that a vehicle can do without. */
const SPARE: readonly ModuleRole[] = ['yaw', 'steering-angle', 'power-steering', 'engine', 'restraint'];
const SPARED = 0.3;
const [LEAST_TEETH, MOST_TEETH] = [26, 64];
const [LEAST_M, MOST_M] = [1.65, 2.5];

interface Row {
	name: string;
	right: number;
	wrongPart: number;
	unmended: number;
	minutes: number;
}

/** A vehicle whose families, teeth, tyres and modules are drawn; all else is what is usual. */
function stranger([template, axles]: (typeof KINDS)[number], nth: number): Described {
	const random = randomFromText(`${SEED}/${nth}`);
	const between = (least: number, most: number) => least + random() * (most - least);
	const usual = newDescription({ template, ...(axles ? { axles } : {}) });
	if (!usual.ok) throw new Error(usual.error);
	const { modules, wheels } = usual.value;
	const teeth = new Map<number, number>();
	const sensors = new Map<number, (typeof WHEEL_SENSORS)[number]>();
	const circumferenceM = Number(between(LEAST_M, MOST_M).toFixed(3));
	for (const { axle } of wheels) {
		teeth.set(axle, Math.round(between(LEAST_TEETH, MOST_TEETH)));
		sensors.set(axle, WHEEL_SENSORS[Math.floor(random() * WHEEL_SENSORS.length)] ?? 'unknown');
	}
	const kept = modules.filter(({ role }) => !SPARE.includes(role) || random() > SPARED);
	const given: Given = {
		template,
		id: `stranger-${nth + 1}`,
		model: `stranger ${nth + 1}`,
		modules: kept.map(({ role }) => ({ role, accessMin: Math.round(between(5, 60)) })),
		wheels: wheels.map(({ position, axle }) => ({
			position,
			ringTeeth: teeth.get(axle),
			sensor: sensors.get(axle),
			circumferenceM
		}))
	};
	return completed(given);
}

rmSync(FOLDER, { recursive: true, force: true });
mkdirSync(FOLDER, { recursive: true });
const rows: Row[] = [];
for (const [nth, kind] of KINDS.entries()) {
	const described = stranger(kind, nth);
	const checked = checkDescription(described);
	if (!checked.ok) throw new Error(`${described.id}: ${JSON.stringify(checked.problems)}`);
	const file = `${FOLDER}/${described.id}.json`;
	writeFileSync(file, JSON.stringify(described, null, '\t'));
	const args = ['cli/jaldi.mjs', 'trial', '--vehicle', file, '--cases', CASES, '--seed', SEED, '--json'];
	const told = JSON.parse(execFileSync(process.execPath, args, { encoding: 'utf8' }));
	const families = [...new Set(described.wheels.map(({ axle, sensor }) => `${axle} ${sensor}`))].join(', ');
	const row: Row = {
		name: `${kind.join(' ')} (${families}; ${described.modules.length} modules)`,
		right: told.top1Rate,
		wrongPart: told.wrongPartRate,
		unmended: told.unresolvedRate,
		minutes: told.meanMinutes
	};
	rows.push(row);
	process.stdout.write(
		`${row.name.padEnd(70)} right first ${(100 * row.right).toFixed(1)}  wrong part ${(100 * row.wrongPart).toFixed(1)}  not mended ${(100 * row.unmended).toFixed(1)}  ${row.minutes.toFixed(0)} min\n`
	);
}
const mean = (of: (row: Row) => number) => rows.reduce((sum, row) => sum + of(row), 0) / rows.length;
process.stdout.write(
	`all: right first ${(100 * mean((row) => row.right)).toFixed(1)}, wrong part ${(100 * mean((row) => row.wrongPart)).toFixed(1)}, not mended ${(100 * mean((row) => row.unmended)).toFixed(1)}, ${mean((row) => row.minutes).toFixed(1)} min\n`
);
