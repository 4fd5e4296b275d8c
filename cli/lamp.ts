import { readFlashes, type Flash } from '../src/lib/core/blink/readFlashes';
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

const NUMBER = /^(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i;

/** `jaldi lamp T1 T2 … [--json]`: seconds at which the lamp lit, or `on:off` pairs. */
export const lamp: Command = async (args) => {
	const { values, positionals } = readArguments(args, {});
	if (positionals.length === 0)
		throw new WrongUsage('expects the seconds at which the lamp lit, such as 0 0.5 1 2.5 3');
	const flashes: Flash[] = [];
	for (const [i, text] of positionals.entries()) {
		const [on = '', off, ...more] = text.split(':');
		if (!NUMBER.test(on) || (off !== undefined && !NUMBER.test(off)) || more.length > 0) {
			complain(
				`jaldi lamp: time ${i + 1}, "${text}": expected seconds such as 2.5, or lit and out such as 2.5:2.8`
			);
			return NOT_UNDERSTOOD;
		}
		flashes.push({ onS: Number(on), offS: off === undefined ? null : Number(off) });
	}
	const read = readFlashes(flashes);
	if (!read.ok) {
		complain(`jaldi lamp: ${read.error}`);
		return NOT_UNDERSTOOD;
	}
	const { groups, repeats, confidence, gapS, codes, wantsAnother } = read.value;
	if (values.json) {
		await say(`${JSON.stringify(read.value)}\n`);
		return DONE;
	}
	const gaps = Object.entries(gapS).flatMap(([kind, s]) => (s === null ? [] : [`${kind} ${s.toFixed(2)} s`]));
	await say(
		[
			`${strong(`lamp ${groups.join('-')}`)}  shown ${repeats === 1 ? 'once' : `${repeats} times`}, ${(confidence * 100).toFixed(0)} % sure`,
			gaps.length > 0 ? `gaps: ${gaps.join(', ')}` : null,
			codes.length > 1
				? `one after the other: ${codes.map((one) => `${one.groups.join('-')} ×${one.repeats}`).join(', ')}`
				: null,
			wantsAnother ? 'wait for one more showing' : null
		]
			.filter((line) => line !== null)
			.join('\n') + '\n'
	);
	return DONE;
};
