import { createServer, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { DoipReader, encodeDoip, PayloadType } from '../core/uds/doip';
import { DoipLink } from './doipLink';
import { linkIsLost } from './vehicleLink';

/** A peer that does whatever a test wants on each chunk it gets. */
const servers: Server[] = [];
const sockets: Socket[] = [];
function peer(onData: (socket: Socket, chunk: Buffer, count: number) => void): Promise<string> {
	return new Promise((resolve) => {
		const server = createServer((socket) => {
			let count = 0;
			sockets.push(socket);
			socket.on('error', () => undefined);
			socket.on('data', (chunk) => onData(socket, chunk, count++));
		});
		servers.push(server);
		server.listen(0, '127.0.0.1', () => {
			const address = server.address();
			resolve(`127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`);
		});
	});
}
afterEach(() => {
	for (const socket of sockets.splice(0)) socket.destroy();
	for (const server of servers.splice(0)) server.close();
});

const ACTIVATED = encodeDoip(PayloadType.routingActivationResponse, [0x0e, 0x80, 0x10, 0, 0x10, 0, 0, 0, 0]);
const fromModule = (...bytes: number[]) =>
	encodeDoip(PayloadType.diagnosticMessage, [0x10, 0x10, 0x0e, 0x80, ...bytes]);
const QUICK = { connectMs: 1000, answerMs: 500, pendingMs: 2000 };

async function linkTo(answers: (socket: Socket) => void) {
	const address = await peer((socket, _chunk, count) => {
		if (count === 0) socket.write(ACTIVATED);
		else answers(socket);
	});
	const link = await DoipLink.open(address, QUICK);
	if (!link.ok) throw new Error(link.error.text);
	return link.value;
}

describe('the link to a vehicle', () => {
	it('says that nothing is there, when nothing listens', async () => {
		const gone = await peer(() => undefined);
		servers.pop()?.close();
		const link = await DoipLink.open(gone, QUICK);
		expect(link).toMatchObject({ ok: false, error: { kind: 'refused' } });
	});

	it('notices that what answers is no vehicle', async () => {
		const web = await peer((socket) => socket.write('HTTP/1.1 400 Bad Request\r\n\r\n'));
		expect(await DoipLink.open(web, QUICK)).toMatchObject({ ok: false, error: { kind: 'garbage' } });
	});

	it('notices a vehicle that never opens its network', async () => {
		const deaf = await peer(() => undefined);
		expect(await DoipLink.open(deaf, QUICK)).toMatchObject({ ok: false, error: { kind: 'denied' } });
	});

	it('waits through "still working" and takes what follows', async () => {
		const link = await linkTo((socket) => {
			socket.write(fromModule(0x7f, 0x14, 0x78));
			setTimeout(() => socket.write(fromModule(0x54)), QUICK.answerMs + 100);
		});
		expect(await link.request(0x1010, [0x14, 0xff, 0xff, 0xff])).toEqual({
			ok: true,
			value: Uint8Array.from([0x54])
		});
	});

	it('passes over answers to another service and from another module', async () => {
		const link = await linkTo((socket) => {
			socket.write(fromModule(0x62, 0xf1, 0x90));
			socket.write(encodeDoip(PayloadType.diagnosticMessage, [0x20, 0x20, 0x0e, 0x80, 0x7e, 0]));
			socket.write(fromModule(0x7e, 0x00));
		});
		expect(await link.request(0x1010, [0x3e, 0])).toEqual({ ok: true, value: Uint8Array.from([0x7e, 0]) });
	});

	it('gives up on a module that never answers, and keeps the line', async () => {
		let asked = 0;
		const link = await linkTo((socket) => {
			if (asked++ > 0) socket.write(fromModule(0x7e, 0));
		});
		const silent = await link.request(0x1010, [0x3e, 0]);
		expect(silent).toMatchObject({ ok: false, error: { kind: 'no-answer' } });
		expect(!silent.ok && linkIsLost(silent.error)).toBe(false);
		expect((await link.request(0x1010, [0x3e, 0])).ok).toBe(true);
	});

	it('takes an answer that arrived while this process was busy, though its time is over', async () => {
		const link = await linkTo((socket) => {
			socket.write(fromModule(0x7e, 0));
			const until = Date.now() + QUICK.answerMs + 50;
			while (Date.now() < until);
		});
		expect((await link.request(0x1010, [0x3e, 0])).ok).toBe(true);
	});

	it('does not take a late answer about one code for the answer about another', async () => {
		const link = await linkTo((socket) => {
			socket.write(fromModule(0x59, 0x06, 0x50, 0x1f, 0x13, 0x2f, 0x01, 0x05));
			socket.write(fromModule(0x59, 0x06, 0x50, 0x20, 0x13, 0x2f, 0x01, 0x09));
		});
		const answer = await link.request(0x1010, [0x19, 0x06, 0x50, 0x20, 0x13, 0xff]);
		expect(answer.ok && [...answer.value].slice(3, 5)).toEqual([0x20, 0x13]);
	});

	it('says so when the line is cut in the middle of an answer', async () => {
		const link = await linkTo((socket) => {
			socket.write(fromModule(0x59, 0x02, 0xff, 0x40).slice(0, 11));
			socket.end();
		});
		const answer = await link.request(0x1010, [0x19, 2, 0xff]);
		expect(answer).toMatchObject({ ok: false, error: { kind: 'closed' } });
		expect(!answer.ok && linkIsLost(answer.error)).toBe(true);
	});

	it('drops the line on garbage', async () => {
		const link = await linkTo((socket) => socket.write(Buffer.alloc(32, 0xee)));
		expect(await link.request(0x1010, [0x3e, 0])).toMatchObject({ ok: false, error: { kind: 'garbage' } });
		expect(await link.request(0x1010, [0x3e, 0])).toMatchObject({ ok: false, error: { kind: 'garbage' } });
	});

	it('answers an alive check by itself', async () => {
		const got = new Promise<number[]>((resolve) => {
			void peer((socket, chunk, count) => {
				if (count === 0)
					socket.write(Buffer.concat([ACTIVATED, encodeDoip(PayloadType.aliveCheckRequest, [])]));
				else resolve([...chunk]);
			}).then((address) => DoipLink.open(address, QUICK));
		});
		expect(await got).toEqual([0x02, 0xfd, 0, 8, 0, 0, 0, 2, 0x0e, 0x80]);
	});

	it('finds who is there behind a gateway that says nothing of addresses it does not know', async () => {
		const address = await peer((socket, chunk, count) => {
			if (count === 0) return void socket.write(ACTIVATED);
			for (const { payload } of new DoipReader().push(chunk).messages) {
				const target = ((payload[2] ?? 0) << 8) | (payload[3] ?? 0);
				const from = [payload[2] ?? 0, payload[3] ?? 0, 0x0e, 0x80];
				if (target === 0x0001 || target === 0x1010 || target === 0x1fff)
					socket.write(encodeDoip(PayloadType.diagnosticMessage, [...from, 0x7e, 0]));
				// Taken, and nobody answers.
				if (target === 0x1234) socket.write(encodeDoip(PayloadType.diagnosticAck, [...from, 0]));
			}
		});
		const link = await DoipLink.open(address, { ...QUICK, answerMs: 100 });
		if (!link.ok) throw new Error(link.error.text);
		expect(await link.value.search()).toEqual({
			ok: true,
			value: [
				{ address: 0x0001, silent: null },
				{ address: 0x1010, silent: null },
				{ address: 0x1234, silent: 'The module did not answer.' },
				{ address: 0x1fff, silent: null }
			]
		});
	}, 60_000);
});
