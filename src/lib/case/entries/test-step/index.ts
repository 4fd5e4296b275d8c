import { entryKind, line } from '../kind';
import { signs, splitKey } from '../../../../../library/reason/signs';
import { testKinds } from '../../../../../library/reason/tests';
import { seenWords, STEP_WORDS } from '../../reason/words';
import { TestStep } from './payload';

const MOST_TOLD = 3;

export const testStep = entryKind('test-step', TestStep, {
	about: 'A step of the worksheet: done, with what was seen, or set aside with the reason.',
	group: 'tested',
	writer: 'hand',
	mayBeWithdrawn: true,
	changesVerdicts: false,
	line: ({ name, how, seen, because }) => {
		const told = [...new Set(Object.entries(seen).map(([key, outcome]) => seenWords(key, outcome)))];
		return how === 'done'
			? line(name, [told.slice(0, MOST_TOLD).join(', '), because].filter(Boolean).join('; ') || 'done')
			: line(`Set aside: ${name}`, `${STEP_WORDS[how]}. ${because}`.trim());
	},
	names: ({ test, seen }) => [
		...(test === null ? [] : [['test', test, testKinds] as const]),
		...Object.keys(seen).map((key) => ['sign', splitKey(key).sign, signs] as const)
	],
	seen: ({ seen }) =>
		Object.fromEntries(Object.entries(seen).filter(([key]) => signs.has(splitKey(key).sign)))
});
