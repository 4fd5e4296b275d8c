import type { Drive } from '../src/lib/core/tyres/compareTyres';
import { WrongUsage } from './command';

const DRIVES: readonly Drive[] = ['front', 'rear', 'all'];

/** The word given with `--drive`; null where it is not given. */
export function readDrive(text: string | undefined): Drive | null {
	if (text === undefined) return null;
	const drive = DRIVES.find((one) => one === text);
	if (!drive) throw new WrongUsage(`--drive is front, rear or all, not "${text}"`);
	return drive;
}
