import { createServer, type Server, type Socket } from 'node:net';
import { linkRoutesOf } from '../../../../library/vehicle/linkRoutes';
import { isToAll, type DiagnosticPair } from '../../core/bus/diagnosticPair';
import { routeOfAddress } from '../../core/can/canRoute';
import { SegmentedChannel } from '../../core/can/segmentedChannel';
import { encodeSlcan, readFrame, SLCAN_SPEEDS, type CanFrame } from '../../core/can/slcan';
import { uniform, type BenchVehicle } from '../vehicle';

/** What a bad adapter does to the frames that come from the vehicle: the share of each that it befalls. */
export interface AdapterFaults {
	drops?: number;
	doubles?: number;
	/** Passed on this many milliseconds late, behind what came after them. */
	late?: number;
	lateMs?: number;
	/** Loses several frames running, and says so in its status. */
	overruns?: number;
	/** A character of the line is another. */
	garbles?: number;
}

export interface AdapterOptions {
	/** Bits a second on the vehicle's bus; at another speed nothing is heard and nothing sent. */
	bitrate?: number;
	faults?: AdapterFaults;
	seed?: number;
	/** How modules want to be sent to. */
	asks?: { blockSize: number; separationMs: number };
	/** Other traffic on the bus, by identifier: sent every 20 ms. */
	traffic?: number[];
}

const USUAL_BITRATE = 500_000;
const TRAFFIC_MS = 20;
const LOST_IN_OVERRUN = 3;
const OVERRUN_FLAG = 0x08;
const LONGEST_LINE = 64;
/** Refusals that a module keeps to itself when everybody was asked (ISO 14229-1, 7.5.5). */
const KEPT_TO_ITSELF = new Set([0x11, 0x12, 0x31, 0x7e, 0x7f]);

interface Plugged {
	socket: Socket;
	held: string;
	speed: number | null;
	open: boolean;
	flags: number;
	toLose: number;
	channels: Map<number, SegmentedChannel>;
}

/**
 * A serial CAN adapter on the vehicle's bus, reached over TCP: speaks the open line protocol, passes frames both ways, and
 * has the modules on the bus answer in segments as ISO 15765-2 says. One tester at a time.
 */
export class SlcanServer {
	private readonly server: Server;
	private readonly routes: Map<number, DiagnosticPair>;
	private readonly random: () => number;
	private plugged: Plugged | null = null;
	private seated = true;
	private traffic: NodeJS.Timeout | null = null;

	constructor(
		private readonly vehicle: BenchVehicle,
		private readonly rate: () => number,
		private readonly onContact: () => void = () => undefined,
		private readonly options: AdapterOptions = {}
	) {
		const told = linkRoutesOf(vehicle.world.type).can;
		this.routes = new Map(
			[...vehicle.modules.keys()].flatMap((address) => {
				const route = told.get(address) ?? routeOfAddress(address);
				return route ? [[address, route] as const] : [];
			})
		);
		this.random = uniform(options.seed ?? 1);
		this.server = createServer((socket) => this.accept(socket));
	}

	listen(port: number, host: string): Promise<number> {
		return new Promise((resolve, reject) => {
			this.server.once('error', reject);
			this.server.listen(port, host, () => {
				const address = this.server.address();
				resolve(typeof address === 'object' && address ? address.port : port);
			});
		});
	}

	close(): Promise<void> {
		this.unplug();
		return new Promise((resolve) => this.server.close(() => resolve()));
	}

	get busy(): boolean {
		return this.plugged !== null;
	}

	/** Pulls or seats the cable: pulled, every connection breaks and none is taken. */
	setPlugged(seated: boolean): void {
		this.seated = seated;
		if (!seated) this.unplug();
	}

	private unplug(): void {
		this.plugged?.socket.destroy();
	}

	private accept(socket: Socket): void {
		if (!this.seated) {
			socket.destroy();
			return;
		}
		this.unplug();
		const plugged: Plugged = {
			socket,
			held: '',
			speed: null,
			open: false,
			flags: 0,
			toLose: 0,
			channels: new Map()
		};
		this.plugged = plugged;
		this.onContact();
		socket.setNoDelay(true);
		socket.on('error', () => socket.destroy());
		socket.on('close', () => {
			for (const channel of plugged.channels.values()) channel.close();
			if (this.plugged !== plugged) return;
			this.plugged = null;
			if (this.traffic) clearInterval(this.traffic);
		});
		socket.on('data', (chunk) => {
			for (const sign of chunk.toString('latin1')) {
				if (sign !== '\r') plugged.held = (plugged.held + sign).slice(0, LONGEST_LINE);
				else {
					const line = plugged.held;
					plugged.held = '';
					this.line(plugged, line);
				}
			}
		});
	}

	private line(plugged: Plugged, line: string): void {
		const say = (text: string) => plugged.socket.write(text, 'latin1');
		const [command = ''] = line;
		switch (command) {
			case 'S': {
				const speed = [...SLCAN_SPEEDS].find(([, name]) => name === line)?.[0];
				if (speed === undefined || plugged.open) return void say('\x07');
				plugged.speed = speed;
				return void say('\r');
			}
			case 'O':
				if (plugged.speed === null || plugged.open) return void say('\x07');
				plugged.open = true;
				this.beginTraffic();
				return void say('\r');
			case 'C':
				if (!plugged.open) return void say('\x07');
				plugged.open = false;
				return void say('\r');
			case 'F':
				say(`F${plugged.flags.toString(16).toUpperCase().padStart(2, '0')}\r`);
				plugged.flags = 0;
				return;
			case 'V':
				return void say('V0101\r');
			case 't':
			case 'T': {
				const frame = plugged.open ? readFrame(line) : null;
				if (!frame) return void say('\x07');
				say(command === 't' ? 'z\r' : 'Z\r');
				if (plugged.speed === (this.options.bitrate ?? USUAL_BITRATE)) this.fromTester(plugged, frame);
				return;
			}
			default:
				return void say('\x07');
		}
	}

	private fromTester(plugged: Plugged, { id, extended, data }: CanFrame): void {
		for (const [address, route] of this.routes) {
			if (route.extended !== extended) continue;
			if (route.request === id) this.channelTo(plugged, address, route).frame(data);
			// Only what fits one frame is asked of everybody.
			else if (isToAll(id, extended) && data[0] !== undefined && data[0] >> 4 === 0)
				this.asked(plugged, address, route, data.slice(1, 1 + data[0]), true);
		}
	}

	private channelTo(plugged: Plugged, address: number, route: DiagnosticPair): SegmentedChannel {
		const known = plugged.channels.get(address);
		if (known) return known;
		const channel = new SegmentedChannel(
			{
				send: (data) => this.toTester(plugged, { id: route.response, extended: route.extended, data }),
				after: (ms, act) => {
					const timer = setTimeout(act, ms);
					return () => clearTimeout(timer);
				},
				nowS: () => performance.now() / 1000,
				message: (bytes) => this.asked(plugged, address, route, bytes, false),
				trouble: () => undefined
			},
			this.options.asks ?? { blockSize: 0, separationMs: 0 }
		);
		plugged.channels.set(address, channel);
		return channel;
	}

	private asked(
		plugged: Plugged,
		address: number,
		route: DiagnosticPair,
		bytes: Uint8Array,
		everybody: boolean
	): void {
		for (const answer of this.vehicle.request(address, bytes) ?? []) {
			if (everybody && answer.bytes[0] === 0x7f && KEPT_TO_ITSELF.has(answer.bytes[2] ?? 0)) continue;
			setTimeout(
				() =>
					plugged.open &&
					this.channelTo(plugged, address, route).transmit(Uint8Array.from(answer.bytes), () => undefined),
				(answer.afterS * 1000) / Math.max(1, this.rate())
			);
		}
	}

	/** A frame from the bus, with what the adapter makes of it. */
	private toTester(plugged: Plugged, frame: CanFrame): void {
		const {
			drops = 0,
			doubles = 0,
			late = 0,
			lateMs = 30,
			overruns = 0,
			garbles = 0
		} = this.options.faults ?? {};
		const line = encodeSlcan(frame);
		const pass = (text = line) => {
			if (plugged.open && !plugged.socket.destroyed) plugged.socket.write(text, 'latin1');
		};
		if (plugged.toLose === 0 && this.random() < overruns) {
			plugged.toLose = LOST_IN_OVERRUN;
			plugged.flags |= OVERRUN_FLAG;
		}
		if (plugged.toLose > 0) {
			plugged.toLose -= 1;
			return;
		}
		if (this.random() < drops) return;
		if (this.random() < garbles) {
			const at = Math.floor(this.random() * (line.length - 1));
			return pass(`${line.slice(0, at)}?${line.slice(at + 1)}`);
		}
		if (this.random() < late) return void setTimeout(pass, lateMs);
		pass();
		if (this.random() < doubles) pass();
	}

	private beginTraffic(): void {
		if (this.traffic) clearInterval(this.traffic);
		this.traffic = null;
		const ids = this.options.traffic ?? [];
		if (ids.length === 0) return;
		let count = 0;
		this.traffic = setInterval(() => {
			count = (count + 1) & 0xff;
			for (const id of ids)
				if (this.plugged?.open)
					this.toTester(this.plugged, {
						id,
						extended: id > 0x7ff,
						data: Uint8Array.of(0x4f, count, 0, count)
					});
		}, TRAFFIC_MS);
	}
}
