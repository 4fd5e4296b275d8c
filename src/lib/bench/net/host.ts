import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { z } from 'zod';
import { Position, type VehicleType } from '../../../../library';
import { REPAIRS, type BenchFault } from '../faults';
import { STRAIGHT_DRIVE } from '../motion';
import { BenchVehicle, type VehicleState } from '../vehicle';
import { DoipServer } from './doipServer';

/** What a person beside the vehicle can do: the stand-in's control panel speaks this over HTTP on loopback. */
export const HandAction = z.discriminatedUnion('do', [
	z.object({ do: z.literal('key'), to: z.enum(['off', 'on']) }),
	z.object({ do: z.literal('spin'), position: Position, kmh: z.number().min(0).max(60) }),
	z.object({ do: z.literal('drive'), rate: z.number().min(1).max(200) }),
	z.object({ do: z.literal('plug'), in: z.boolean() }),
	z.object({ do: z.literal('mend'), position: Position, action: z.enum(REPAIRS) })
]);
export type HandAction = z.infer<typeof HandAction>;

export type PanelState = VehicleState & { plugged: boolean };

export interface HostOptions {
	type: VehicleType;
	vin: string;
	odometerKm: number;
	faults: BenchFault[];
	host?: string;
	/** Ports for diagnostics and for the control panel; 0 lets the system choose. */
	linkPort?: number;
	panelPort?: number;
	/** Seconds of the vehicle's clock per second, while it is not driving. */
	rate?: number;
}

const TICK_MS = 10;
const MAX_BODY_BYTES = 4096;

/** One bench vehicle with its clock running and its two ports open. */
export class BenchHost {
	readonly vehicle: BenchVehicle;
	private readonly link: DoipServer;
	private readonly panel: Server;
	private clock: NodeJS.Timeout | null = null;
	private plugged = true;
	private driveRate = 1;
	private readonly idleRate: number;

	constructor(private readonly options: HostOptions) {
		this.vehicle = new BenchVehicle(options);
		this.idleRate = options.rate ?? 1;
		this.link = new DoipServer(this.vehicle, parseInt(options.type.gateway, 16), () => this.rate);
		this.panel = createServer((request, response) => void this.serve(request, response));
	}

	private get rate(): number {
		return this.vehicle.world.motion.driving ? this.driveRate : this.idleRate;
	}

	async start(): Promise<{ linkPort: number; panelPort: number }> {
		const host = this.options.host ?? '127.0.0.1';
		const linkPort = await this.link.listen(this.options.linkPort ?? 0, host);
		const panelPort = await new Promise<number>((resolve, reject) => {
			this.panel.once('error', reject);
			this.panel.listen(this.options.panelPort ?? 0, host, () => {
				const address = this.panel.address();
				resolve(typeof address === 'object' && address ? address.port : 0);
			});
		});
		let last = performance.now();
		this.clock = setInterval(() => {
			const now = performance.now();
			// A machine that slept owes no simulated hours.
			const realS = Math.min(1, (now - last) / 1000);
			last = now;
			this.vehicle.advance(realS * this.rate);
		}, TICK_MS);
		return { linkPort, panelPort };
	}

	async stop(): Promise<void> {
		if (this.clock) clearInterval(this.clock);
		this.panel.closeAllConnections();
		await Promise.all([this.link.close(), new Promise((resolve) => this.panel.close(resolve))]);
	}

	get state(): PanelState {
		return { ...this.vehicle.state, plugged: this.plugged };
	}

	/** Does what a hand would do. The error says why it cannot be done now. */
	act(action: HandAction): string | null {
		switch (action.do) {
			case 'key':
				this.vehicle.turnKey(action.to);
				return null;
			case 'plug':
				this.plugged = action.in;
				this.link.setPlugged(action.in);
				return null;
			case 'spin':
				return this.vehicle.spin(action.position, action.kmh) ? null : 'The vehicle is driving: stop first.';
			case 'drive':
				this.driveRate = action.rate;
				return this.vehicle.drive(STRAIGHT_DRIVE) ? null : 'The key is off: turn it on first.';
			case 'mend':
				if (this.vehicle.world.motion.speedMps > 0) return 'The vehicle is moving: stop first.';
				this.vehicle.mend(action.position, action.action);
				return null;
		}
	}

	private async serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
		const reply = (status: number, body: unknown) => {
			response.writeHead(status, { 'content-type': 'application/json' });
			response.end(JSON.stringify(body));
		};
		if (request.method === 'GET') return reply(200, this.state);
		if (request.method !== 'POST') return reply(405, { error: 'GET tells the state, POST does something.' });
		let body = '';
		for await (const chunk of request) {
			body += chunk;
			if (body.length > MAX_BODY_BYTES) return reply(413, { error: 'Too long.' });
		}
		const action = HandAction.safeParse(parseJson(body));
		if (!action.success) return reply(400, { error: z.prettifyError(action.error) });
		const error = this.act(action.data);
		return error ? reply(409, { error }) : reply(200, this.state);
	}
}

function parseJson(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return undefined;
	}
}
