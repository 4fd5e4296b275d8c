import { once } from 'node:events';
import { parseArgs, styleText, type ParseArgsConfig } from 'node:util';

/** Takes the words after its name; gives the exit status. */
export type Command = (args: string[]) => Promise<number>;

/** The command was called in a way it does not understand: exit status 2. */
export class WrongUsage extends Error {}

export const DONE = 0;
export const NOT_UNDERSTOOD = 1;

/** Options and positional words of a command; anything unknown is wrong usage. */
export function readArguments<O extends NonNullable<ParseArgsConfig['options']>>(args: string[], options: O) {
	try {
		return parseArgs({ args, options: { json: { type: 'boolean' }, ...options }, allowPositionals: true });
	} catch (error) {
		throw new WrongUsage(error instanceof Error ? error.message : String(error));
	}
}

/** Writes to standard output, waiting where the reader is slower than we are. */
export async function say(text: string): Promise<void> {
	if (!process.stdout.write(text)) await once(process.stdout, 'drain');
}

export const complain = (text: string): void => {
	process.stderr.write(`${text}\n`);
};

/** Bold on a terminal, plain elsewhere and where NO_COLOR is set. */
export function strong(text: string): string {
	return process.stdout.isTTY && !process.env.NO_COLOR ? styleText('bold', text) : text;
}
