import { entryKind, line } from '../kind';
import { LampCheck } from './payload';

export const lampCheck = entryKind('lamp-check', LampCheck, {
	about: 'What the lamps did at key-on.',
	group: 'done',
	writer: 'hand',
	changesVerdicts: true,
	line: ({ lamps }) => {
		const wrong = lamps.filter(({ result }) => result !== 'lit and went out');
		return line(
			'Lamps watched at key-on',
			wrong.length === 0
				? 'all lit and went out'
				: wrong.map(({ lamp, result }) => `${lamp} ${result}`).join(', ')
		);
	}
});
