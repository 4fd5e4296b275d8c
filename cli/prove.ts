import { exposureNeeded, silentChance } from '../src/lib/core/prove/silentChance';
import { DONE, readArguments, say, strong, WrongUsage, type Command } from './command';

const USUAL_TARGET = 0.05;

/** `jaldi prove --returns K --before-km D --after-km d [--target 0.05] [--json]` */
export const prove: Command = async (args) => {
	const { values, positionals } = readArguments(args, {
		returns: { type: 'string' },
		'before-km': { type: 'string' },
		'after-km': { type: 'string' },
		target: { type: 'string' }
	});
	if (positionals.length > 0) throw new WrongUsage(`"${positionals[0]}" has no place here`);
	const numberOf = (name: 'returns' | 'before-km' | 'after-km' | 'target', usual?: number): number => {
		const text = values[name];
		if (text === undefined && usual !== undefined) return usual;
		const value = text === undefined || text.trim() === '' ? NaN : Number(text);
		if (Number.isNaN(value))
			throw new WrongUsage(`--${name} expects a number${text === undefined ? '' : `, not "${text}"`}`);
		return value;
	};
	const [returns, beforeKm, afterKm] = [numberOf('returns'), numberOf('before-km'), numberOf('after-km')];
	const target = numberOf('target', USUAL_TARGET);
	try {
		const residualChance = silentChance(returns, beforeKm, afterKm);
		const furtherKmNeeded = Math.max(0, exposureNeeded(returns, beforeKm, target) - afterKm);
		await say(
			values.json
				? `${JSON.stringify({ residualChance, furtherKmNeeded })}\n`
				: `${strong(`${(residualChance * 100).toFixed(1)} %`)} that an unrepaired fault would have stayed silent; ${
						furtherKmNeeded > 0 ? `${furtherKmNeeded.toFixed(1)} km more` : 'no more driving'
					} for ${(target * 100).toFixed(0)} %\n`
		);
		return DONE;
	} catch (error) {
		if (error instanceof RangeError) throw new WrongUsage(error.message);
		throw error;
	}
};
