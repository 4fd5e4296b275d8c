import { describe, expect, it } from 'vitest';
import { fittingSheets } from '../library/fittingSheets';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { codesOf, MINIBUS, valueOf, vehicleOf } from '../src/lib/bench/bench.fixture';
import { STRAIGHT_DRIVE } from '../src/lib/bench/motion';
import type { BenchVehicle } from '../src/lib/bench/vehicle';
import type { Fitting } from '../src/lib/case/entries/fitting/payload';
import { leftByFitting } from '../src/lib/case/mend/fittings';

/** A sheet with every step as it should be, but for those named. */
function sheetOf(id: string, ...undone: string[]): Fitting {
	const sheet = fittingSheets.get(id);
	if (!sheet) throw new Error(`no sheet ${id}`);
	return {
		sheet: id,
		name: sheet.name,
		place: 'rear-left',
		acknowledged: ['stands'],
		part: { number: '', fits: 'yes', missing: [], damage: '', photos: [] },
		steps: sheet.steps.map(({ id: step, words }) => ({
			id: step,
			words,
			state: undone.includes(step) ? ('open' as const) : ('done' as const),
			value: null,
			unit: '',
			within: null,
			note: ''
		}))
	};
}
function drive(vehicle: BenchVehicle): void {
	vehicle.drive(STRAIGHT_DRIVE);
	vehicle.advance(STRAIGHT_DRIVE.reduce((sum, leg) => sum + leg.overS, 2));
}
/** Lets every module forget, drives it, and reads brake control. */
function codesAfterDrive(vehicle: BenchVehicle): string[] {
	for (const module of vehicle.modules.values()) module.clear(null);
	drive(vehicle);
	return codesOf(vehicle).brake ?? [];
}

describe('work acts on the bench vehicle, right or wrong', () => {
	it('what is not right on a sheet says what it leaves; a sheet that is whole leaves nothing', () => {
		expect(leftByFitting(sheetOf('hub'))).toEqual([]);
		expect(leftByFitting(sheetOf('hub', 'side'))).toEqual(['encoder-reversed']);
		expect(leftByFitting(sheetOf('sensor', 'clips', 'lock', 'plug'))).toEqual([
			'lead-pulled-tight',
			'sensor-pin-pushed-back'
		]);
		const wrongPart = sheetOf('sensor');
		wrongPart.part.fits = 'no';
		expect(leftByFitting(wrongPart)).toEqual(['sensor-wrong-part']);
		const runsOut = sheetOf('hub');
		runsOut.steps = runsOut.steps.map((step) => (step.id === 'run-out' ? { ...step, within: false } : step));
		expect(leftByFitting(runsOut)).toEqual(['ring-run-out']);
		const gapNotMeasured = sheetOf('sensor');
		gapNotMeasured.steps = gapNotMeasured.steps.map((step) =>
			step.id === 'gap' ? { ...step, state: 'left-out' } : step
		);
		expect(leftByFitting(gapNotMeasured)).toEqual([]);
	});

	it('a hub whose magnetic side faces away leaves its wheel at zero; turned round, it reads again', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('ring-tooth-missing', 'rear-left'));
		vehicle.mend('rear-left', 'renew-hub', leftByFitting(sheetOf('hub', 'side')));
		expect(codesAfterDrive(vehicle).length).toBeGreaterThan(0);
		vehicle.drive([
			{ toKmh: 40, overS: 8 },
			{ toKmh: 40, overS: 10 }
		]);
		vehicle.advance(14);
		expect(valueOf(vehicle, 'brake', 'D103') ?? 0).toBeLessThan(2);
		vehicle.advance(20);
		vehicle.mend('rear-left', 'renew-hub');
		expect(codesAfterDrive(vehicle)).toEqual([]);
	});

	it('a good sensor renewed changes nothing; what was wrong is there again', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('lead-open', 'rear-left'));
		drive(vehicle);
		const before = codesOf(vehicle).brake;
		vehicle.mend('rear-left', 'renew-sensor');
		expect(codesAfterDrive(vehicle)).toEqual(before);
	});

	it('a sensor whose lead hangs out of its clips mends the sensor, and lets go every few kilometres', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('sensor-dead', 'front-left'));
		vehicle.mend('front-left', 'renew-sensor', leftByFitting(sheetOf('sensor', 'clips')));
		expect(vehicle.faults.map(({ id, at }) => [id, at])).toEqual([['lead-pulled-tight', 'front-left']]);
		for (let i = 0; i < 10; i++) drive(vehicle);
		const codes = codesOf(vehicle).brake ?? [];
		expect(codes.every((code) => code.startsWith('4035')) && codes.length > 0, codes.join()).toBe(true);
	});

	it('a module renewed for one dead input has to be coded and taught as any other', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('module-input-dead', 'rear-left'));
		vehicle.mend('rear-left', 'renew-module');
		vehicle.advance(4);
		expect(codesOf(vehicle).brake).toContain('455055');
		vehicle.mend('rear-left', 'code-module');
		vehicle.mend('rear-left', 'calibrate');
		expect(codesAfterDrive(vehicle)).toEqual([]);
	});

	it('a module with its hydraulic unit cures what the module alone cures', () => {
		const vehicle = vehicleOf(MINIBUS, benchFault('module-internal', 'brake'));
		vehicle.mend('brake', 'renew-unit');
		expect(vehicle.faults).toEqual([]);
		vehicle.advance(4);
		expect(codesOf(vehicle).brake).toContain('455055');
	});

	it('a track rod renewed leaves the steering angle beside its middle, until it is taught', () => {
		const vehicle = vehicleOf(MINIBUS);
		vehicle.mend('vehicle', 'renew-track-rod');
		vehicle.mend('vehicle', 'renew-track-rod');
		expect(vehicle.faults.map(({ id, at }) => [id, at])).toEqual([
			['steering-angle-off-centre', 'steering-angle']
		]);
		vehicle.advance(1);
		expect(Math.abs(valueOf(vehicle, 'brake', 'D110') ?? 0)).toBeGreaterThan(9);
		vehicle.mend('steering-angle', 'calibrate');
		vehicle.advance(1);
		expect(Math.abs(valueOf(vehicle, 'brake', 'D110') ?? 99)).toBeLessThan(1);
	});
});
