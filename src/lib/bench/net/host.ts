import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { z } from 'zod';
import { Position, type VehicleType } from '../../../../library';
import { slipsOf } from '../../../../library/reason/repairInduced';
import { faults } from '../../../../library/faults';
import { repairs, type PlaceKind } from '../../../../library/repairs';
import type { BenchFault } from '../faults/benchFault';
import { BenchMeter } from '../instruments/meter';
import { probePoints } from '../instruments/points';
import { BenchScope } from '../instruments/scope';
import { holdSource } from '../instruments/source';
import { DriveLeg, STRAIGHT_DRIVE } from '../motion';
import type { Lamp } from '../modules/monitor';
import { BODY } from '../physics/wiring';
import type { VehicleState } from '../state';
import { BenchVehicle } from '../vehicle';
import { DoipServer } from './doipServer';
import { SlcanServer, type AdapterOptions } from './slcanServer';

const SignalSourceShape = z.discriminatedUnion('kind', [
	z.object({
		kind: z.enum(['sine', 'square']),
		position: z.string(),
		hertz: z.number().min(0),
		volts: z.number().min(0).max(20)
	}),
	z.object({ kind: z.literal('mate'), position: z.string(), from: z.string() }),
	z.object({ kind: z.literal('resistor'), a: z.string(), b: z.string(), ohms: z.number().positive() }),
	z.object({ kind: z.literal('lamp'), a: z.string(), b: z.string() }),
	z.object({ kind: z.literal('jumper'), a: z.string(), b: z.string() })
]);

/** What a person beside the vehicle can do: the stand-in's control panel speaks this over HTTP on loopback. */
export const HandAction = z.discriminatedUnion('do', [
	z.object({ do: z.literal('key'), to: z.enum(['off', 'on']) }),
	z.object({ do: z.literal('spin'), position: Position, kmh: z.number().min(0).max(60) }),
	z.object({ do: z.literal('in-gear'), kmh: z.number().min(0).max(60) }),
	z.object({ do: z.literal('pedal'), pressed: z.boolean() }),
	z.object({
		do: z.literal('drive'),
		rate: z.number().min(1).max(200),
		legs: z.array(DriveLeg).max(200).optional()
	}),
	z.object({ do: z.literal('plug'), in: z.boolean() }),
	/** Opens or closes a plug of the harness: `X20`, `brake`, `rear-left`. */
	z.object({ do: z.literal('connector'), name: z.string(), closed: z.boolean() }),
	z.object({ do: z.literal('wiggle'), at: z.string() }),
	z.object({ do: z.literal('spray'), at: z.string() }),
	z.object({ do: z.literal('warm'), at: z.string() }),
	z.object({ do: z.literal('steer'), degrees: z.number().min(-900).max(900) }),
	/** Bridges the two pins of a test plug, or opens them again. */
	z.object({ do: z.literal('bridge'), closed: z.boolean() }),
	/** Passes a piece of steel before the sensor of a wheel, as many times as said. */
	z.object({ do: z.literal('wave-steel'), position: Position, times: z.number().int().min(1).max(50) }),
	z.object({ do: z.literal('source'), source: SignalSourceShape.nullable() }),
	z.object({
		do: z.literal('mend'),
		at: z.string(),
		repair: z.enum([...repairs.keys()] as [string, ...string[]]),
		/** Faults of the library that the work leaves behind. */
		leaves: z
			.array(z.string().refine((id) => faults.has(id), 'no such fault'))
			.max(10)
			.optional()
	}),
	/** Seconds of the vehicle's clock per second, while it is not driving. */
	z.object({ do: z.literal('clock'), rate: z.number().min(0.01).max(200) })
]);
export type HandAction = z.infer<typeof HandAction>;

/** What the instruments are asked for, on paths of their own: `/meter` and `/scope`. */
const MeterShape = z.object({
	mode: z.enum(['volts-dc', 'volts-ac', 'ohms', 'amps']),
	red: z.string(),
	black: z.string().default(BODY)
});
const ScopeShape = z.object({
	probes: z.array(z.object({ tip: z.string(), clip: z.string().optional() })).max(4),
	rateHz: z.number(),
	durationS: z.number(),
	noiseVolts: z.number().min(0).max(10).optional(),
	trigger: z
		.object({ probe: z.number().int(), volts: z.number(), slope: z.enum(['rising', 'falling']) })
		.optional()
});

export interface PanelState extends VehicleState {
	plugged: boolean;
	/** Places hands can be laid on, by kind. */
	places: Record<PlaceKind, string[]>;
	/** The lamp that tells codes by itself; null where the dash has them all. */
	tellingLamp: Lamp | null;
	/** What can go wrong in a repair, by its id. */
	slips: Record<string, { id: string; name: string }[]>;
}

const SLIPS: PanelState['slips'] = Object.fromEntries(
	[...repairs.keys()].map((id) => [
		id,
		slipsOf(id).map((fault) => ({ id: fault, name: faults.get(fault)?.name ?? fault }))
	])
);

export interface HostOptions {
	type: VehicleType;
	vin: string;
	odometerKm: number;
	faults: BenchFault[];
	seed?: number;
	host?: string;
	/** Ports for diagnostics and for the control panel; 0 lets the system choose. */
	linkPort?: number;
	panelPort?: number;
	/** Port of the CAN adapter on its bus, and how good an adapter it is. */
	canPort?: number;
	adapter?: AdapterOptions;
	/** Seconds of the vehicle's clock per second, while it is not driving. */
	rate?: number;
	/** So long after the last look at it, a vehicle on which nothing goes on has its clock stopped. */
	restsAfterMs?: number;
}

const TICK_MS = 10;
const RESTS_AFTER_MS = 5_000;
const MAX_BODY_BYTES = 4096;

/** One bench vehicle with its clock running and its two ports open. */
export class BenchHost {
	readonly vehicle: BenchVehicle;
	private readonly link: DoipServer;
	private readonly adapter: SlcanServer;
	private readonly panel: Server;
	private clock: NodeJS.Timeout | null = null;
	private open = false;
	private lookedAtMs = 0;
	private plugged = true;
	private driveRate = 1;
	private idleRate: number;
	private readonly meter: BenchMeter;
	private readonly scope: BenchScope;

	constructor(private readonly options: HostOptions) {
		this.vehicle = new BenchVehicle(options);
		this.idleRate = options.rate ?? 1;
		this.meter = new BenchMeter(this.vehicle);
		this.scope = new BenchScope(this.vehicle);
		this.link = new DoipServer(
			this.vehicle,
			parseInt(options.type.gateway, 16),
			() => this.rate,
			() => this.wake()
		);
		this.adapter = new SlcanServer(
			this.vehicle,
			() => this.rate,
			() => this.wake(),
			options.adapter
		);
		this.panel = createServer((request, response) => void this.serve(request, response));
	}

	private get rate(): number {
		return this.vehicle.world.motion.driving ? this.driveRate : this.idleRate;
	}

	async start(): Promise<{ linkPort: number; panelPort: number; canPort: number }> {
		const host = this.options.host ?? '127.0.0.1';
		const linkPort = await this.link.listen(this.options.linkPort ?? 0, host);
		const canPort = await this.adapter.listen(this.options.canPort ?? 0, host);
		const panelPort = await new Promise<number>((resolve, reject) => {
			this.panel.once('error', reject);
			this.panel.listen(this.options.panelPort ?? 0, host, () => {
				const address = this.panel.address();
				resolve(typeof address === 'object' && address ? address.port : 0);
			});
		});
		this.open = true;
		this.wake();
		return { linkPort, panelPort, canPort };
	}

	/** Somebody is there: its clock runs, until nobody has looked for a while and nothing goes on. */
	private wake(): void {
		let last = (this.lookedAtMs = performance.now());
		if (this.clock || !this.open) return;
		this.clock = setInterval(() => {
			const now = performance.now();
			// A machine that slept owes no simulated hours.
			const realS = Math.min(1, (now - last) / 1000);
			last = now;
			this.vehicle.advance(realS * this.rate);
			this.link.sendPeriodic();
			if (
				now - this.lookedAtMs > (this.options.restsAfterMs ?? RESTS_AFTER_MS) &&
				!this.link.busy &&
				!this.adapter.busy &&
				this.vehicle.quiet
			)
				this.rest();
		}, TICK_MS);
	}

	private rest(): void {
		if (this.clock) clearInterval(this.clock);
		this.clock = null;
	}

	/** Whether its clock stands still because nobody looks. */
	get resting(): boolean {
		return this.open && this.clock === null;
	}

	async stop(): Promise<void> {
		this.open = false;
		this.rest();
		this.panel.closeAllConnections();
		await Promise.all([
			this.link.close(),
			this.adapter.close(),
			new Promise((resolve) => this.panel.close(resolve))
		]);
	}

	get state(): PanelState {
		const { harness, wheels, modules } = this.options.type;
		const names = (list: { name: string }[]) => list.map(({ name }) => name);
		return {
			...this.vehicle.state,
			plugged: this.plugged,
			slips: SLIPS,
			tellingLamp: this.tellingLamp,
			places: {
				corner: wheels.map(({ position }) => position),
				module: modules.map(({ role }) => role),
				fuse: names(harness.fuses),
				ground: names(harness.grounds),
				splice: names(harness.splices),
				plug: names(harness.plugs),
				vehicle: ['vehicle']
			}
		};
	}

	private get tellingLamp(): Lamp | null {
		if (this.options.type.tells === 'lamp') return 'anti-lock';
		return this.options.type.modules.some(({ role }) => role === 'trailer-brake') ? 'brake' : null;
	}

	/** Does what a hand would do. The error says why it cannot be done now. */
	act(action: HandAction): string | null {
		this.wake();
		const { vehicle } = this;
		const driving = 'The vehicle is driving: stop first.';
		switch (action.do) {
			case 'key':
				vehicle.turnKey(action.to);
				return null;
			case 'plug':
				this.plugged = action.in;
				this.link.setPlugged(action.in);
				this.adapter.setPlugged(action.in);
				return null;
			case 'spin':
				if (!vehicle.hasWheel(action.position)) return `This vehicle has no wheel ${action.position}.`;
				return vehicle.spin(action.position, action.kmh) ? null : driving;
			case 'in-gear':
				return vehicle.world.motion.runInGear(action.kmh) ? null : driving;
			case 'pedal':
				vehicle.world.motion.footOnPedal = action.pressed;
				return null;
			case 'drive':
				this.driveRate = action.rate;
				return vehicle.drive(action.legs ?? STRAIGHT_DRIVE) ? null : 'The key is off: turn it on first.';
			case 'connector':
				if (vehicle.moves) return driving;
				return vehicle.plug(action.name, action.closed) ? null : `This vehicle has no plug ${action.name}.`;
			case 'wiggle':
				vehicle.wiggle(action.at);
				return null;
			case 'spray':
				vehicle.spray(action.at);
				return null;
			case 'warm':
				vehicle.warm(action.at);
				return null;
			case 'steer':
				if (vehicle.moves) return driving;
				vehicle.steer(action.degrees);
				return null;
			case 'bridge':
				return vehicle.bridge(action.closed) ? null : 'This vehicle has no test plug to bridge.';
			case 'wave-steel':
				if (vehicle.moves) return driving;
				return vehicle.waveSteel(action.position, action.times)
					? null
					: 'Only a passive sensor answers to steel.';
			case 'source': {
				if (vehicle.moves) return driving;
				const held = holdSource(vehicle, action.source);
				return held.ok ? null : held.error;
			}
			case 'mend':
				if (vehicle.moves) return 'The vehicle is moving: stop first.';
				return vehicle.mend(action.at, action.repair, action.leaves)
					? null
					: `This vehicle has no place ${action.at}.`;
			case 'clock':
				this.idleRate = action.rate;
				return null;
		}
	}

	private async serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
		this.wake();
		const reply = (status: number, body: unknown) => {
			response.writeHead(status, { 'content-type': 'application/json' });
			response.end(JSON.stringify(body));
		};
		if (request.method === 'GET') {
			return reply(200, request.url === '/points' ? probePoints(this.options.type) : this.state);
		}
		if (request.method !== 'POST') return reply(405, { error: 'GET tells the state, POST does something.' });
		let body = '';
		for await (const chunk of request) {
			body += chunk;
			if (body.length > MAX_BODY_BYTES) return reply(413, { error: 'Too long.' });
		}
		const asked = parseJson(body);
		switch (request.url) {
			case '/meter': {
				const wanted = MeterShape.safeParse(asked);
				if (!wanted.success) return reply(400, { error: z.prettifyError(wanted.error) });
				const read = this.meter.read(wanted.data);
				return read.ok ? reply(200, read.value) : reply(409, { error: read.error });
			}
			case '/scope':
				return this.serveScope(asked, reply, response);
		}
		const action = HandAction.safeParse(asked);
		if (!action.success) return reply(400, { error: z.prettifyError(action.error) });
		const error = this.act(action.data);
		return error ? reply(409, { error }) : reply(200, this.state);
	}

	/** Samples leave as little-endian 32-bit floats, one channel after the other; what they are stands in the headers. */
	private serveScope(
		asked: unknown,
		reply: (status: number, body: unknown) => void,
		response: ServerResponse
	): void {
		const wanted = ScopeShape.safeParse(asked);
		if (!wanted.success) return reply(400, { error: z.prettifyError(wanted.error) });
		const { trigger, noiseVolts, probes, ...rest } = wanted.data;
		const taken = this.scope.capture({
			...rest,
			probes: probes.map(({ tip, clip }) => (clip === undefined ? { tip } : { tip, clip })),
			...(noiseVolts === undefined ? {} : { noiseVolts }),
			...(trigger ? { trigger } : {})
		});
		if (!taken.ok) return reply(409, { error: taken.error });
		const { rateHz, channels, triggerAtS } = taken.value;
		response.writeHead(200, {
			'content-type': 'application/octet-stream',
			'x-rate-hz': String(rateHz),
			'x-channels': String(channels.length),
			...(triggerAtS === null ? {} : { 'x-trigger-at-s': String(triggerAtS) })
		});
		for (const channel of channels) {
			response.write(Buffer.from(channel.buffer, channel.byteOffset, channel.byteLength));
		}
		response.end();
	}
}

function parseJson(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return undefined;
	}
}
