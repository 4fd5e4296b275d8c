import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { vehicleTypes } from '../library';
import { BenchHost } from '../src/lib/bench/net/host';
import { StandInInstruments } from '../src/lib/server/jobs/standInInstruments';

let host: BenchHost;
let instruments: StandInInstruments;

beforeAll(async () => {
	const type = vehicleTypes.get('brindle-marlow-16');
	if (!type) throw new Error('no minibus');
	host = new BenchHost({ type, vin: '11111111111111111', odometerKm: 5, faults: [] });
	host.act({ do: 'key', to: 'on' });
	host.vehicle.advance(4);
	const { panelPort } = await host.start();
	instruments = new StandInInstruments(`127.0.0.1:${panelPort}`);
});
afterAll(() => host.stop());

describe('instruments of a stand-in, over the line', () => {
	it('a meter reads a node', async () => {
		const read = await instruments.read({ mode: 'volts-dc', red: 'battery', black: 'body' });
		expect(read).toMatchObject({ ok: true, value: { value: 12.5, unit: 'V' } });
	});

	it('a capture comes whole, each channel for itself', async () => {
		const taken = await instruments.capture({
			probes: [{ tip: 'battery' }, { tip: 'brake.3' }],
			rateHz: 10_000,
			durationS: 0.1,
			noiseVolts: 0
		});
		if (!taken.ok) throw new Error(taken.error);
		expect(taken.value.channels.map((channel) => channel.length)).toEqual([1000, 1000]);
		expect(taken.value.channels[0]?.every((volts) => Math.abs(volts - 12.5) < 1e-5)).toBe(true);
		expect(taken.value.triggerAtS).toBeNull();
	});

	it('says what was wrong, of a wrong point and of a wrong request', async () => {
		expect(await instruments.read({ mode: 'ohms', red: 'X99.1', black: 'body' })).toEqual({
			ok: false,
			error: 'This vehicle has no point X99.1.'
		});
		const none = await instruments.capture({ probes: [], rateHz: 1000, durationS: 1 });
		expect(none).toMatchObject({ ok: false, error: 'One to 4 probes.' });
		expect(
			await new StandInInstruments('127.0.0.1:1').read({ mode: 'ohms', red: 'a', black: 'b' })
		).toMatchObject({
			ok: false,
			error: 'The simulated vehicle does not answer.'
		});
	});
});
