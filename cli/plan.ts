import { readCaseFile } from '../src/lib/case/thread/caseFile';
import { planOf, type Plan } from '../src/lib/case/reason/plan';
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
import { vehicleIn } from './vehicle';

/** `jaldi plan CASE.json [--vehicle FILE] [--proving 1] [--json]` */
export const plan: Command = async (args) => {
	const { values, positionals } = readArguments(args, {
		proving: { type: 'string' },
		vehicle: { type: 'string' }
	});
	const [file] = positionals;
	if (file === undefined || positionals.length > 1)
		throw new WrongUsage('give one file, or - for standard input');
	const policy = readPolicy(values.proving);
	let text: string;
	try {
		text = (await readWhole(file)).toString('utf8');
	} catch (error) {
		if (!(error instanceof UnreadableInput)) throw error;
		complain(`jaldi plan: ${error.message}`);
		return NOT_UNDERSTOOD;
	}
	const vehicle = values.vehicle === undefined ? null : await vehicleIn(values.vehicle, 'plan');
	if (values.vehicle !== undefined && !vehicle) return NOT_UNDERSTOOD;
	const thread = readCaseFile(text);
	const made = thread.ok ? planOf(thread.value, policy, undefined, vehicle?.type ?? null) : thread;
	if (!made.ok) {
		complain(`jaldi plan: ${file}: ${made.error}`);
		return NOT_UNDERSTOOD;
	}
	await say(values.json ? `${JSON.stringify(made.value)}\n` : told(made.value));
	return DONE;
};

function told({ hypotheses, next, stop }: Plan): string {
	const percent = (p: number) => `${(p * 100).toFixed(1).padStart(5)} %`;
	const lines = [
		strong('What is left'),
		...hypotheses.map(({ fault, probability }) => `  ${percent(probability)}  ${fault}`),
		'',
		stop ? strong(`Repair now: ${stop.repair}`) : strong('Test next')
	];
	if (stop) lines.push(`  ${stop.why}`);
	else
		for (const one of next)
			lines.push(`  ${String(Math.round(one.minutes)).padStart(3)} min  ${one.test}. ${one.why}`);
	return `${lines.join('\n')}\n`;
}
