import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { vehicleTypes } from '../library';
import { newDescription } from '../library/vehicle/newDescription';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { BenchHost } from '../src/lib/bench/net/host';
import { WrongUsage } from './command';
import { runCommand } from './run.fixture';
import { scan } from './scan';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-scan-'));
const host = new BenchHost({
	type: vehicleTypes.get('norvane-heath')!,
	vin: 'NVHTHAM20P0000001',
	odometerKm: 30_000,
	faults: [benchFault('lead-open', 'rear-left'), benchFault('module-silent', 'yaw')]
});
let ports: Awaited<ReturnType<BenchHost['start']>>;
beforeAll(async () => {
	ports = await host.start();
	host.act({ do: 'key', to: 'on' });
	host.vehicle.advance(5);
});
afterAll(async () => {
	await host.stop();
	rmSync(folder, { recursive: true });
});

interface Scanned {
	link: string;
	modules: { requestId: string; responseId: string; codes: { code: string; failureTypeByte: string }[] }[];
	silent: { address: string; reason: string }[];
}
const scanned = async (...args: string[]): Promise<Scanned> => {
	const { status, out, err } = await runCommand(scan, [...args, '--json']);
	expect([status, err]).toEqual([0, '']);
	return JSON.parse(out) as Scanned;
};
const codesOf = ({ modules }: Scanned) =>
	modules.map(({ codes }) => codes.map(({ code, failureTypeByte }) => `${code}-${failureTypeByte}`).sort());

describe('jaldi scan', () => {
	it('reads the same over the network and over CAN, of a vehicle that it knows', async () => {
		const vehicle = ['--vehicle', 'library/vehicles/norvane-heath.json'];
		const network = await scanned(`tcp://127.0.0.1:${ports.linkPort}`, ...vehicle);
		const can = await scanned(`slcan://127.0.0.1:${ports.canPort}`, ...vehicle);
		expect([network.link, can.link]).toEqual(['doip', 'can']);
		expect(codesOf(can)).toEqual(codesOf(network));
		expect(codesOf(can).flat()).toContain('C0045-13');
		expect(can.modules[0]).toMatchObject({ requestId: '18DA10F1', responseId: '18DAF110' });
		expect(network.silent).toMatchObject([{ address: '0E2C' }]);
		expect(can.silent).toMatchObject([{ address: '18DA13F1', reason: 'The module did not answer.' }]);
	}, 60_000);

	it('searches the modules where there is no description, or one in which the addresses are only assumed', async () => {
		const made = newDescription({ template: 'van' });
		if (!made.ok) throw new Error(made.error);
		const file = join(folder, 'van.json');
		writeFileSync(file, JSON.stringify(made.value));
		const [unknown, assumed] = [
			await scanned(`tcp://127.0.0.1:${ports.linkPort}`),
			await scanned(`tcp://127.0.0.1:${ports.linkPort}`, '--vehicle', file)
		];
		expect(assumed).toEqual(unknown);
		expect(unknown.modules).toHaveLength(8);
		expect(unknown.silent).toMatchObject([
			{ address: '0E2C', reason: expect.stringContaining('cannot reach') }
		]);
	}, 60_000);

	it('says what is wrong: nothing there, another speed, no address, a bad description', async () => {
		const nothing = await runCommand(scan, ['slcan://127.0.0.1:1']);
		expect([nothing.status, nothing.err]).toEqual([1, expect.stringContaining('No vehicle answers there')]);
		const slow = await runCommand(scan, [`slcan://127.0.0.1:${ports.canPort}`, '--bitrate', '125000']);
		expect([slow.status, slow.err]).toEqual([1, expect.stringContaining('at 125 kbit/s')]);
		for (const args of [
			[],
			['http://127.0.0.1:80'],
			['127.0.0.1'],
			['tcp://127.0.0.1:99999'],
			['slcan://h:1', '--bitrate', '7']
		])
			await expect(runCommand(scan, args), args.join(' ')).rejects.toThrow(WrongUsage);
		const file = join(folder, 'bad.json');
		writeFileSync(file, '{ "wheels": [] }');
		const bad = await runCommand(scan, [`tcp://127.0.0.1:${ports.linkPort}`, '--vehicle', file]);
		expect([bad.status, bad.err]).toEqual([1, expect.stringContaining('wheels')]);
	}, 60_000);
});
