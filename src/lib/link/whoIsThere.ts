import { createSocket } from 'node:dgram';
import { encodeDoip, PayloadType, readAnnouncement, type Announcement } from '../core/uds/doip';

/** A vehicle that said that it is there. */
export interface Vehicle extends Announcement {
	/** `host:port` of its network. */
	at: string;
}

/** A vehicle answers within half a second (ISO 13400-2, A_DoIP_Announce_Wait), and a network is slower than that. */
const ANSWER_MS = 800;
const MOST_VEHICLES = 50;

/**
 * Asks who is there by datagrams (ISO 13400-2, vehicle identification). What answers from elsewhere than where it was asked
 * is passed over, except on a network's broadcast address.
 *
 * @param places `host:port` each; the host may be a network's broadcast address
 */
export function whoIsThere(
	places: readonly { host: string; port: number; network: boolean }[],
	forMs = ANSWER_MS
): Promise<Vehicle[]> {
	return new Promise((resolve) => {
		const found = new Map<string, Vehicle>();
		const socket = createSocket('udp4');
		const hosts = new Set(places.map(({ host }) => host));
		const anywhere = places.some(({ network }) => network);
		const settle = () => {
			clearTimeout(timer);
			socket.close();
			resolve([...found.values()].sort((a, b) => (a.at < b.at ? -1 : 1)));
		};
		const timer = setTimeout(settle, forMs);
		socket.on('error', () => undefined);
		socket.on('message', (datagram, { address, port }) => {
			const told = readAnnouncement(datagram);
			if (told && (anywhere || hosts.has(address)) && found.size < MOST_VEHICLES)
				found.set(`${address}:${port}`, { ...told, at: `${address}:${port}` });
		});
		socket.bind(0, () => {
			socket.setBroadcast(true);
			const question = encodeDoip(PayloadType.identificationRequest, []);
			// A host that cannot be reached has no vehicle: that is an answer too.
			for (const { host, port } of places) socket.send(question, port, host, () => undefined);
		});
	});
}
