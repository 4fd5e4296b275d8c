import { z } from 'zod';
import type { Condition } from '../src/lib/core/conditions/condition';
import { conditionSentence, type SignalWords } from '../src/lib/core/conditions/conditionSentence';
import signalsFile from './signals.json' with { type: 'json' };

const Signal = z.object({
	signal: z.string(),
	name: z.string(),
	unit: z.string(),
	isSwitch: z.boolean().default(false)
});

/** Every signal that set conditions may speak of, by name. */
export const signals = new Map(
	z
		.array(Signal)
		.parse(signalsFile.signals)
		.map((s) => [s.signal, s])
);

/** A signal nobody described is called by its own name. */
const wordsOf = (signal: string): SignalWords =>
	signals.get(signal) ?? { name: signal.replaceAll('_', ' '), unit: '', isSwitch: false };

export const sayCondition = (condition: Condition): string => conditionSentence(condition, wordsOf);
