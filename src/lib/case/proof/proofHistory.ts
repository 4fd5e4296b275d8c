import { channelOf } from '../../../../library/positions';
import { identifiers } from '../../../../library';
import { tellsOfFault } from '../../core/codes/status';
import type { CodeEvent } from '../../core/prove/proof';
import { decodeIdentifier } from '../../core/uds/identifierValue';
import { inTheWay, MODULE, undisturbed } from '../thread/inTheWay';
import { restoresCode } from '../mend/calibrations';
import type { CaseCode } from '../codes/caseCode';
import type { Entry, EntryOf } from '../entries/entry';
import type { ScannedCode, ScannedModule } from '../entries/network-scan/payload';

/** What of a thread is evidence for or against one code, in the words of the proof. */

/** Which code of which module. */
export type CodeAt = Pick<CaseCode, 'address' | 'dtc' | 'corner'>;

const ALL_BITS = 0xff;
const VEHICLE_SPEED_ID = 'F40D';

/** A number that a snapshot froze; null where it has none. */
export function frozen(snapshot: ScannedCode['snapshots'][number] | undefined, id: string): number | null {
	const rule = identifiers.get(id);
	const raw = snapshot?.values.find((value) => value.id === id)?.raw;
	if (!rule || raw === undefined) return null;
	const value = decodeIdentifier(rule, raw);
	return value.kind === 'number' ? value.value : null;
}

/** Vehicle speed in the latest snapshot of a code, in km/h. */
export const snapshotSpeedKmh = (code: ScannedCode): number | null =>
	frozen(code.snapshots.at(-1), VEHICLE_SPEED_ID);

/** Status of a code by this reading of its module: null = not listed. */
export function statusIn(module: ScannedModule, dtc: string): number | null {
	return (
		module.codes.find((code) => code.dtc === dtc)?.status ??
		module.supported.find((code) => code.dtc === dtc)?.status ??
		null
	);
}

/** What live data say of a code's wheel: null where they do not look at it, else what was found. */
export function liveOf(entry: Entry, corner: CodeAt['corner']): { found: string | null } | null {
	if (!corner) return null;
	if (entry.kind === 'live-recording') {
		const channel = channelOf(corner);
		if (!entry.payload.channels.includes(channel)) return null;
		// What was provoked speaks by a mark of its own: seconds by hand are no clean drive.
		if (entry.payload.tried) return null;
		return { found: entry.payload.findings.find((one) => one.channel === channel)?.text ?? null };
	}
	if (entry.kind !== 'wheel-round') return null;
	const seen = entry.payload.corners.find(({ position }) => position === corner);
	if (!seen || seen.result === 'not-trusted') return null;
	return { found: seen.result === 'answers' || seen.result === 'turns-mate' ? null : seen.text };
}

/**
 * Whether a module that does not list a code still has it: no, where it lists the codes that it can set and this one is not
 * among them, or where its software is another than when the code was there. Null where nothing tells.
 */
function stillKnown(module: ScannedModule, software: string | null): boolean | null {
	// Only the list of all that can be set has codes without a single bit.
	if (module.supported.some(({ status }) => status === 0)) return false;
	if (software !== null && module.software !== null && module.software !== software) return false;
	return null;
}

/** On whose word something stands that another tool did, or a hand. */
const wordOf = (by: string, tool?: { tool: string }): string =>
	tool ? `With ${tool.tool}, on the word of ${by}.` : `On the word of ${by}.`;

function scanEvent(
	at: number,
	{ payload, authorName }: EntryOf<'network-scan'>,
	{ address, dtc }: CodeAt,
	software: string | null
): CodeEvent[] {
	const module = payload.modules.find((m) => m.address === address && m.answered);
	if (!module) return [];
	const code = module.codes.find((c) => c.dtc === dtc);
	return [
		{
			at,
			kind: 'read',
			status: statusIn(module, dtc),
			stillKnown: statusIn(module, dtc) === null ? stillKnown(module, software) : true,
			availabilityMask: module.availabilityMask,
			snapshotKmh: code ? snapshotSpeedKmh(code) : null,
			...(payload.otherTool ? { word: wordOf(authorName, payload.otherTool) } : {})
		}
	];
}

/** A code that came back while it was recorded: heard then, whatever its module says later. That it stays away takes a reading. */
function heardEvents(
	at: number,
	{ payload }: EntryOf<'live-recording'>,
	mine: (one: { address: string; dtc: string }) => boolean
): CodeEvent[] {
	return (payload.heard ?? [])
		.filter((one) => mine(one) && tellsOfFault(one.status))
		.map(({ status, kmh }) => ({
			at,
			kind: 'read',
			status,
			availabilityMask: ALL_BITS,
			snapshotKmh: kmh
		}));
}

/** Software of a module when it first told of a code; null where it did not say. */
function softwareThen(entries: readonly Entry[], { address, dtc }: CodeAt): string | null {
	for (const entry of entries) {
		if (entry.kind !== 'network-scan') continue;
		const module = entry.payload.modules.find((one) => one.address === address);
		if (module?.codes.some((one) => one.dtc === dtc)) return module.software;
	}
	return null;
}

function eventsOf(at: number, entry: Entry, code: CodeAt, software: string | null): CodeEvent[] {
	const { address, dtc } = code;
	const mine = (one: { address: string; dtc: string }) => one.address === address && one.dtc === dtc;
	const live = liveOf(entry, code.corner);
	const looked: CodeEvent[] = live ? [{ at, kind: 'live', found: live.found }] : [];
	switch (entry.kind) {
		case 'network-scan':
			return scanEvent(at, entry, code, software);
		case 'repair':
			return [{ at, kind: 'mended' }];
		case 'calibration':
			return restoresCode(entry, address, dtc) ? [{ at, kind: 'mended' }] : [];
		case 'codes-cleared':
			return entry.payload.modules.some((m) => m.address === address && m.outcome === 'cleared')
				? [
						{
							at,
							kind: 'cleared',
							...(entry.payload.otherTool ? { word: wordOf(entry.authorName, entry.payload.otherTool) } : {})
						}
					]
				: [];
		case 'key-cycled':
			return [
				{
					at,
					kind: 'key-cycled',
					...(entry.payload.confirmedBy === 'person' ? { word: wordOf(entry.authorName) } : {})
				}
			];
		case 'proving-drive':
			return [{ at, kind: 'driven' }];
		case 'lamp-check': {
			const bad = entry.payload.lamps.find(({ result }) => result !== 'lit and went out');
			return [{ at, kind: 'lamps', bad: bad ? `The ${bad.lamp} lamp ${bad.result}.` : null }];
		}
		case 'live-recording': {
			const met = entry.payload.conditions?.find(mine);
			return [
				...looked,
				...(met ? [{ at, kind: 'conditions' as const, metS: met.metS }] : []),
				...heardEvents(at, entry, mine)
			];
		}
		case 'proof-waived':
			return mine(entry.payload)
				? [
						{
							at,
							kind: 'waived',
							mark: entry.payload.mark,
							words: `Let go by ${entry.authorName}: ${entry.payload.why}.`
						}
					]
				: [];
		default:
			return looked;
	}
}

/** Whether an event is only of something of ours that was in the way: then it shows nothing of the vehicle, least of all that it is well. */
function isOfOurs(event: CodeEvent, { corner }: CodeAt, wheels: ReadonlySet<string>): boolean {
	if (event.kind === 'driven' || event.kind === 'conditions' || event.kind === 'live') return true;
	const isGood = event.kind === 'read' && (event.status === null || !tellsOfFault(event.status));
	return isGood && (wheels.has(MODULE) || (corner !== null && wheels.has(corner)));
}

/** What happened to one code of one module, in order. @param made the scan after which our own test is over */
export function historyOf(
	entries: readonly Entry[],
	code: CodeAt,
	made: { atScan: number } | null
): CodeEvent[] {
	const software = softwareThen(entries, code);
	const way = inTheWay(entries);
	const story = entries.flatMap((entry, at) => {
		const events = eventsOf(at, entry, code, software);
		const wheels = way.get(entry.id);
		return wheels ? events.filter((event) => !isOfOurs(event, code, wheels)) : events;
	});
	// What our own test set needs no repair: the test is over.
	return made ? [...story, { at: made.atScan + 0.5, kind: 'mended' }] : story;
}

/** Whether its wheel was seen to misbehave in live data before the codes were cleared last. */
export function wasSeenLive(entries: readonly Entry[], corner: CodeAt['corner']): boolean {
	const until = entries.findLastIndex(({ kind }) => kind === 'codes-cleared');
	return undisturbed(entries.slice(0, Math.max(0, until))).some((entry) => liveOf(entry, corner)?.found);
}
