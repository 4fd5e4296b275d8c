import { createSocket, type Socket as Datagrams } from 'node:dgram';
import { createServer, type Server, type Socket } from 'node:net';
import {
	DiagnosticNack,
	DoipReader,
	encodeAnnouncement,
	encodeDoip,
	HeaderNack,
	PayloadType,
	readWord,
	RoutingCode,
	word,
	type DoipMessage
} from '../../core/uds/doip';
import type { BenchVehicle } from '../vehicle';

/** ISO 13400-2 timers, in milliseconds. */
const INITIAL_INACTIVITY_MS = 2_000;
const GENERAL_INACTIVITY_MS = 300_000;
const ALIVE_CHECK_MS = 500;
const MAX_CLIENTS = 250;
const SOURCE_ACTIVE_ELSEWHERE = 0x03;
const READ_PERIODICALLY = 0x2a;

interface Client {
	socket: Socket;
	reader: DoipReader;
	/** The tester's address once routing is active. */
	source: number | null;
	aliveAnswer: (() => void) | null;
}

/**
 * The vehicle's side of diagnostics over TCP: routing activation, diagnostic messages with their acks, alive check.
 * Whatever arrives, the vehicle answers as the standard says or closes; it never falls over.
 */
export class DoipServer {
	private readonly server: Server;
	private readonly clients = new Set<Client>();
	private readonly datagrams: Datagrams = createSocket('udp4');
	private plugged = true;
	/** Who has asked each module to send by itself. */
	private readonly periodicTo = new Map<number, Client>();

	constructor(
		private readonly vehicle: BenchVehicle,
		private readonly entityAddress: number,
		/** Seconds of the vehicle's clock per second of the world's. */
		private readonly rate: () => number,
		/** Called whenever a tester connects. */
		private readonly onContact: () => void = () => undefined
	) {
		this.server = createServer((socket) => this.accept(socket));
		this.server.maxConnections = MAX_CLIENTS;
	}

	async listen(port: number, host: string): Promise<number> {
		const taken = await new Promise<number>((resolve, reject) => {
			this.server.once('error', reject);
			this.server.listen(port, host, () => {
				const address = this.server.address();
				resolve(typeof address === 'object' && address ? address.port : port);
			});
		});
		await this.answerWhoIsThere(taken, host);
		return taken;
	}

	/** Who is there is asked by datagrams, on the same port; whoever has it already answers in our stead. */
	private answerWhoIsThere(port: number, host: string): Promise<void> {
		this.datagrams.on('message', (datagram, { address, port: from }) => {
			const { messages } = new DoipReader().push(datagram);
			if (!this.plugged || messages[0]?.type !== PayloadType.identificationRequest) return;
			const entity = this.entityAddress.toString(16).padStart(12, '0');
			const told = { vin: this.vehicle.world.vin, address: this.entityAddress, entity };
			this.datagrams.send(encodeAnnouncement(told), from, address);
		});
		return new Promise((resolve) => {
			this.datagrams.once('error', () => resolve());
			this.datagrams.bind(port, host, resolve);
		});
	}

	close(): Promise<void> {
		for (const client of this.clients) client.socket.destroy();
		this.datagrams.close();
		return new Promise((resolve) => this.server.close(() => resolve()));
	}

	/** Pulls or seats the diagnostic plug: pulled, every connection breaks at once and none is taken. */
	setPlugged(plugged: boolean): void {
		this.plugged = plugged;
		if (!plugged) for (const client of this.clients) client.socket.destroy();
	}

	/** Whether a tester is connected. */
	get busy(): boolean {
		return this.clients.size > 0;
	}

	/** Sends what modules have to say by themselves to whoever asked them to. */
	sendPeriodic(): void {
		for (const { address, bytes } of this.vehicle.takePeriodic()) {
			const client = this.periodicTo.get(address);
			if (client?.source == null) continue;
			this.send(client, PayloadType.diagnosticMessage, [...word(address), ...word(client.source), ...bytes]);
		}
	}

	private accept(socket: Socket): void {
		if (!this.plugged) {
			socket.destroy();
			return;
		}
		const client: Client = { socket, reader: new DoipReader(), source: null, aliveAnswer: null };
		this.clients.add(client);
		this.onContact();
		socket.setNoDelay(true);
		socket.setTimeout(INITIAL_INACTIVITY_MS, () => socket.destroy());
		socket.on('error', () => socket.destroy());
		socket.on('close', () => this.clients.delete(client));
		socket.on('data', (chunk) => {
			const { messages, error } = client.reader.push(chunk);
			for (const message of messages) this.receive(client, message);
			if (error) {
				this.send(client, PayloadType.headerNack, [error.nack]);
				socket.end();
			}
		});
	}

	private send(client: Client, type: number, payload: number[]): void {
		if (!client.socket.destroyed) client.socket.write(encodeDoip(type, payload));
	}

	private receive(client: Client, { type, payload }: DoipMessage): void {
		switch (type) {
			case PayloadType.routingActivationRequest:
				return this.activate(client, payload);
			case PayloadType.aliveCheckResponse:
				client.aliveAnswer?.();
				return;
			case PayloadType.aliveCheckRequest:
				return this.send(client, PayloadType.aliveCheckResponse, word(this.entityAddress));
			case PayloadType.diagnosticMessage:
				return this.diagnose(client, payload);
			default:
				return this.send(client, PayloadType.headerNack, [HeaderNack.unknownType]);
		}
	}

	private activate(client: Client, payload: Uint8Array): void {
		if (payload.length !== 7 && payload.length !== 11) {
			this.send(client, PayloadType.headerNack, [HeaderNack.invalidLength]);
			client.socket.end();
			return;
		}
		const source = readWord(payload, 0);
		const respond = (code: number) => {
			this.send(client, PayloadType.routingActivationResponse, [
				...word(source),
				...word(this.entityAddress),
				code,
				0,
				0,
				0,
				0
			]);
			if (code !== RoutingCode.activated) client.socket.end();
		};
		// External test equipment has addresses 0E00–0FFF.
		if (source < 0x0e00 || source > 0x0fff) return respond(RoutingCode.unknownSource);
		if (payload[2] !== 0x00) return respond(RoutingCode.unsupportedType);
		const elsewhere = [...this.clients].find((other) => other !== client && other.source === source);
		const accept = () => {
			client.source = source;
			client.socket.setTimeout(GENERAL_INACTIVITY_MS, () => client.socket.destroy());
			respond(RoutingCode.activated);
		};
		if (!elsewhere) return accept();
		this.aliveCheck(elsewhere, (alive) => {
			if (alive) return respond(SOURCE_ACTIVE_ELSEWHERE);
			elsewhere.socket.destroy();
			accept();
		});
	}

	private aliveCheck(client: Client, done: (alive: boolean) => void): void {
		const settle = (alive: boolean) => {
			clearTimeout(timer);
			client.aliveAnswer = null;
			done(alive);
		};
		const timer = setTimeout(() => settle(false), ALIVE_CHECK_MS);
		client.aliveAnswer = () => settle(true);
		this.send(client, PayloadType.aliveCheckRequest, []);
	}

	private diagnose(client: Client, payload: Uint8Array): void {
		if (payload.length < 5) {
			this.send(client, PayloadType.headerNack, [HeaderNack.invalidLength]);
			client.socket.end();
			return;
		}
		const [source, target] = [readWord(payload, 0), readWord(payload, 2)];
		const back = [...word(target), ...word(source)];
		const nack = (code: number) => this.send(client, PayloadType.diagnosticNack, [...back, code]);
		if (client.source === null || source !== client.source) {
			nack(DiagnosticNack.invalidSource);
			if (client.source === null) client.socket.end();
			return;
		}
		if (!this.vehicle.modules.has(target)) return nack(DiagnosticNack.unknownTarget);
		const request = payload.slice(4);
		const answers = this.vehicle.request(target, request);
		if (answers === null) return nack(DiagnosticNack.unreachable);
		if (request[0] === READ_PERIODICALLY) this.periodicTo.set(target, client);
		this.send(client, PayloadType.diagnosticAck, [...back, 0x00]);
		for (const { afterS, bytes } of answers) {
			setTimeout(
				() => this.send(client, PayloadType.diagnosticMessage, [...back, ...bytes]),
				(afterS * 1000) / Math.max(1, this.rate())
			);
		}
	}
}
