import { listFaults } from '../src/lib/bench/trial/faultFile';
import { summarise, type TrialSummary, type WayName } from '../src/lib/bench/trial/trial';
import { WAYS } from '../src/lib/bench/trial/ways';
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
import { readPolicy } from './policy';
import type { VehicleType } from '../library';
import { runTrial } from './trialCases';
import { DRAW_OPTIONS, readDraw, readShare, refuseDraw } from './trialDraw';
import { vehicleIn } from './vehicle';

const USUAL_CASES = 20;
const MOST_CASES = 100_000;

/**
 * `jaldi trial --cases N --seed S --policy jaldi|checklist|parts-first [--faults FILE] [--draw odds|uniform] [--doubles SHARE]
 * [--unknown SHARE] [--system NAME] [--perturb SHARE] [--novice] [--vehicle FILE] [--list-faults] [--json]`
 */
export const trial: Command = async (args) => {
	const { values, positionals } = readArguments(args, {
		cases: { type: 'string' },
		seed: { type: 'string' },
		policy: { type: 'string' },
		faults: { type: 'string' },
		vehicle: { type: 'string' },
		...DRAW_OPTIONS,
		perturb: { type: 'string' },
		novice: { type: 'boolean' },
		'list-faults': { type: 'boolean' },
		proving: { type: 'string' },
		steps: { type: 'boolean' }
	});
	if (positionals.length > 0) throw new WrongUsage(`"${positionals[0]}" has no place here`);
	if (values['list-faults']) return tellFaults(values.json === true);
	const whole = (name: 'cases' | 'seed', usual: number, most: number): number => {
		const text = values[name];
		const number = text === undefined ? usual : Number(text);
		if (!Number.isInteger(number) || number < (name === 'cases' ? 1 : 0) || number > most)
			throw new WrongUsage(`--${name} expects a whole number up to ${most}, not "${text}"`);
		return number;
	};
	const seed = whole('seed', 1, 1_000_000_000);
	const count = whole('cases', USUAL_CASES, MOST_CASES);
	const way = values.policy ?? 'jaldi';
	if (!(way in WAYS)) throw new WrongUsage(`--policy is ${Object.keys(WAYS).join(', ')}, not "${way}"`);
	let vehicle: { described: unknown; type: VehicleType } | null = null;
	if (values.vehicle !== undefined) {
		const read = await vehicleIn(values.vehicle, 'trial');
		if (!read) return NOT_UNDERSTOOD;
		if (read.type.tells === 'lamp')
			throw new WrongUsage(
				'a vehicle that tells by its lamp answers no tester: trials are for those that do'
			);
		vehicle = read;
	}
	if (values.faults !== undefined) refuseDraw(values);
	const asked = {
		seed,
		way: way as WayName,
		policy: readPolicy(values.proving),
		draw: readDraw(values, vehicle?.type ?? null),
		perturb: readShare('perturb', values.perturb, 0),
		novice: values.novice === true,
		vehicle: vehicle?.described ?? null
	};
	let faults: string | null = null;
	if (values.faults !== undefined) {
		try {
			faults = (await readWhole(values.faults)).toString('utf8');
		} catch (error) {
			if (!(error instanceof UnreadableInput)) throw error;
			complain(`jaldi trial: ${error.message}`);
			return NOT_UNDERSTOOD;
		}
	}
	const ofFile = faults !== null && values.cases === undefined;
	const ran = await runTrial({ ...asked, faults, count: ofFile ? null : count });
	if (!ran.ok) {
		complain(`jaldi trial: ${values.faults}: ${ran.error}`);
		return NOT_UNDERSTOOD;
	}
	const { worked, skipped } = ran.value;
	if (values.steps)
		for (const [i, { what, outcome }] of worked.entries())
			complain(`${i + 1}. ${what}\n   ${outcome.steps.join('\n   ')}`);
	const summary = {
		...summarise(worked.map(({ outcome }) => outcome)),
		...(skipped === null ? {} : { skipped })
	};
	await say(values.json ? `${JSON.stringify(summary)}\n` : table(summary, way));
	return DONE;
};

async function tellFaults(json: boolean): Promise<number> {
	const list = listFaults();
	const width = (key: 'link' | 'mode') => Math.max(...list.map((one) => one[key].length));
	await say(
		json
			? `${JSON.stringify(list)}\n`
			: list
					.map(
						({ link, mode, name }) =>
							`${link.padEnd(width('link'))}  ${mode.padEnd(width('mode'))}  ${name}\n`
					)
					.join('')
	);
	return DONE;
}

function table(summary: TrialSummary & { skipped?: number }, way: string): string {
	const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
	const rows: [string, string][] = [
		['cases', String(summary.cases)],
		['minutes until the right repair, mean', summary.meanMinutes.toFixed(1)],
		['… nine in ten within', summary.p90Minutes.toFixed(0)],
		['a good part thrown away in', percent(summary.wrongPartRate)],
		['handed back not mended', percent(summary.unresolvedRate)],
		['tests, mean', summary.meanTests.toFixed(1)],
		['first repair was the right one', percent(summary.top1Rate)],
		['advice that bought a wrong part', percent(summary.harmRate)],
		...summary.calibration
			.filter(({ claims }) => claims > 0)
			.map((one): [string, string] => [
				`said to be ${one.from * 100}–${one.to * 100} % sure, and was right`,
				`${one.true} of ${one.claims}`
			])
	];
	if (summary.unknownNamedRate !== null)
		rows.push(['not described, and said to be so', percent(summary.unknownNamedRate)]);
	if (summary.skipped) rows.push(['left out: no vehicle can have it', String(summary.skipped)]);
	return `${strong(way)}\n${rows.map(([name, value]) => `  ${name.padEnd(38)} ${value.padStart(8)}\n`).join('')}`;
}
