import { entryKind, line } from '../kind';
import { count } from '../lineWords';
import { ProvingDrive } from './payload';
import { short } from '../../words';

export const provingDrive = entryKind('proving-drive', ProvingDrive, {
	about: 'A drive to prove a repair: distance, speed, stops, road.',
	group: 'done',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: true,
	line: ({ distanceKm, topSpeedKmh, stops, road }) =>
		line(
			`Proving drive, ${short(distanceKm, 2)} km`,
			`up to ${short(topSpeedKmh)} km/h, ${count(stops, 'stop')}, ${road}`
		),
	search: { part: 'notes', of: 'each', words: ({ note }) => [note] }
});
