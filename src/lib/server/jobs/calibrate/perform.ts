import { setTimeout as pause } from 'node:timers/promises';
import { identifiers } from '../../../../../library';
import { codingOf, type PlacedCalibration } from '../../../../../library/calibrations';
import type { CalibrationTried } from '../../../case/entries/calibration/payload';
import { lowerFirst } from '../../../case/words';
import { cover, isComplete, isCovered, noCoverage } from '../../../core/calibrate/learningDrive';
import { encodeIdentifier } from '../../../core/uds/identifierValue';
import { numberBytes, Trouble, type ModuleTalk } from './moduleTalk';
import type { CalibrationOrder, CalibrationWatcher } from './order';

const POLL_MS = 250;
const LONGEST_DRIVE_MS = 30 * 60_000;
const RUNNING = 0x00;
const GOOD = 0x01;
const bytesOf = (raw: string): number[] => raw.match(/../g)?.map((pair) => parseInt(pair, 16)) ?? [];

interface End {
	state: CalibrationTried['state'];
	detail: string;
}

/** Does it, each in its way. Throws {@link Trouble} where the module refuses or the line is lost. */
export function perform(
	talk: ModuleTalk,
	order: CalibrationOrder,
	watcher: CalibrationWatcher
): Promise<End> {
	const { way, name } = order.placed.calibration;
	switch (way.kind) {
		case 'write':
			return writeCoding(talk, order, way.identifiers, watcher);
		case 'routine':
			return runRoutine(talk, name, way.routine, way.mostS, watcher);
		case 'drive':
			return driveToLearn(talk, way, watcher);
		case 'hand':
			throw new RangeError(`${name} is not done through the link`);
	}
}

async function writeCoding(
	talk: ModuleTalk,
	{ type }: CalibrationOrder,
	ids: readonly string[],
	watcher: CalibrationWatcher
): Promise<End> {
	// Nothing is written into a module that is only usual on such a vehicle.
	if (type.assumed.length > 0)
		throw new Trouble(
			'What this module is to be coded with is not known of this vehicle: code it by the maker’s procedure.',
			false
		);
	const wanted = codingOf(type);
	await talk.unlock();
	const done: { name: string; note: string }[] = [];
	for (const id of ids) {
		const rule = identifiers.get(id);
		const value = wanted[id];
		if (!rule || value === undefined)
			throw new Trouble(`Nobody knows what ${id} is to be on this vehicle.`, false);
		watcher.tell(rule.name, [...done]);
		await talk.ask([0x2e, ...numberBytes(id), ...bytesOf(encodeIdentifier(rule, value))]);
		const kept = await talk.read(id);
		if (String(kept).trim() !== String(value).trim())
			return {
				state: 'failed',
				detail: `${rule.name} was written as ${value} and reads ${kept ?? 'nothing'}.`
			};
		done.push({ name: rule.name, note: String(kept) });
	}
	watcher.tell('', done);
	return { state: 'done', detail: 'Written and read back.' };
}

async function runRoutine(
	talk: ModuleTalk,
	name: string,
	routine: string,
	mostS: number,
	watcher: CalibrationWatcher
): Promise<End> {
	const began = Date.now();
	await talk.routine('start', routine);
	for (;;) {
		const answer = await talk.routine('result', routine);
		const state = answer[4] ?? RUNNING;
		if (state === GOOD) return { state: 'done', detail: '' };
		if (state !== RUNNING) return { state: 'failed', detail: 'The module ended it without success.' };
		const s = (Date.now() - began) / 1000;
		if (s > mostS) {
			await talk.routine('stop', routine);
			return { state: 'failed', detail: `The module did not come to an end within ${mostS} s.` };
		}
		watcher.tell(`${lowerFirst(name)}, ${s.toFixed(0)} s`, []);
		await pause(POLL_MS);
	}
}

type DriveWay = Extract<PlacedCalibration['calibration']['way'], { kind: 'drive' }>;

/** The module learns by itself on the move; what it still wants to see is followed beside it. */
async function driveToLearn(
	talk: ModuleTalk,
	{ routine, phases }: DriveWay,
	watcher: CalibrationWatcher
): Promise<End> {
	let coverage = noCoverage(phases);
	const began = Date.now();
	let last = began;
	const notes = () =>
		phases.map((phase) => ({
			name: phase.words,
			note: isCovered(phase, coverage) ? 'done' : `${(coverage[phase.id] ?? 0).toFixed(0)} of ${phase.forS} s`
		}));
	await talk.routine('start', routine);
	for (;;) {
		const speed = await talk.read('F40D');
		const steering = await talk.read('D110');
		const now = Date.now();
		if (typeof speed === 'number') {
			const angle = typeof steering === 'number' ? steering : null;
			coverage = cover(phases, coverage, (now - last) / 1000, speed, angle);
			watcher.tell(`${speed.toFixed(0)} km/h${angle === null ? '' : `, ${angle.toFixed(0)}°`}`, notes());
		}
		last = now;
		const state = (await talk.routine('result', routine))[4] ?? RUNNING;
		if (state === GOOD)
			return { state: 'done', detail: `Learned after ${((now - began) / 1000).toFixed(0)} s.` };
		if (state !== RUNNING) return { state: 'failed', detail: 'The module ended it without success.' };
		const missing = phases
			.filter((phase) => !isCovered(phase, coverage))
			.map(({ words }) => lowerFirst(words));
		if (watcher.cancelled() || now - began > LONGEST_DRIVE_MS) {
			await talk.routine('stop', routine);
			const rest = isComplete(phases, coverage)
				? 'the module was not content'
				: `still missing: ${missing.join(', ')}`;
			return { state: 'interrupted', detail: `The drive was stopped; ${rest}.` };
		}
		await pause(POLL_MS);
	}
}
