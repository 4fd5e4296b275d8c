import { channelsTold } from '../entries/scope-capture/evidence';
import { undisturbed } from '../thread/inTheWay';
import { isMending } from '../mend/calibrations';
import type { ComplaintAnswer } from '../entries/complaint-answered/payload';
import { complaintOpen } from '../listen/complaintThings';
import type { Entry, EntryOf } from '../entries/entry';
import { provokingWords, thingKey } from '../entries/live-recording/triedWords';
import { oddTyres } from '../reason/tyreSigns';
import { happenedAfter, latest, ofKind } from '../thread/thread';
import { lowerFirst, positionWords } from '../words';

/** Something that stands between a case and its signature besides its codes. */
export interface StandingItem {
	subject: ReleaseSubject;
	/** What of that subject: a lead releases exactly this. */
	of: string;
	words: string;
	/** Page on which it is settled, below the case's own. */
	page: string;
}
export const RELEASE_SUBJECTS = ['complaint', 'finding', 'vehicle-number'] as const;
export type ReleaseSubject = (typeof RELEASE_SUBJECTS)[number];

const NOT_ANSWERED = 'Try it as it was told, and say on Prove what came of it.';
const STILL_OPEN: Partial<Record<ComplaintAnswer, string>> = {
	'shows-again': 'It shows again, and nothing has ended it since.',
	'does-not-show':
		'It did not show when it was tried: try it nearer to how it was told, or find what explains it.',
	gone: 'It is gone, and nothing was mended: find what has ended it.'
};
/** A release keeps the words of what it releases: a long story is told by its beginning. */
const MOST_SAID = 200;
const shortened = (words: string): string =>
	words.length > MOST_SAID ? `${words.slice(0, MOST_SAID).trimEnd()} …` : words;
/** The complaint as a whole, as it was released before each thing of it was asked about. */
const ALL_OF_IT = 'complaint';

/** What one entry says of one thing that can be looked at again: whether it was as it should be. */
interface Sight {
	of: string;
	good: boolean;
	words: string;
	page: string;
}

function sightsIn(entry: Entry): Sight[] {
	switch (entry.kind) {
		case 'wheel-round':
			return entry.payload.corners
				.filter(({ result }) => result !== 'not-trusted')
				.map(({ position, result, text }) => ({
					of: `round@${position}`,
					good: result === 'answers' || result === 'turns-mate',
					words: text,
					page: 'watch'
				}));
		case 'inspection': {
			const { inspection, position, name, result } = entry.payload;
			if (result === 'unsure') return [];
			const words = `${positionWords(position)}, ${lowerFirst(name)}: bad when it was last looked at.`;
			return [{ of: `look:${inspection}@${position}`, good: result === 'good', words, page: 'measure/look' }];
		}
		case 'meter-reading': {
			const { measurement, position, name, judged } = entry.payload;
			if (judged === 'borderline') return [];
			const where = position ? `${positionWords(position)}, ` : '';
			const words = `${where}${lowerFirst(name)}: outside its window when it was last measured.`;
			return [
				{ of: `meter:${measurement}@${position ?? ''}`, good: judged === 'in', words, page: 'measure' }
			];
		}
		case 'substitution': {
			const { position, outcome } = entry.payload;
			const words = `${positionWords(position)}: a signal put in its place did not come through.`;
			return [
				{ of: `substitute@${position}`, good: outcome === 'follows', words, page: 'measure/substitute' }
			];
		}
		case 'scope-capture':
			return channelsTold(entry.payload).flatMap(({ position, findings }) =>
				position
					? [
							{
								of: `scope@${position}`,
								good: findings.length === 0,
								words: `${positionWords(position)}: ${findings[0]?.text ?? ''}`,
								page: 'measure/scope'
							}
						]
					: []
			);
		case 'live-recording': {
			const { tried } = entry.payload;
			if (tried)
				return tried.map((one) => ({
					of: `tried:${thingKey(one)}@${one.position}`,
					good: one.changes === 0,
					words: `${positionWords(one.position)}: its value changed with ${provokingWords(one)}.`,
					page: 'measure/provoke'
				}));
			// A wheel that slips is driven, not broken.
			const told = entry.payload.findings.filter(({ type }) => type !== 'slip');
			return [{ of: 'live', good: told.length === 0, words: told[0]?.text ?? '', page: 'watch' }];
		}
		default:
			return [];
	}
}

/**
 * What was found since the last repair and has not been found good again, what of the complaint nobody has answered, and a vehicle
 * number that does not fit. Each is settled on its page, or released by a lead by name.
 *
 * @param entries standing entries in order
 */
export function standingItems(entries: readonly Entry[]): StandingItem[] {
	const mendedAt = entries.findLastIndex(isMending);
	const items: (StandingItem & { entry: Entry })[] = [];
	const said = latest(entries, 'complaint') ?? latest(entries, 'lamps-reported');
	if (said)
		for (const { key, words, answer } of complaintOpen(entries)) {
			const how = answer ? STILL_OPEN[answer.how] : undefined;
			items.push({
				subject: 'complaint',
				of: key,
				words: `The customer said: ${shortened(words)}. ${how ?? NOT_ANSWERED}`,
				page: 'prove',
				entry: said
			});
		}
	items.push(...numberItems(entries), ...tyreItems(entries), ...driveItems(entries));
	const sights = new Map<string, Sight & { entry: Entry }>();
	for (const entry of undisturbed(entries).filter((one) => entries.indexOf(one) > mendedAt))
		for (const sight of sightsIn(entry)) sights.set(sight.of, { ...sight, entry });
	for (const { of, good, words, page, entry } of sights.values())
		if (!good) items.push({ subject: 'finding', of, words, page, entry });
	const releases = ofKind(entries, 'release');
	return items
		.filter(
			({ subject, of, entry }) =>
				!releases.some(
					(release) =>
						release.payload.subject === subject &&
						(release.payload.of === of || (subject === 'complaint' && release.payload.of === ALL_OF_IT)) &&
						happenedAfter(entries, release, entry)
				)
		)
		.map(({ entry: _entry, ...item }) => item);
}

const FITS_TYRES = 'fit-right-tyre';

/** Sidewalls that contradict each other, or the placard, stand until they are read anew after tyres were changed. */
function tyreItems(entries: readonly Entry[]): (StandingItem & { entry: Entry })[] {
	const read = latest(entries, 'tyres-fitted');
	if (!read) return [];
	const odd = oddTyres(read.payload);
	if (odd === null) return [];
	const changed = ofKind(entries, 'repair').some(
		(repair) => repair.payload.does?.kind === FITS_TYRES && happenedAfter(entries, repair, read)
	);
	const words = changed
		? 'Tyres were changed: read the sidewalls again.'
		: odd === 'placard'
			? 'The sidewalls are not what the placard says.'
			: 'The sidewalls differ, and no placard says that they should.';
	return [{ subject: 'finding', of: 'tyres', words, page: 'listen', entry: read }];
}

/** Between its number being read and a scan it may be driven for proof; more is a number read wrongly. */
const MOST_KM_APART = 300;

/** Drives that the odometer contradicts: more kilometres were written down between two readings of it than it went. */
function driveItems(entries: readonly Entry[]): (StandingItem & { entry: Entry })[] {
	const items: (StandingItem & { entry: Entry })[] = [];
	let before: number | null = null;
	let drives: EntryOf<'proving-drive'>[] = [];
	for (const entry of entries) {
		if (entry.kind === 'proving-drive') drives.push(entry);
		if (entry.kind !== 'network-scan' || entry.payload.odometerKm === undefined) continue;
		const now = entry.payload.odometerKm;
		const written = drives.reduce((sum, { payload }) => sum + payload.distanceKm, 0);
		const [last] = drives.slice(-1);
		if (before !== null && last && written > (now - before) * ODOMETER_SHARE + ODOMETER_KM)
			items.push({
				subject: 'finding',
				of: `drive:${last.id}`,
				words: `${written.toFixed(1)} km are written down as driven, and the odometer went ${(now - before).toFixed(1)} km: withdraw the drive on the thread, and write it down as it was.`,
				page: 'prove',
				entry: last
			});
		before = now;
		drives = [];
	}
	return items;
}
/** How far a distance on paper may be above what the odometer went: its wheels, and whole kilometres. */
const [ODOMETER_SHARE, ODOMETER_KM] = [1.1, 1];

function numberItems(entries: readonly Entry[]): (StandingItem & { entry: Entry })[] {
	const checked = latest(entries, 'vehicle-checked');
	if (!checked) return [];
	const { vin, checkDigitFits, odometerKm } = checked.payload;
	const scans = ofKind(entries, 'network-scan').map(({ payload }) => payload);
	const told = scans.map((scan) => scan.vin).findLast((read) => read !== null);
	const counted = scans.map((scan) => scan.odometerKm).findLast((km) => km !== undefined);
	const item = (of: string, words: string) => [
		{ subject: 'vehicle-number' as const, of, words, page: 'listen', entry: checked }
	];
	return [
		...(checkDigitFits
			? []
			: item('check-digit', `The check digit of ${vin} does not fit: was it read rightly?`)),
		...(told && told !== vin
			? item('other-vehicle', `The vehicle itself says that it is ${told}, not ${vin}.`)
			: []),
		...(counted !== undefined && Math.abs(counted - odometerKm) > MOST_KM_APART
			? item(
					'odometer',
					`The vehicle itself counts ${Math.round(counted).toLocaleString('en-GB')} km, not ${odometerKm.toLocaleString('en-GB')} km.`
				)
			: [])
	];
}
