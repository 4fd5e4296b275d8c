import { beforeEach, describe, expect, it } from 'vitest';
import { vehicleTypes } from '../library';
import { calibrations, placesOf } from '../library/calibrations';
import type { BenchFault } from '../src/lib/bench/faults/benchFault';
import { BenchVehicle } from '../src/lib/bench/vehicle';
import type { CalibrationTried } from '../src/lib/case/entries/calibration/payload';
import { fail, type Result } from '../src/lib/core/result';
import { calibrate } from '../src/lib/server/jobs/calibrate/calibrate';
import type { LinkError } from '../src/lib/link/vehicleLink';
import { DirectLink } from './link';

const type = vehicleTypes.get('brindle-marlow-16');
if (!type) throw new Error('no minibus');
let vehicle: BenchVehicle;

/** The line, with some of the vehicle's time gone at every request. */
class Unhurried extends DirectLink {
	cutAt = Infinity;
	private asked = 0;
	constructor(
		private readonly of: BenchVehicle,
		private readonly seconds: number
	) {
		super(of);
	}
	override async request(address: number, bytes: ArrayLike<number>): Promise<Result<Uint8Array, LinkError>> {
		this.asked += 1;
		if (this.asked > this.cutAt) return fail({ kind: 'closed', text: 'The vehicle closed the connection.' });
		this.of.advance(this.seconds);
		return super.request(address, bytes);
	}
}

function fresh(faults: BenchFault[] = []): void {
	if (!type) return;
	vehicle = new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 5, faults });
	vehicle.turnKey('on');
	vehicle.advance(5);
}
beforeEach(() => fresh());

interface Asked {
	cutAt?: number;
	seconds?: number;
	leaveOut?: string;
	circuitCodes?: string[];
	stopAfter?: number;
}

async function run(id: string, { cutAt, seconds = 0.3, leaveOut, circuitCodes = [], stopAfter }: Asked = {}) {
	const calibration = calibrations.get(id);
	const [placed] = calibration && type ? placesOf(calibration, type) : [];
	if (!calibration || !placed || !type) throw new Error(`no ${id} on this vehicle`);
	const link = new Unhurried(vehicle, seconds);
	if (cutAt !== undefined) link.cutAt = cutAt;
	const said = new Set(calibration.conditions.filter((condition) => condition !== leaveOut));
	const kept: CalibrationTried[] = [];
	let told = 0;
	const tried = await calibrate(
		link,
		{ placed, type, said, circuitCodes },
		{
			tell: () => (told += 1),
			sofar: async (soFar) => void kept.push(soFar),
			cancelled: () => stopAfter !== undefined && told > stopAfter
		}
	);
	return { tried, kept };
}
const done = async (id: string, asked: Asked = {}) => {
	const { tried } = await run(id, asked);
	if (!tried.ok) throw new Error(tried.error);
	return tried.value;
};
const codes = () =>
	[...vehicle.modules.values()].flatMap(({ monitors }) =>
		monitors.filter(({ failing }) => failing).map(({ rule }) => rule.dtc)
	);

describe('a new brake control module', () => {
	it('is coded, taught and driven in, each with what it had before and after; then nothing fails any more', async () => {
		vehicle.mend('brake', 'renew-module');
		vehicle.advance(3);
		expect(codes()).toEqual(expect.arrayContaining(['455055', '413154']));
		// Not coded, it refuses to learn.
		expect(await done('drive-learn')).toMatchObject({
			state: 'failed',
			detail: expect.stringMatching(/refused/)
		});
		const coding = await done('coding');
		expect(coding).toMatchObject({ state: 'done', how: 'link' });
		expect(coding.values.map(({ before, after }) => [before, after])).toEqual([
			[null, 2130],
			[null, 46],
			[null, expect.any(String)]
		]);
		expect((await done('pressure-zero')).values[0]).toMatchObject({ before: null, within: true });
		vehicle.drive([
			{ toKmh: 20, overS: 4 },
			{ toKmh: 20, overS: 6, steeringDeg: 200 },
			{ toKmh: 20, overS: 6, steeringDeg: -200 },
			{ toKmh: 45, overS: 8, steeringDeg: 0 },
			{ toKmh: 45, overS: 20 },
			{ toKmh: 0, overS: 8 },
			{ toKmh: 0, overS: 4 }
		]);
		const learned = await done('drive-learn', { seconds: 0.8 });
		expect(learned).toMatchObject({ state: 'done' });
		expect(learned.values[0]).toMatchObject({ before: null, after: 1, within: true });
		expect(codes()).toEqual([]);
	}, 60_000);
});

describe('a steering angle zero', () => {
	it('that was never reset after a track rod comes back to straight ahead', async () => {
		fresh([{ id: 'steering-angle-off-centre', at: 'steering-angle', severity: 0.5, everyKm: null }]);
		const zeroed = await done('steering-zero');
		expect(zeroed.state).toBe('done');
		const now = zeroed.values.find(({ identifier }) => identifier === 'D110');
		expect(Math.abs(Number(now?.before))).toBeGreaterThan(9);
		expect(Math.abs(Number(now?.after))).toBeLessThan(1);
	});

	it.each<[string, Asked, RegExp]>([
		[
			'nobody says that the wheels are straight',
			{ leaveOut: 'straight' },
			/nobody has confirmed: road wheels straight/
		],
		['an electrical code stands', { circuitCodes: ['C0051-13'] }, /C0051-13 stands in the module/]
	])('is not begun where %s', async (_, asked, words) => {
		const { tried, kept } = await run('steering-zero', asked);
		expect(tried.ok ? '' : tried.error).toMatch(words);
		expect(tried.ok ? '' : tried.error).toMatch(/Nothing was changed/);
		expect(kept).toEqual([]);
	});

	it('is not begun with a weak battery or on the move, with what was read', async () => {
		fresh([{ id: 'battery-weak', at: 'vehicle', severity: 1, everyKm: null }]);
		expect(await run('steering-zero')).toMatchObject({
			tried: { ok: false, error: expect.stringMatching(/supply above 12.2 V.* – read /) }
		});
		fresh();
		vehicle.drive([
			{ toKmh: 30, overS: 3 },
			{ toKmh: 30, overS: 60 }
		]);
		vehicle.advance(5);
		expect(await run('steering-zero')).toMatchObject({
			tried: { ok: false, error: expect.stringMatching(/stands – read /) }
		});
	});

	it('that the line cuts short is written down as cut short, and can be done again', async () => {
		const { tried, kept } = await run('steering-zero', { cutAt: 11 });
		expect(kept).toHaveLength(1);
		expect(tried).toMatchObject({
			ok: true,
			value: { state: 'interrupted', detail: expect.stringMatching(/begin again/) }
		});
		expect((await done('steering-zero')).state).toBe('done');
	});
});

describe('a learning drive', () => {
	it('that is stopped says what it still lacks', async () => {
		const stopped = await done('drive-learn', { stopAfter: 3 });
		expect(stopped).toMatchObject({
			state: 'interrupted',
			detail: expect.stringMatching(/still missing: .*hard turn to the left/)
		});
	});
});
