import { readdir } from 'node:fs/promises';
import { fail, ok, type Result } from '../core/result';
import { connectTo, NO_VEHICLE } from './connectTo';
import { trouble, type LinkError } from './vehicleLink';

/** A way to an adapter: text out, bytes in. */
export interface AdapterPort {
	write(text: string): void;
	onData(take: (chunk: Uint8Array) => void): void;
	onClose(act: () => void): void;
	close(): void;
}

/** An adapter on the network. @param address `host:port` */
export async function adapterOverTcp(
	address: string,
	withinMs: number
): Promise<Result<AdapterPort, LinkError>> {
	const socket = await connectTo(address, withinMs);
	if (!socket.ok) return socket;
	const { value } = socket;
	value.on('error', () => undefined);
	return ok({
		write: (text) => value.write(text, 'latin1'),
		onData: (take) => value.on('data', take),
		onClose: (act) => value.on('close', act),
		// What was said last still goes out: an adapter that is left open takes no other speed.
		close: () => value.destroySoon()
	});
}

/** What adapters of this kind take over USB; those that have no speed of their own pass over it. */
const SERIAL_BAUD = 115_200;

const isAdapterName = (name: string): boolean => /^tty(ACM|USB)\d+$/.test(name);

/** Serial devices that are plugged in at this machine now, by their paths; none where the system does not tell. */
export async function serialDevices(): Promise<string[]> {
	const { SerialPort } = await import('serialport');
	// The package asks a service that a container need not have; there the names that the kernel gives such devices tell.
	return SerialPort.list().then(
		(ports) => ports.map(({ path }) => path),
		async () => (await readdir('/dev').catch(() => [])).filter(isAdapterName).map((name) => `/dev/${name}`)
	);
}

/** An adapter at a serial device of this machine. @param path such as `/dev/ttyACM0` */
export async function adapterOverSerial(path: string): Promise<Result<AdapterPort, LinkError>> {
	const { SerialPort } = await import('serialport');
	const port = new SerialPort({ path, baudRate: SERIAL_BAUD, autoOpen: false });
	const error = await new Promise<Error | null>((resolve) => port.open(resolve));
	if (error) return fail(trouble('refused', NO_VEHICLE));
	port.on('error', () => undefined);
	return ok({
		write: (text) => port.write(text, 'latin1'),
		onData: (take) => port.on('data', take),
		onClose: (act) => port.on('close', act),
		close: () => port.drain(() => port.close(() => undefined))
	});
}
