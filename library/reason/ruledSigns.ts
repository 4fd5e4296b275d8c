import { LINKS, type Link } from '../links';
import { TRUE_SPEED, TRUE_SPEED_OUTCOMES } from './trueSpeed';
import { works } from '../vocabulary';
import { isProvoked } from './provoked';
import { isSwap, isSwapSight } from './swaps';
import { signKey, signs, splitKey, type SignKey } from './signs';

/**
 * Signs whose chances follow from a rule about links and repairs and not from counting: where a search along the harness
 * ended, and parts that others have already replaced without success.
 */

/** What a part that others renewed is worth as a witness. */
export const REPLACED_WORTH = ['sound', 'usual', 'poor'] as const;
export type ReplacedWorth = (typeof REPLACED_WORTH)[number];
/** @param at the wheel at which it was; null = nobody knows */
export const replacedKey = (
	repair: string,
	worth: ReplacedWorth = 'usual',
	at: string | null = null
): SignKey => signKey(`replaced:${repair}:${worth}`, at ?? 'vehicle');
/** Of a sign of such a part; null for any other. */
export function replacedOf(sign: string): { repair: string; worth: ReplacedWorth } | null {
	const [what, repair = '', told = 'usual'] = sign.split(':');
	const worth = REPLACED_WORTH.find((one) => one === told);
	return what === 'replaced' && worth ? { repair, worth } : null;
}
/** A resistor in place of the sensor: whether the level that it makes arrives at the module. */
export const levelKey = (position: string): SignKey => signKey('level', position);
export const searchKey = (position: string): SignKey => signKey('search', position);

/** Whether the chances of a sign go by a rule. */
export const isRuled = (sign: string): boolean =>
	sign === 'search' ||
	sign === 'level' ||
	isSwap(sign) ||
	isProvoked(sign) ||
	sign === TRUE_SPEED ||
	sign === 'wheel-set-air' ||
	sign.startsWith('replaced:') ||
	signs.get(sign)?.alsoSound !== undefined;

/** Whether what came out of a sign may prove a link bad, or good. What others replaced is told, and proves neither. */
export function mayProve(key: string, what: 'bad' | 'good'): boolean {
	const { sign } = splitKey(key);
	if (sign.startsWith('replaced:')) return false;
	return signs.get(sign)?.proves.includes(what) ?? true;
}

/** A part that was replaced is less likely at fault, and no more: it is not proven good. */
export const AFTER_REPLACING: Record<ReplacedWorth, number> = { sound: 0.2, usual: 0.35, poor: 0.65 };
/** A search along the wire that ended is rarely wrong. */
export const SEARCH_RIGHT = 0.93;
export const SEARCH_OUTCOMES: readonly string[] = ['none', ...LINKS];

/** Whether this library knows a sign and an outcome of it: what an entry of another version says otherwise counts for nothing. */
export function isKnownSight(key: string, outcome: string): boolean {
	const { sign: id } = splitKey(key);
	if (isSwap(id)) return isSwapSight(id, outcome);
	if (id === TRUE_SPEED) return (TRUE_SPEED_OUTCOMES as readonly string[]).includes(outcome);
	if (id === 'level') return LEVEL_OUTCOMES.includes(outcome);
	if (id === 'search') return SEARCH_OUTCOMES.includes(outcome);
	if (id.startsWith('replaced:'))
		return [...works.values()].some(({ repair }) => repair !== null && repair === replacedOf(id)?.repair);
	const sign = signs.get(id);
	return sign !== undefined && (sign.open || Object.hasOwn(sign.outcomes, outcome));
}

export const LEVEL_OUTCOMES: readonly string[] = ['arrives', 'missing'];
/** What lies between a resistor at the open sensor's plug and the module that reads its level. */
const BETWEEN: readonly Link[] = ['harness', 'module-connector', 'module-input'];
/** What is broken there keeps the level away; what comes and goes is seldom away just then. */
const MISSING = { broken: 0.9, comesAndGoes: 0.2, whole: 0.02 };

/** Chance that the level of a resistor arrives, or not, by the link at fault and whether that comes and goes. */
export function levelChance(outcome: string, link: Link | null, comesAndGoes: boolean): number {
	const between = link !== null && BETWEEN.includes(link);
	const missing = MISSING[!between ? 'whole' : comesAndGoes ? 'comesAndGoes' : 'broken'];
	return outcome === 'missing' ? missing : 1 - missing;
}

/** Chance that a search along a wire ends at a link, by the link at fault. */
export function searchChance(outcome: string, link: Link | null): number {
	const found: readonly (Link | null)[] = ['sensor-connector', 'harness', 'module-connector'];
	const right = found.includes(link) ? link : 'none';
	return outcome === right ? SEARCH_RIGHT : (1 - SEARCH_RIGHT) / (SEARCH_OUTCOMES.length - 1);
}

/** How cold it was outside when a wheel's code was set, by the moment that its module kept. */
export const AIR = ['cold', 'mild', 'warm'] as const;
export type Air = (typeof AIR)[number];
const COLD_BELOW_C = 5;
const WARM_FROM_C = 25;
export const airOf = (celsius: number): Air =>
	celsius < COLD_BELOW_C ? 'cold' : celsius < WARM_FROM_C ? 'mild' : 'warm';
/** What the weather is, whatever is wrong; and when what opens with warmth shows, the hub warmer than the air. */
const WEATHER: Record<Air, number> = { cold: 0.25, mild: 0.5, warm: 0.25 };
const OPENS_WARM: Record<Air, number> = { cold: 0.08, mild: 0.42, warm: 0.5 };

export const airChance = (air: Air, opensWarm: boolean): number => (opensWarm ? OPENS_WARM : WEATHER)[air];
