import { createServer, type Server, type Socket } from 'node:net';
import { encodeDoip, PayloadType } from '../src/lib/core/uds/doip';

const ACTIVATED = encodeDoip(PayloadType.routingActivationResponse, [0x0e, 0x80, 0x10, 0, 0x10, 0, 0, 0, 0]);

/** Something that listens like a vehicle and answers each message as told; `count` is 0 for the first after activation. */
export async function stranger(answer: (socket: Socket, message: Buffer, count: number) => void) {
	const server: Server = createServer((socket) => {
		let count = -1;
		socket.on('error', () => undefined);
		socket.on('data', (chunk) => {
			if (count === -1) socket.write(ACTIVATED);
			else answer(socket, chunk, count);
			count++;
		});
	});
	await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
	const address = server.address();
	return { server, link: `127.0.0.1:${typeof address === 'object' && address ? address.port : 0}` };
}
/** An answer of the module that was asked. */
export const reply = (asked: Buffer, ...bytes: number[]) =>
	encodeDoip(PayloadType.diagnosticMessage, [...asked.subarray(10, 12), ...asked.subarray(8, 10), ...bytes]);
