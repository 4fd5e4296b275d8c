import { decodeText, type DecodedCode, type UnreadText } from '../src/lib/case/codes/decoded';
import { STATUS_BITS, STATUS_WORDS } from '../src/lib/core/codes/status';
import { DONE, NOT_UNDERSTOOD, readArguments, say, strong, WrongUsage, type Command } from './command';

/** `jaldi decode TEXT... [--json]` */
export const decode: Command = async (args) => {
	const { values, positionals } = readArguments(args, {});
	if (positionals.length === 0) throw new WrongUsage('give at least one code, such as C0035-14');
	const found = positionals.map((text) => decodeText(text));
	const elements = found.flatMap((one): (DecodedCode | UnreadText)[] => ('error' in one ? [one] : one.codes));
	if (values.json) await say(`${JSON.stringify(elements)}\n`);
	else for (const [i, one] of found.entries()) await say(textOf(one, positionals[i] ?? ''));
	for (const one of found)
		if ('error' in one) process.stderr.write(`jaldi decode: "${one.input}" ${one.error}\n`);
	return found.some((one) => 'error' in one) ? NOT_UNDERSTOOD : DONE;
};

function textOf(found: ReturnType<typeof decodeText>, text: string): string {
	if ('error' in found) return '';
	if (found.codes.length === 0) return `${text}\n  ${found.what}: no codes in it\n`;
	return found.codes.map(codeText).join('');
}

/** A decoded code as lines for people. */
export function codeText(code: DecodedCode): string {
	const suffix = code.failureTypeByte === null ? '' : `-${code.failureTypeByte}`;
	const lines = [`${strong(code.code + suffix)}  ${code.title ?? noTitle(code)}`];
	if (code.failureType) lines.push(`  ${code.failureType} (${code.failureClass})`);
	if (code.system)
		lines.push(
			`  ${code.system}, ${DEFINED[code.definedBy ?? 'reserved']}${code.corner ? `, ${code.corner}` : ''}`
		);
	if (typeof code.occurrences === 'number') lines.push(`  occurred ${code.occurrences} times`);
	if (code.groups) lines.push(`  groups of flashes: ${code.groups.join(', ')}`);
	if (code.status) {
		const set = STATUS_BITS.filter((bit) => code.status?.[bit]);
		const words = set.map((bit) => STATUS_WORDS[bit]).join('; ');
		lines.push(`  status ${code.status.byte}: ${words || 'no bit set: tested good'}`);
	}
	return `${lines.join('\n')}\n`;
}

const DEFINED = { standard: 'defined by the standard', maker: 'defined by the maker', reserved: 'reserved' };

const noTitle = (code: DecodedCode): string =>
	code.definedBy === 'maker'
		? 'the maker’s own code: its meaning depends on the vehicle'
		: 'not in the library';
