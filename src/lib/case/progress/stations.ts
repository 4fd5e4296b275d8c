import { openWords } from '../codes/openReason';
import { isReturned, isSettled } from '../../core/prove/proof';
import type { CaseFacts } from '../codes/caseFacts';
import type { RoundResult } from '../entries/wheel-round/payload';
import { isBadBenchTest, isBenchTest } from '../measure/benchTests';
import { isMending, openCalibrations } from '../mend/calibrations';
import { lampHistory } from '../codes/lampTold';
import { latest, ofKind } from '../thread/thread';

export const STATIONS = [
	{ id: 'listen', name: 'Listen' },
	{ id: 'read', name: 'Read' },
	{ id: 'watch', name: 'Watch' },
	{ id: 'measure', name: 'Measure' },
	{ id: 'reason', name: 'Reason' },
	{ id: 'mend', name: 'Mend' },
	{ id: 'prove', name: 'Prove' },
	{ id: 'hand-over', name: 'Hand over' }
] as const;
export type StationId = (typeof STATIONS)[number]['id'];

export interface StationState {
	id: StationId;
	name: string;
	state: 'done' | 'begun' | 'open' | 'bad';
	/** What it still lacks, in a few words. */
	lacks: string | null;
}

const plural = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;

function listen({ entries }: CaseFacts): Omit<StationState, 'id' | 'name'> {
	const missing = [
		latest(entries, 'vehicle-checked') ? null : 'vehicle',
		latest(entries, 'complaint') ? null : 'complaint',
		latest(entries, 'lamps-reported') ? null : 'lamps',
		latest(entries, 'tyres-fitted') ? null : 'tyres'
	].filter((name) => name !== null);
	if (missing.length === 0) return { state: 'done', lacks: null };
	return { state: missing.length === 4 ? 'open' : 'begun', lacks: missing.join(', ') };
}

function read({ entries, lastScan, lastCompleteScan }: CaseFacts): Omit<StationState, 'id' | 'name'> {
	const story = lampHistory(entries);
	if (story) return story.read ? { state: 'done', lacks: null } : { state: 'open', lacks: 'lamp not read' };
	if (!lastScan) return { state: 'open', lacks: 'no scan yet' };
	if (!lastCompleteScan) {
		const { modules, modulesExpected } = lastScan.payload;
		return { state: 'begun', lacks: `${plural(modulesExpected - modules.length, 'module')} unread` };
	}
	const silent = lastCompleteScan.payload.modules.filter((module) => !module.answered).length;
	return { state: 'done', lacks: silent > 0 ? `${silent} silent` : null };
}

function watch({ entries }: CaseFacts): Omit<StationState, 'id' | 'name'> {
	const recordings = ofKind(entries, 'live-recording');
	const rounds = ofKind(entries, 'wheel-round');
	if (recordings.length + rounds.length === 0) return { state: 'open', lacks: null };
	const found = recordings.reduce((sum, { payload }) => sum + payload.findings.length, 0);
	const bad = rounds.flatMap(({ payload }) => payload.corners).filter(isBadCorner).length;
	return { state: 'done', lacks: found + bad > 0 ? plural(found + bad, 'finding') : null };
}

const isBadCorner = ({ result }: { result: RoundResult }) => result !== 'answers' && result !== 'turns-mate';

function measure({ entries }: CaseFacts): Omit<StationState, 'id' | 'name'> {
	const done = entries.filter(isBenchTest);
	if (done.length === 0) return { state: 'open', lacks: null };
	const bad = done.filter(isBadBenchTest).length;
	return { state: 'done', lacks: bad > 0 ? `${bad} out` : null };
}

/** Reasoned to an end: a repair was chosen from what is suspected. Until then the tests done are what there is. */
function reason({ entries, lastCompleteScan }: CaseFacts): Omit<StationState, 'id' | 'name'> {
	if (entries.some(isMending)) return { state: 'done', lacks: null };
	const tested = entries.some(isBenchTest) || ofKind(entries, 'test-step').length > 0;
	return { state: lastCompleteScan && tested ? 'begun' : 'open', lacks: null };
}

function mend({ entries, codes }: CaseFacts): Omit<StationState, 'id' | 'name'> {
	const due = openCalibrations(entries).length;
	if (!entries.some(isMending)) return { state: 'open', lacks: due > 0 ? `${due} due` : null };
	const returned = codes.some((code) => isReturned(code.proof.verdict));
	if (returned) return { state: 'bad', lacks: 'came back' };
	return due > 0 ? { state: 'begun', lacks: `${due} due` } : { state: 'done', lacks: null };
}

function prove(facts: CaseFacts): Omit<StationState, 'id' | 'name'> {
	const { entries, codes, open, lastClear, lastScan } = facts;
	const story = lampHistory(entries);
	const [first] = open;
	const firstWords = first ? openWords(first) : null;
	if (story) {
		if (!story.read || !story.mended) return { state: 'open', lacks: null };
		return open.length === 0 ? { state: 'done', lacks: null } : { state: 'begun', lacks: firstWords };
	}
	if (lastScan && open.length === 0) return { state: 'done', lacks: null };
	const unproven = codes.filter((code) => !isSettled(code.proof.verdict));
	const returned = unproven.some((code) => isReturned(code.proof.verdict));
	const lacks =
		unproven.length > 0 ? `${plural(unproven.length, 'code')} open` : lastClear ? firstWords : null;
	return { state: returned ? 'bad' : lastClear ? 'begun' : 'open', lacks };
}

function handOver(facts: CaseFacts): Omit<StationState, 'id' | 'name'> {
	const { entries, signature, open, lastScan, codes } = facts;
	if (signature) return { state: 'done', lacks: null };
	if ((lastScan ?? lampHistory(entries)?.read) && open.length === 0)
		return { state: 'begun', lacks: 'a lead signs' };
	const waiting = codes.filter((code) => !isSettled(code.proof.verdict)).length;
	return { state: 'open', lacks: waiting > 0 ? `${plural(waiting, 'code')} to go` : null };
}

const JUDGE: Record<StationId, (facts: CaseFacts) => Omit<StationState, 'id' | 'name'>> = {
	listen,
	read,
	watch,
	measure,
	reason,
	mend,
	prove,
	'hand-over': handOver
};

/** The line of stations: how far each one is and what it lacks. */
export function stationLine(facts: CaseFacts): StationState[] {
	return STATIONS.map(({ id, name }) => ({
		id,
		name,
		...JUDGE[id](facts)
	}));
}
