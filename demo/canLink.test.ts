import { createServer, type Server, type Socket } from 'node:net';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { vehicleTypes } from '../library';
import { linkRoutesOf } from '../library/vehicle/linkRoutes';
import { newDescription } from '../library/vehicle/newDescription';
import { vehicleTypeOf, type VehicleType } from '../library/vehicle/vehicleType';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { BenchHost } from '../src/lib/bench/net/host';
import type { AdapterOptions } from '../src/lib/bench/net/slcanServer';
import { adapterOverTcp } from '../src/lib/link/adapterPort';
import { CanLink } from '../src/lib/link/canLink';
import { HeavyListener } from '../src/lib/link/heavyBroadcasts';
import { parseLinkAddress } from '../src/lib/link/linkAddress';
import { openLink } from '../src/lib/link/openLink';
import { findModules } from '../src/lib/link/findModules';
import { whoIsThere } from '../src/lib/link/whoIsThere';
import { roleOfModule } from '../library/vehicle/roleOfModule';
import { scanVehicle } from '../src/lib/link/scan';
import type { VehicleLink } from '../src/lib/link/vehicleLink';
import type { NetworkScan } from '../src/lib/case/entries/network-scan/payload';

const closing: (() => unknown)[] = [];
afterAll(async () => {
	for (const close of closing.splice(0).reverse()) await close();
});

const MARLOW = vehicleTypes.get('brindle-marlow-16')!;
const FAULTS = [benchFault('lead-open', 'rear-left'), benchFault('yaw-stuck', 'yaw')];

async function onTheBench(
	type = MARLOW,
	faults = FAULTS,
	adapter: AdapterOptions = {}
): Promise<{ host: BenchHost; can: string; doip: string }> {
	const host = new BenchHost({ type, vin: 'BRM16SCH0P0004183', odometerKm: 50_000, faults, adapter });
	const { canPort, linkPort } = await host.start();
	closing.push(() => host.stop());
	host.act({ do: 'key', to: 'on' });
	host.vehicle.advance(5);
	return { host, can: `slcan://127.0.0.1:${canPort}`, doip: `127.0.0.1:${linkPort}` };
}

const open = (address: string, type?: VehicleType) => {
	const place = parseLinkAddress(address);
	if (!place.ok) throw new Error(place.error);
	return openLink(place.value, type && linkRoutesOf(type));
};

async function linked(address: string, type = MARLOW): Promise<VehicleLink> {
	const link = await open(address, type);
	if (!link.ok) throw new Error(link.error.text);
	closing.push(() => link.value.close());
	return link.value;
}

const scan = (link: VehicleLink, type = MARLOW): Promise<NetworkScan> =>
	scanVehicle(link, type, {
		begins: () => undefined,
		sofar: () => Promise.resolve(),
		cancelled: () => false
	});
/** What a scan says of codes, without how it was said. */
const told = ({ vin, modules }: NetworkScan) => ({
	vin,
	modules: modules.map(({ address, answered, software, codes, supported }) => ({
		address,
		answered,
		software,
		supported,
		codes: codes.map(({ dtc, status }) => ({ dtc, status }))
	}))
});

// Most of it is waiting, so they wait together.
describe.concurrent('a vehicle on CAN', () => {
	it('says the same as over the network, in identifiers of 11 and of 29 bits', async () => {
		for (const id of ['brindle-marlow-16', 'norvane-heath']) {
			const type = vehicleTypes.get(id)!;
			const { can, doip } = await onTheBench(type);
			const overNetwork = await scan(await linked(doip, type), type);
			const overCan = await scan(await linked(can, type), type);
			expect(told(overCan)).toEqual(told(overNetwork));
			expect(overCan.outcome).toBe('complete');
			expect(overCan.modules.some(({ codes }) => codes.length > 0)).toBe(true);
		}
	}, 60_000);

	it('takes what is written in segments, and keeps a session open that would have ended', async () => {
		const { can, doip, host } = await onTheBench(MARLOW, [], { asks: { blockSize: 2, separationMs: 3 } });
		const link = await linked(can);
		const brake = 0x1010;
		const asked = await link.request(brake, [0x10, 0x03]);
		expect(asked).toMatchObject({ ok: true });
		// Longer than S3, on the vehicle's clock, with signs of life in between.
		const session = () => host.vehicle.modules.get(brake)?.session;
		const openedS = host.vehicle.world.timeS;
		await vi.waitUntil(() => host.vehicle.world.timeS > openedS + 6.5, { timeout: 25_000, interval: 100 });
		expect(session()).toBe('extended');
		// Many identifiers at once do not fit one frame.
		const many = [0x22, 0xf1, 0x90, 0xf1, 0x95, 0xf1, 0x90, 0xf1, 0x95];
		expect(await link.request(brake, many)).toEqual(await (await linked(doip)).request(brake, many));
		expect(await link.request(brake, [0x10, 0x01])).toMatchObject({ ok: true });
		expect(session()).toBe('default');
	}, 30_000);

	it('is found by a search, whoever else talks on the bus; and so over the network', async () => {
		const { can, doip } = await onTheBench(MARLOW, [benchFault('module-silent', 'yaw')], {
			traffic: [0x1a0, 0x123, 0x7a8]
		});
		const there = await linked(can).then((link) => link.search());
		// All but the silent one, and nobody who only talks.
		const awake = MARLOW.modules
			.filter(({ role }) => role !== 'yaw')
			.map(({ can: pair = '' }) => parseInt(pair, 16));
		expect(there.ok && there.value.map(({ address }) => address)).toEqual(awake.sort((a, b) => a - b));
		const onNetwork = await linked(doip).then((link) => link.search());
		const all = onNetwork.ok ? onNetwork.value : [];
		expect(all.length).toBe(MARLOW.modules.length);
		expect(all.filter(({ silent }) => silent !== null)).toHaveLength(1);
	}, 60_000);

	it('never tells a wrong code, whatever a bad adapter does: only what broke', async () => {
		const { doip } = await onTheBench();
		const truth = new Map(
			(await scan(await linked(doip))).modules.map(({ address, codes, supported }) => [
				address,
				{
					codes: new Set(codes.map(({ dtc, status }) => `${dtc}/${status}`)),
					supported: supported.map(({ dtc }) => dtc)
				}
			])
		);
		const bad = [
			{ drops: 0.03 },
			{ doubles: 0.05 },
			{ late: 0.05, lateMs: 40 },
			{ overruns: 0.02 },
			{ garbles: 0.04 },
			{ drops: 0.02, doubles: 0.03, late: 0.03, lateMs: 15, garbles: 0.02 }
		];
		const scans = await Promise.all(
			bad.map(async (faults, nth) => {
				const { can } = await onTheBench(MARLOW, FAULTS, { seed: nth + 1, faults });
				return scan(await linked(can));
			})
		);
		for (const { address, codes, supported } of scans.flatMap(({ modules }) => modules)) {
			const known = truth.get(address);
			for (const { dtc, status } of codes) expect(known?.codes).toContain(`${dtc}/${status}`);
			expect(supported.filter(({ dtc }) => !known?.supported.includes(dtc))).toEqual([]);
		}
		// They were bad enough to break something, and it was said.
		const troubles = scans.flatMap(({ modules }) =>
			modules.flatMap(({ exchanges }) => exchanges.flatMap(({ note }) => note ?? []))
		);
		expect(troubles.some((note) => note.includes('Its answer broke'))).toBe(true);
		expect(troubles.some((note) => note.includes('it was overrun and lost frames'))).toBe(true);
	}, 240_000);

	it('does not answer at another speed, and nobody is told what else listens', async () => {
		const { can } = await onTheBench(MARLOW, []);
		const link = await linked(`${can}?kbit=250`);
		expect(await link.request(0x1010, [0x3e, 0])).toMatchObject({ ok: false, error: { kind: 'no-answer' } });
		const nothing = await open('slcan://127.0.0.1:1');
		const web = await peer((socket) => socket.write('HTTP/1.1 400 Bad Request\r\n\r\n'));
		const other = await open(`slcan://${web}`);
		expect(nothing.ok || nothing.error.text).toBe(other.ok || other.error.text);
	}, 30_000);

	it('says of itself what each module is, and that it is there', async () => {
		const { can, doip } = await onTheBench(MARLOW, [benchFault('module-silent', 'yaw')]);
		const watcher = { begins: () => undefined, sofar: () => Promise.resolve(), cancelled: () => false };
		const overCan = await findModules(await linked(can), watcher);
		const overNetwork = await findModules(await linked(doip), watcher);
		if (!overCan.ok || !overNetwork.ok) throw new Error('nothing was found');
		const there = overNetwork.value.modules.filter(({ silent }) => silent === null);
		const says = (modules: typeof there) =>
			modules
				.map(({ name, vin, knows }) => ({ name, vin, knows }))
				.sort((x, y) => ((x.name ?? '') < (y.name ?? '') ? -1 : 1));
		expect(says(overCan.value.modules)).toEqual(says(there));
		const awake = MARLOW.modules.flatMap(({ role }) => (role === 'yaw' ? [] : [role]));
		expect(there.map((module) => roleOfModule(module)).sort()).toEqual(awake.sort());
		expect(there.every(({ volts, tells }) => (volts ?? 0) > 11 && tells.includes('F190'))).toBe(true);
		const [host = '', port = ''] = doip.split(':');
		expect(await whoIsThere([{ host, port: Number(port), network: false }], 400)).toMatchObject([
			{ vin: 'BRM16SCH0P0004183', at: doip }
		]);
	}, 60_000);

	it('that was never seen is known by its answers alone', async () => {
		const made = newDescription({ template: 'car', name: 'Grey saloon' });
		if (!made.ok) throw new Error(made.error);
		const type = vehicleTypeOf(made.value);
		const { can } = await onTheBench(type, []);
		const link = await open(can);
		if (!link.ok) throw new Error(link.error.text);
		closing.push(() => link.value.close());
		const found = await link.value.search();
		expect(found.ok && found.value.length).toBe(type.modules.length);
	}, 30_000);
});

function peer(answer: (socket: Socket, line: string) => void): Promise<string> {
	return new Promise((resolve) => {
		const server: Server = createServer((socket) => {
			socket.on('error', () => undefined);
			socket.on('data', (chunk) => {
				for (const line of chunk.toString('latin1').split('\r').slice(0, -1)) answer(socket, line);
			});
			closing.push(() => socket.destroy());
		});
		closing.push(() => server.close());
		server.listen(0, '127.0.0.1', () => {
			const address = server.address();
			resolve(`127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`);
		});
	});
}

describe.concurrent('a heavy vehicle on CAN', () => {
	/** An adapter that confirms everything, and passes on these lines when former codes are asked for. */
	const heavy = (lines: string[]) =>
		peer((socket, line) => {
			socket.write(line.startsWith('T') ? 'Z\r' : '\r');
			if (line.startsWith('T18EAFFF93CBFE00')) socket.write(lines.map((one) => `${one}\r`).join(''));
		});
	const heard = async (lines: string[]) => {
		const port = await adapterOverTcp(await heavy(lines), 1000);
		const link = port.ok ? await CanLink.open(port.value, { bitrate: 250_000 }) : port;
		if (!link.ok) throw new Error(link.error.text);
		closing.push(() => link.value.close());
		const listener = new HeavyListener(link.value);
		await listener.ask();
		return listener;
	};

	it('tells its active codes by itself and its former ones when it is asked, in one frame and in many', async () => {
		const { broadcasts, broken } = await heard([
			// DM1 of source 0B: SPN 789 FMI 5, once.
			'T18FECA0B804FF15030501FFFF',
			// DM2 in two packets: ten bytes, two codes.
			'T1CECFF0B8200A0002FFCBFE00',
			'T1CEBFF0B80104FF1503050115',
			'T1CEBFF0B802030702FFFFFFFF'
		]);
		expect(broken).toEqual([]);
		expect(
			broadcasts.map(({ source, pgn, codes }) => [source, pgn, codes.map(({ spn, fmi }) => `${spn}/${fmi}`)])
		).toEqual([
			['0B', 65226, ['789/5']],
			['0B', 65227, ['789/5', '789/7']]
		]);
	});

	it('has them on its reading, at the module that tells them', async () => {
		const made = newDescription({ template: 'light-truck', volts: 24 });
		if (!made.ok) throw new Error(made.error);
		const type = vehicleTypeOf({
			...made.value,
			modules: made.value.modules.map((module) =>
				module.role === 'brake' ? { ...module, can: '18DA0BF1:18DAF10B' } : module
			)
		});
		const port = await adapterOverTcp(
			await heavy(['T18FECA0B804FF15030501FFFF', 'T18FECB31804FF15030701FFFF']),
			1000
		);
		const link = port.ok
			? await CanLink.open(port.value, {
					bitrate: 250_000,
					routes: linkRoutesOf(type).can,
					times: { connectMs: 1000, answerMs: 200, pendingMs: 500 }
				})
			: port;
		if (!link.ok) throw new Error(link.error.text);
		closing.push(() => link.value.close());
		const { outcome, modules, stoppedBecause } = await scanVehicle(link.value, type, {
			begins: () => undefined,
			sofar: () => Promise.resolve(),
			cancelled: () => false
		});
		expect([outcome, stoppedBecause]).toEqual(['complete', null]);
		expect(
			modules.map(({ name, answered, codes }) => [
				name,
				answered,
				codes.map(({ dtc, status }) => [dtc, status])
			])
		).toEqual([
			['Brake control', true, [['SPN 789 FMI 5', 0x09]]],
			['Sender 31', true, [['SPN 789 FMI 7', 0x08]]]
		]);
	}, 30_000);

	it('a message that broke makes the reading one in part, and says so', async () => {
		const type = vehicleTypes.get('hexley-drover');
		if (!type) throw new Error('no trailer');
		const port = await adapterOverTcp(await heavy(['T18FECB31804FF1503070104FF']), 1000);
		const link = port.ok
			? await CanLink.open(port.value, {
					bitrate: 250_000,
					times: { connectMs: 1000, answerMs: 200, pendingMs: 500 }
				})
			: port;
		if (!link.ok) throw new Error(link.error.text);
		closing.push(() => link.value.close());
		const { outcome, stoppedBecause } = await scan(link.value, { ...type, volts: 24, modules: [] });
		expect(outcome).toBe('partial');
		expect(stoppedBecause).toMatch(/broke on the way \(18FECB31\): bad length/);
	}, 30_000);

	it('with a packet lost tells that it broke, and no code of it', async () => {
		const { broadcasts, broken } = await heard([
			'T1CECFF0B820110003FFCBFE00',
			'T1CEBFF0B80104FF1503050115',
			'T1CEBFF0B8030702FFFFFFFFFF'
		]);
		expect(broadcasts).toEqual([]);
		expect(broken.map(({ reason }) => reason)).toContain('sequence gap');
	});
});
