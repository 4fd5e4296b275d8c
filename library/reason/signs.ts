import { z } from 'zod';
import { inspections, measurements } from '../measure';
import { PLACES } from '../repairs';
import signsFile from './signs.json' with { type: 'json' };

/** How often a sound vehicle shows what it should. */
const USUAL = 0.97;

/** Something that can be seen of one place of a vehicle, in a closed set of outcomes. */
const Sign = z.object({
	id: z.string(),
	about: z.enum(PLACES),
	/** What a sound vehicle shows. */
	good: z.string(),
	/** How often a sound vehicle shows the good outcome; less where the sign is only looked at when something is wrong. */
	usual: z.number().min(0).max(1).default(USUAL),
	/** How often a person or an instrument takes one outcome for another. */
	misread: z.number().min(0).max(0.5),
	/** Outcomes beside the listed ones are met, such as codes that only one maker has. */
	open: z.boolean().default(false),
	/** Told by a customer: only what is told counts, not what is left out. */
	told: z.boolean().default(false),
	/** What it may prove: a link bad, a link good. What modules and people say of themselves accuses and proves neither. */
	proves: z.array(z.enum(['bad', 'good'])).default(['bad', 'good']),
	/** What is found at its place says nothing of any other. */
	local: z.boolean().default(false),
	/** Read of a bus line: at another module of its segment it is the same line. */
	ofLine: z.boolean().default(false),
	/** Seen by eye: looked at once more, it is missed or imagined anew. */
	byEye: z.boolean().default(false),
	/** Another sign tells the same once for all of them: this one is no evidence of its own. */
	toldBy: z.string().optional(),
	/** Told by answers over the link: the gateway, at which the tester is, answers whatever is wrong behind it. */
	byAnswers: z.literal(true).optional(),
	/** Said by the modules themselves: whatever is suspected has to explain it. */
	toExplain: z.boolean().default(false),
	/**
	 * Of what is seen by eye: how often each outcome is seen where nothing is wrong. Its chances then follow from how surely each
	 * fault is seen (sights.ts), and are not counted.
	 */
	alsoSound: z.record(z.string(), z.number().min(0).max(0.5)).optional(),
	/** In words, by outcome. */
	outcomes: z.record(z.string(), z.string())
});
export type Sign = z.infer<typeof Sign>;

const { looking, measuring } = signsFile;

const PLAIN = Sign.pick({
	open: true,
	told: true,
	proves: true,
	local: true,
	ofLine: true,
	byEye: true,
	toExplain: true
}).parse({});

const own = z.array(Sign).parse(signsFile.signs);
const measured = measurements.map(({ id, about }): Sign => ({
	id: `meter:${id}`,
	about: about === 'corner' ? 'corner' : 'module',
	good: 'in',
	usual: USUAL,
	misread: measuring.misread,
	...PLAIN,
	ofLine: about === 'bus',
	outcomes: { in: measuring.in, low: measuring.low, high: measuring.high }
}));
/** Somebody who says that it is bad and not what: it is seen nearly as often where nothing is wrong. */
export const BAD = 'bad';
const looked = inspections.map(({ id, gapMm, sights }): Sign => ({
	id: `look:${id}`,
	about: 'corner',
	good: 'good',
	usual: USUAL,
	misread: looking.misread,
	...PLAIN,
	local: looking.local,
	byEye: looking.byEye,
	outcomes: {
		good: looking.good,
		[BAD]: looking.bad,
		// A gap is measured: what is the matter with it is told by the feeler.
		...(gapMm ? {} : Object.fromEntries(sights.map((sight) => [sight.id, sight.words])))
	},
	...(gapMm
		? {}
		: {
				alsoSound: {
					[BAD]: looking.badWithoutWhat,
					...Object.fromEntries(sights.map((sight) => [sight.id, sight.alsoSound ?? looking.clear]))
				}
			})
}));

export const signs: ReadonlyMap<string, Sign> = new Map(
	[...own, ...measured, ...looked].map((sign) => [sign.id, sign])
);

/** Throws for a sign that the library does not have. */
export function signOf(id: string): Sign {
	const sign = signs.get(id);
	if (!sign) throw new RangeError(`"${id}" is no sign of the library`);
	return sign;
}

/** `scope-sensor@rear-left`: one sign at one place. */
export type SignKey = `${string}@${string}`;
export const signKey = (sign: string, place: string): SignKey => `${sign}@${place}`;
/** The same sign looked at once more, after it came out some way: what comes and goes may now be otherwise. */
export const againKey = (key: string, before: string): string => `${key.split('~')[0]}~${before}`;
/** The same of a line that came out some way at another place before. */
export const lineKey = (key: string, at: string, before: string): string =>
	`${key.split('~')[0]}~${at}=${before}`;
/** @returns `before`: how it came out the time before, where it is looked at once more; `beforeAt`: at which other place */
export function splitKey(key: string): {
	sign: string;
	place: string;
	before: string | null;
	beforeAt: string | null;
} {
	const [once = '', last = null] = key.split('~');
	const [sign = '', place = ''] = once.split('@');
	const at = last?.indexOf('=') ?? -1;
	return at < 0 || last === null
		? { sign, place, before: last, beforeAt: null }
		: { sign, place, before: last.slice(at + 1), beforeAt: last.slice(0, at) };
}

/** What was seen, by sign and place. */
export type Seen = Record<SignKey, string>;
