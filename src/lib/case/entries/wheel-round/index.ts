import { entryKind, line } from '../kind';
import { signKey } from '../../../../../library/reason/signs';
import { WheelRound } from './payload';

export const wheelRound = entryKind('wheel-round', WheelRound, {
	about: 'Each wheel turned in its turn, and what its signal did.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line: ({ mode, corners }) => {
		const bad = corners.filter(({ result }) => result !== 'answers' && result !== 'turns-mate');
		return line(
			mode === 'hand' ? 'Wheels turned by hand' : 'Wheels driven on stands',
			bad.length > 0
				? bad.map(({ text }) => text).join(' ')
				: corners.length === 1
					? 'one wheel answers'
					: `${corners.length} wheels answer`
		);
	},
	seen: ({ corners }) =>
		Object.fromEntries(
			corners.map(({ position, result }) => [
				signKey('spin', position),
				result === 'turns-mate' ? 'answers' : result
			])
		)
});
