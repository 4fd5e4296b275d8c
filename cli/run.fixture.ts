import { vi } from 'vitest';
import type { Command } from './command';

/** Runs a command in this process and keeps what it writes. */
export async function runCommand(
	command: Command,
	args: string[]
): Promise<{ status: number; out: string; err: string }> {
	let [out, err] = ['', ''];
	const told = vi.spyOn(process.stdout, 'write').mockImplementation((text) => ((out += String(text)), true));
	const complained = vi
		.spyOn(process.stderr, 'write')
		.mockImplementation((text) => ((err += String(text)), true));
	try {
		const status = await command(args);
		return { status, out, err };
	} finally {
		told.mockRestore();
		complained.mockRestore();
	}
}
