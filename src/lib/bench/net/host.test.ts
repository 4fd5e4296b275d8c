import { connect } from 'node:net';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { DoipReader, encodeDiagnostic, encodeDoip, PayloadType, type DoipMessage } from '../../core/uds/doip';
import { BenchHost } from './host';

const hosts: BenchHost[] = [];
async function start(options: { restsAfterMs?: number } = {}) {
	const type = vehicleTypes.get('brindle-marlow-16');
	if (!type) throw new Error('the minibus is missing from the library');
	const host = new BenchHost({ type, vin: '11111111111111111', odometerKm: 5, faults: [], ...options });
	hosts.push(host);
	host.act({ do: 'key', to: 'on' });
	host.vehicle.advance(1);
	return { host, ...(await host.start()) };
}
afterEach(async () => {
	for (const host of hosts.splice(0)) await host.stop();
});

/** Sends bytes and gathers what comes back until enough messages came or the vehicle hangs up. */
function talk(
	port: number,
	sends: Uint8Array[],
	wanted: number
): Promise<{ messages: DoipMessage[]; closed: boolean }> {
	return new Promise((resolve) => {
		const socket = connect(port, '127.0.0.1');
		const reader = new DoipReader();
		const messages: DoipMessage[] = [];
		const done = (closed: boolean) => {
			socket.destroy();
			resolve({ messages, closed });
		};
		socket.on('connect', () => sends.forEach((bytes) => socket.write(bytes)));
		socket.on('data', (chunk) => {
			messages.push(...reader.push(chunk).messages);
			if (messages.length >= wanted) done(false);
		});
		socket.on('error', () => undefined);
		socket.on('close', () => done(true));
	});
}

const activation = (source = 0x0e80, type = 0) =>
	encodeDoip(PayloadType.routingActivationRequest, [source >> 8, source & 0xff, type, 0, 0, 0, 0]);
const bytesOf = (message: DoipMessage | undefined) => [...(message?.payload ?? [])];

describe('a vehicle that nobody looks at', () => {
	const state = async (port: number) =>
		(await (await fetch(`http://127.0.0.1:${port}/`)).json()) as { key: string };

	it('has its clock stopped, and goes on as it was when somebody comes', async () => {
		const { host, linkPort, panelPort } = await start({ restsAfterMs: 40 });
		await vi.waitFor(() => expect(host.resting).toBe(true), { interval: 5 });
		const atS = host.vehicle.world.timeS;
		expect((await state(panelPort)).key).toBe('on');
		await vi.waitFor(() => expect(host.vehicle.world.timeS).toBeGreaterThan(atS), { interval: 5 });
		await vi.waitFor(() => expect(host.resting).toBe(true), { interval: 5 });
		// A tester that is connected is somebody.
		const tester = connect(linkPort, '127.0.0.1');
		await vi.waitFor(() => expect(host.resting).toBe(false), { interval: 5 });
		const sinceS = host.vehicle.world.timeS;
		await vi.waitFor(() => expect(host.vehicle.world.timeS).toBeGreaterThan(sinceS + 0.1), { interval: 5 });
		expect(host.resting).toBe(false);
		tester.destroy();
		await vi.waitFor(() => expect(host.resting).toBe(true), { interval: 5 });
	});

	it.each([
		['a wheel turns', { do: 'spin', position: 'rear-left', kmh: 10 }],
		['a drive goes on', { do: 'drive', rate: 1 }],
		['the driven wheels turn in gear', { do: 'in-gear', kmh: 10 }]
	] as const)('does not rest while %s', async (_, action) => {
		const { host } = await start({ restsAfterMs: 1 });
		expect(host.act(action)).toBeNull();
		const atS = host.vehicle.world.timeS;
		await vi.waitFor(() => expect(host.vehicle.world.timeS).toBeGreaterThan(atS + 0.3), { interval: 5 });
		expect(host.resting).toBe(false);
	});
});

describe('the vehicle on the wire', () => {
	it('activates routing, acknowledges and answers', async () => {
		const { linkPort } = await start();
		const { messages } = await talk(linkPort, [activation(), encodeDiagnostic(0x0e80, 0x1010, [0x3e, 0])], 3);
		expect(messages.map((m) => m.type)).toEqual([0x0006, 0x8002, 0x8001]);
		expect(bytesOf(messages[0])).toEqual([0x0e, 0x80, 0x10, 0x00, 0x10, 0, 0, 0, 0]);
		expect(bytesOf(messages[1])).toEqual([0x10, 0x10, 0x0e, 0x80, 0x00]);
		expect(bytesOf(messages[2])).toEqual([0x10, 0x10, 0x0e, 0x80, 0x7e, 0x00]);
	});

	it('refuses a tester address outside the range, and an unknown activation type', async () => {
		const { linkPort } = await start();
		const stranger = await talk(linkPort, [activation(0x1234)], 9);
		expect(bytesOf(stranger.messages[0])[4]).toBe(0x00);
		expect(stranger.closed).toBe(true);
		expect(bytesOf((await talk(linkPort, [activation(0x0e80, 0x55)], 9)).messages[0])[4]).toBe(0x06);
	});

	it('refuses diagnostics before activation, and names unknown and unreachable modules', async () => {
		const { host, linkPort } = await start();
		const early = await talk(linkPort, [encodeDiagnostic(0x0e80, 0x1010, [0x3e, 0])], 9);
		expect(bytesOf(early.messages[0])).toEqual([0x10, 0x10, 0x0e, 0x80, 0x02]);
		const unknown = await talk(linkPort, [activation(), encodeDiagnostic(0x0e80, 0x7777, [0x3e, 0])], 2);
		expect(bytesOf(unknown.messages[1])[4]).toBe(0x03);
		host.act({ do: 'key', to: 'off' });
		const asleep = await talk(linkPort, [activation(0x0e81), encodeDiagnostic(0x0e81, 0x1010, [0x3e, 0])], 2);
		expect(bytesOf(asleep.messages[1])[4]).toBe(0x06);
	});

	it('answers an alive check, and gives a second tester with the same address only what the first has left', async () => {
		const { linkPort } = await start();
		const alive = await talk(linkPort, [encodeDoip(PayloadType.aliveCheckRequest, [])], 1);
		expect(bytesOf(alive.messages[0])).toEqual([0x10, 0x00]);
		const first = connect(linkPort, '127.0.0.1');
		first.on('error', () => undefined);
		const activated = new Promise((resolve) => first.once('data', resolve));
		first.write(activation());
		await activated;
		first.once('data', () => first.write(encodeDoip(PayloadType.aliveCheckResponse, [0x0e, 0x80])));
		const second = await talk(linkPort, [activation()], 9);
		expect(bytesOf(second.messages[0])[4]).toBe(0x03);
		first.destroy();
	});

	it('answers garbage with a header refusal and hangs up, and goes on serving others', async () => {
		const { linkPort } = await start();
		const garbage = await talk(linkPort, [Buffer.from('GET / HTTP/1.1\r\nHost: x\r\n\r\n')], 9);
		expect(garbage.messages.map((m) => [m.type, ...m.payload])).toEqual([[0, 0]]);
		expect(garbage.closed).toBe(true);
		const cut = await talk(linkPort, [encodeDoip(PayloadType.routingActivationRequest, [1, 2])], 9);
		expect(bytesOf(cut.messages[0])).toEqual([0x04]);
		expect((await talk(linkPort, [activation()], 1)).messages).toHaveLength(1);
	});

	it('serves two hundred testers at once, with another thirty that connect and say nothing', async () => {
		const { linkPort } = await start();
		const halfOpen = Array.from({ length: 30 }, () => {
			const socket = connect(linkPort, '127.0.0.1');
			socket.on('error', () => undefined);
			// Half a header, and never the rest.
			socket.write(activation().slice(0, 5));
			return socket;
		});
		const talks = Array.from({ length: 200 }, (_, i) => {
			const source = 0x0e00 + i;
			return talk(linkPort, [activation(source), encodeDiagnostic(source, 0x1010, [0x22, 0xf1, 0x90])], 3);
		});
		for (const { messages } of await Promise.all(talks)) expect(messages[2]?.payload.length).toBe(4 + 3 + 17);
		// It hangs up on those that never activate (ISO 13400-2: two seconds).
		await Promise.all(halfOpen.map((socket) => new Promise((resolve) => socket.once('close', resolve))));
	});

	it('sends periodic values to the tester that asked for them', async () => {
		const { host, linkPort } = await start();
		host.act({ do: 'spin', position: 'front-left', kmh: 20 });
		const { messages } = await talk(
			linkPort,
			[
				activation(),
				encodeDiagnostic(0x0e80, 0x1010, [0x10, 0x03]),
				encodeDiagnostic(0x0e80, 0x1010, [0x2a, 0x03, 0x01])
			],
			12
		);
		const values = messages.filter(({ type, payload }) => type === 0x8001 && payload[4] === 0x01);
		expect(values.length).toBeGreaterThan(3);
		for (const { payload } of values) expect(payload).toHaveLength(4 + 3);
	});

	it('breaks every line when the plug is pulled', async () => {
		const { host, linkPort } = await start();
		const line = talk(linkPort, [activation()], 9);
		await talk(linkPort, [activation(0x0e90)], 1);
		host.act({ do: 'plug', in: false });
		expect((await line).closed).toBe(true);
		expect((await talk(linkPort, [activation()], 1)).messages).toHaveLength(0);
	});

	it('takes hands at the control panel, each with the reason when it cannot be', async () => {
		const { host, panelPort } = await start();
		const post = async (body: object) => {
			const response = await fetch(`http://127.0.0.1:${panelPort}`, {
				method: 'POST',
				body: JSON.stringify(body)
			});
			return { status: response.status, body: (await response.json()) as Record<string, unknown> };
		};
		expect((await post({ do: 'connector', name: 'X21', closed: false })).body['open']).toEqual(['X21']);
		expect((await post({ do: 'connector', name: 'X99', closed: false })).body['error']).toMatch(
			/no plug X99/
		);
		expect((await post({ do: 'in-gear', kmh: 8 })).body['lifted']).toBe(true);
		expect((await post({ do: 'in-gear', kmh: 0 })).status).toBe(200);
		expect((await post({ do: 'pedal', pressed: true })).status).toBe(200);
		expect((await post({ do: 'wiggle', at: 'rear-left' })).status).toBe(200);
		expect((await post({ do: 'spray', at: 'G2' })).status).toBe(200);
		expect((await post({ do: 'warm', at: 'rear-left' })).status).toBe(200);
		expect((await post({ do: 'steer', degrees: 400 })).status).toBe(200);
		expect((await post({ do: 'steer', degrees: 4000 })).status).toBe(400);
		expect((await post({ do: 'wave-steel', position: 'rear-left', times: 3 })).body['error']).toMatch(
			/passive/
		);
		expect(
			(await post({ do: 'source', source: { kind: 'jumper', a: 'G1', b: 'nowhere' } })).body['error']
		).toMatch(/nowhere/);
		expect(
			(await post({ do: 'source', source: { kind: 'resistor', a: 'G1', b: 'body', ohms: 100 } })).status
		).toBe(200);
		expect((await post({ do: 'source', source: null })).status).toBe(200);
		expect((await post({ do: 'mend', at: 'Z1', repair: 'renew-fuse' })).body['error']).toMatch(/no place Z1/);
		expect((await post({ do: 'mend', at: 'F14', repair: 'pray' })).status).toBe(400);
		expect((await post({ do: 'spin', position: 'axle1-left', kmh: 5 })).body['error']).toMatch(
			/no wheel axle1-left/
		);
		const points = (await (await fetch(`http://127.0.0.1:${panelPort}/points`)).json()) as { node: string }[];
		expect(points.map(({ node }) => node)).toContain('X21.1:b');
		expect(host.vehicle.faults).toEqual([]);
	});

	it('its clock can run slower than life, and much faster', async () => {
		const { host } = await start();
		const passed = async (rate: number) => {
			host.act({ do: 'clock', rate });
			const [began, from] = [performance.now(), host.state.timeS];
			await vi.waitUntil(() => host.state.timeS > from + 0.05, { timeout: 15_000, interval: 5 });
			return (host.state.timeS - from) / ((performance.now() - began) / 1000);
		};
		expect(await passed(0.1)).toBeLessThan(0.5);
		expect(await passed(50)).toBeGreaterThan(2);
	});

	it('refuses wrong words at the control panel with what was expected', async () => {
		const { panelPort } = await start();
		const post = (body: string) => fetch(`http://127.0.0.1:${panelPort}`, { method: 'POST', body });
		expect((await post('{"do":"fly"}')).status).toBe(400);
		expect((await post('not json')).status).toBe(400);
		expect((await post('x'.repeat(10_000))).status).toBe(413);
		expect((await post('{"do":"spin","position":"rear-left","kmh":12}')).status).toBe(200);
		await post('{"do":"drive","rate":1}');
		expect((await post('{"do":"spin","position":"rear-left","kmh":12}')).status).toBe(409);
	});
});
