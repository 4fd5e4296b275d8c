import { VERDICT_WORDS, type Verdict } from '../../core/prove/proof';
import type { LampLack } from './lampTold';
import { lowerFirst } from '../words';

/** Why a case may not be signed: a closed list, each with what its sentence needs. */
export type OpenReason =
	| { reason: 'no-complete-scan' | 'lamps-not-watched' | 'not-read-since-clear' }
	| { reason: 'code'; text: string; moduleName: string; verdict: Verdict }
	| { reason: 'lamp-stays'; lamp: string; result: string }
	| { reason: 'silent'; moduleName: string }
	| { reason: 'calibration-due'; calibration: string; moduleName: string; because: string }
	| { reason: 'ill-fitted'; sheet: string; lack: string }
	| { reason: 'fuse-unexplained'; fuse: string }
	| { reason: 'ours-in-the-way'; wheels: string[] }
	| LampLack;

/** The sentence of a reason. */
export function openWords(one: OpenReason): string {
	switch (one.reason) {
		case 'no-complete-scan':
			return 'No complete scan is recorded.';
		case 'code':
			return `${one.text} in ${one.moduleName}: ${VERDICT_WORDS[one.verdict].toLowerCase()}.`;
		case 'lamps-not-watched':
			return 'The lamps have not been watched at key-on since the clear.';
		case 'lamp-stays':
			return `The ${one.lamp} lamp ${one.result}.`;
		case 'not-read-since-clear':
			return 'Not every module has been read since the clear.';
		case 'silent':
			return `${one.moduleName} does not answer.`;
		case 'calibration-due':
			return `${one.calibration}, ${lowerFirst(one.moduleName)}, is due: ${one.because}.`;
		case 'ill-fitted':
			return `${one.sheet}: ${one.lack}.`;
		case 'ours-in-the-way':
			return `A signal of ours or a swapped part is still in place: ${one.wheels.map((wheel) => wheel.replace('-', ' ')).join(', ')}. Put everything back on Measure.`;
		case 'fuse-unexplained':
			return `Why fuse ${one.fuse} blew is not found: its cause and its draw belong on the sheet Fuse.`;
		case 'lamp-not-read':
			return 'Its lamp has not been read.';
		case 'lamp-code-not-mended':
			return `${one.code}, ${one.words}: nothing has been mended.`;
		case 'lamp-not-told-none':
			return 'Its lamp has not told since the repair that nothing is kept.';
		case 'lamp-not-driven':
			return 'It has not been driven since the repair, before its lamp was read.';
	}
}
