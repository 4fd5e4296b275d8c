import { typeOf } from '../../case/thread/vehicleOf';
import { suspectCorners } from '../../case/measure/measured';
import type { CaseView } from '../../case/progress/project';
import { positionWords } from '../../case/words';
import { Position } from '../../../../library';

const CAR: Position[] = ['front-left', 'front-right', 'rear-left', 'rear-right'];

/** The wheels of a case's vehicle, which of them are suspect, and the one that a page is about. */
export function cornersOf(
	{ entries, codes }: Pick<CaseView, 'entries' | 'codes'>,
	wanted: string | null
): { at: Position; atWords: string; corners: { position: Position; words: string; suspect: boolean }[] } {
	const positions = typeOf(entries)?.wheels.map(({ position }) => position) ?? CAR;
	// What our own tests set makes no wheel suspect.
	const told = codes.filter(({ madeByUs }) => madeByUs === null);
	const suspects = suspectCorners(entries, told).filter((position) => positions.includes(position));
	const asked = positions.find((position) => position === wanted);
	const at = asked ?? suspects[0] ?? positions[0] ?? 'front-left';
	return {
		at,
		atWords: positionWords(at),
		corners: positions.map((position) => ({
			position,
			words: positionWords(position),
			suspect: suspects.includes(position)
		}))
	};
}
