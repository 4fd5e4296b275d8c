import { identifiers } from '../../../../../library';
import type { PlacedCalibration } from '../../../../../library/calibrations';
import type { CalibrationTried } from '../../../case/entries/calibration/payload';
import { lowerFirst } from '../../../case/words';
import { fail, ok, type Result } from '../../../core/result';
import type { VehicleLink } from '../../../link/vehicleLink';
import { lookAtConditions } from './conditions';
import { ModuleTalk, Trouble } from './moduleTalk';
import type { CalibrationOrder, CalibrationWatcher } from './order';
import { perform } from './perform';

const EXTENDED_SESSION = [0x10, 0x03];

/**
 * Calibrates one module: looks whether it may be begun, begins it, waits for its end and holds what came of it against its
 * limits. The error says why it was not begun; then nothing was changed. Once it was begun there is always something to
 * write down, also of what was cut short.
 */
export async function calibrate(
	link: VehicleLink,
	order: CalibrationOrder,
	watcher: CalibrationWatcher
): Promise<Result<CalibrationTried>> {
	const { placed } = order;
	const talk = new ModuleTalk(link, parseInt(placed.module.address, 16));
	let conditions: CalibrationTried['conditions'];
	let values: CalibrationTried['values'];
	try {
		watcher.tell('conditions', []);
		await talk.ask(EXTENDED_SESSION);
		conditions = await lookAtConditions(talk, order);
		const [unmet] = conditions.filter(({ state }) => state === 'not-met');
		if (unmet) return fail(`Not begun: ${unmet.value || lowerFirst(unmet.words)}. Nothing was changed.`);
		values = await valuesNow(talk, placed);
	} catch (error) {
		if (error instanceof Trouble) return fail(`${error.message} Nothing was changed.`);
		throw error;
	}
	const tried = (state: CalibrationTried['state'], detail: string): CalibrationTried => ({
		calibration: placed.calibration.id,
		role: placed.module.role,
		address: placed.module.address,
		name: `${placed.calibration.name}, ${lowerFirst(placed.module.name)}`,
		how: 'link',
		state,
		values,
		conditions,
		detail
	});
	await watcher.sofar(
		tried(
			'interrupted',
			'The server stopped while it ran: what the module kept of it is not known. Begin again.'
		)
	);
	try {
		const end = await perform(talk, order, watcher);
		if (end.state !== 'done') return ok(tried(end.state, end.detail));
		values = await valuesAfter(talk, placed, values);
		const out = values.filter(({ within }) => within === false);
		if (out.length === 0) return ok(tried('done', end.detail));
		const told = out
			.map(({ name, after, unit }) => `${name} is ${after ?? 'not there'} ${unit}`.trim())
			.join(', ');
		const beyond = out.flatMap(
			({ identifier }) => placed.calibration.values.find((one) => one.identifier === identifier)?.beyond ?? []
		);
		return ok(
			tried('failed', [`The module says it is done, but ${told}: outside its limits.`, ...beyond].join(' '))
		);
	} catch (error) {
		if (!(error instanceof Trouble)) throw error;
		return ok(
			error.lost
				? tried('interrupted', `${error.message} What the module kept of it is not known: begin again.`)
				: tried('failed', error.message)
		);
	}
}

/** What is read before: what is written, and what must come of it. */
async function valuesNow(
	talk: ModuleTalk,
	{ calibration: { way, values } }: PlacedCalibration
): Promise<CalibrationTried['values']> {
	const ids = way.kind === 'write' ? way.identifiers : values.map(({ identifier }) => identifier);
	const read: CalibrationTried['values'] = [];
	for (const identifier of ids) {
		const rule = identifiers.get(identifier);
		const unit = rule && rule.as !== 'text' ? rule.unit : '';
		const before = await talk.read(identifier);
		read.push({ identifier, name: rule?.name ?? identifier, unit, before, after: null, within: null });
	}
	return read;
}

async function valuesAfter(
	talk: ModuleTalk,
	{ calibration }: PlacedCalibration,
	before: CalibrationTried['values']
): Promise<CalibrationTried['values']> {
	const after: CalibrationTried['values'] = [];
	for (const one of before) {
		const value = await talk.read(one.identifier);
		const limit = calibration.values.find(({ identifier }) => identifier === one.identifier);
		const within = limit ? typeof value === 'number' && value >= limit.low && value <= limit.high : null;
		after.push({ ...one, after: value, within: calibration.way.kind === 'write' ? value !== null : within });
	}
	return after;
}
