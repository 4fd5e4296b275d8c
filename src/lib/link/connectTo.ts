import { connect, type Socket } from 'node:net';
import { fail, ok, type Result } from '../core/result';
import { trouble, type LinkError } from './vehicleLink';

/** The same whether nothing listens, it is silent, or something else talks: what runs at an address is nobody's business. */
export const NO_VEHICLE = 'No vehicle answers there. Is the interface plugged in and the vehicle awake?';

/** @param address `host:port` */
export function connectTo(address: string, withinMs: number): Promise<Result<Socket, LinkError>> {
	const at = address.lastIndexOf(':');
	const [host, port] = [address.slice(0, at), Number(address.slice(at + 1))];
	return new Promise((resolve) => {
		const socket = connect({ host, port });
		const give = () => {
			clearTimeout(timer);
			socket.destroy();
			resolve(fail(trouble('refused', NO_VEHICLE)));
		};
		const timer = setTimeout(give, withinMs);
		socket.once('connect', () => {
			clearTimeout(timer);
			socket.removeAllListeners('error');
			socket.setNoDelay(true);
			resolve(ok(socket));
		});
		socket.once('error', give);
	});
}
