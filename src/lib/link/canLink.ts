import { HeavyListener } from './heavyBroadcasts';
import type { DiagnosticPair } from '../core/bus/diagnosticPair';
import type { CanFrame } from '../core/can/slcan';
import { encodeSlcan, flagsText, SLCAN_SPEEDS, SlcanReader, type SlcanEvent } from '../core/can/slcan';
import { routeOfAddress } from '../core/can/canRoute';
import { SegmentedChannel } from '../core/can/segmentedChannel';
import { fail, ok, type Result } from '../core/result';
import type { AdapterPort } from './adapterPort';
import { awaitAnswer } from './awaitAnswer';
import { searchCan } from './canSearch';
import { NO_VEHICLE } from './connectTo';
import {
	LINK_TIMES,
	trouble,
	type FoundModule,
	type LinkError,
	type LinkTimes,
	type VehicleLink,
	type ToldToAll
} from './vehicleLink';
import { WaitingLine } from './waitingLine';

export interface CanLinkOptions {
	/** Bits a second on the bus. */
	bitrate: number;
	/** Identifiers of modules by their address, where the address itself does not say them. */
	routes?: ReadonlyMap<number, DiagnosticPair>;
	times?: LinkTimes;
}

/** How we want to be sent to: few frames at a time, so that a slow adapter keeps up. */
const ASKS = { blockSize: 8, separationMs: 1 };
const COMMAND_MS = 400;
/** A session other than the default is kept open by a sign of life in less than S3 of ISO 14229-2 (5 s). */
const KEEP_ALIVE_MS = 2000;
const STILL_HERE = Uint8Array.from([0x02, 0x3e, 0x80, 0xcc, 0xcc, 0xcc, 0xcc, 0xcc]);
/** After an answer that broke, nothing is asked until its line was silent for so long: what comes late is not taken for an answer. */
const SETTLE_MS = 80;
const LONGEST_SETTLE_MS = 1500;
const SESSION_CONTROL = 0x10;
const RESET = 0x11;
const DEFAULT_SESSION = 0x01;

interface Conversation {
	route: DiagnosticPair;
	channel: SegmentedChannel;
	inbox: WaitingLine<Uint8Array>;
	lastFrameMs: number;
	unsettled: boolean;
	/** Whether a session is open that ends without a sign of life. */
	wantsKeeping: boolean;
	keepAlive: NodeJS.Timeout | null;
}

const keyOf = (id: number, extended: boolean) => (extended ? 0x20000000 : 0) + id;
const delay = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Diagnostics on CAN (ISO 15765-2 with normal addressing of 11 and 29 bits) through an adapter that speaks the open line
 * protocol of serial CAN adapters, as a {@link VehicleLink}.
 */
export class CanLink implements VehicleLink {
	readonly over = 'can';
	private readonly lines = new SlcanReader();
	private readonly said = new WaitingLine<SlcanEvent>();
	private readonly byAddress = new Map<number, Conversation>();
	private readonly byResponse = new Map<number, Conversation>();
	private readonly listeners = new Set<(frame: CanFrame) => void>();
	/** The conversation whose answer is waited for. */
	private current: Conversation | null = null;
	/** Whether the adapter was asked something: what it says of frames that went out is of no account otherwise. */
	private commanding = false;
	private readonly times: LinkTimes;

	private constructor(
		private readonly port: AdapterPort,
		private readonly options: CanLinkOptions
	) {
		this.times = options.times ?? LINK_TIMES;
		port.onData((chunk) => this.take(chunk));
		port.onClose(() => this.lose(trouble('closed', 'The adapter closed the connection.')));
	}

	/** Sets the adapter's speed and opens its channel. */
	static async open(port: AdapterPort, options: CanLinkOptions): Promise<Result<CanLink, LinkError>> {
		const link = new CanLink(port, options);
		const opened = await link.start();
		if (opened.ok) return ok(link);
		link.close();
		return opened;
	}

	close(): void {
		for (const one of this.byAddress.values()) {
			this.rest(one);
			one.channel.close();
		}
		if (!this.said.broken) this.port.write('C\r');
		this.lose(trouble('cancelled', 'The connection was closed on our side.'));
		this.port.close();
	}

	async request(address: number, bytes: ArrayLike<number>): Promise<Result<Uint8Array, LinkError>> {
		const conversation = this.conversationWith(address);
		if (!conversation)
			return fail(trouble('unreachable', 'Nobody knows under which identifier it answers on CAN.'));
		await this.settle(conversation);
		if (this.said.broken) return fail(this.said.broken);
		const { channel, inbox } = conversation;
		inbox.empty();
		this.current = conversation;
		this.rest(conversation);
		const sent = await new Promise<string | null>((resolve) =>
			channel.transmit(Uint8Array.from(bytes), resolve)
		);
		const answer = sent
			? fail(trouble('no-answer', `The request could not be sent: ${sent}.`))
			: await awaitAnswer(
					bytes,
					(withinMs) => inbox.next(withinMs, 'The module did not answer.'),
					this.times
				);
		this.current = null;
		if (answer.ok) this.noteSession(conversation, bytes, answer.value);
		this.keepAlive(conversation);
		if (answer.ok) return answer;
		conversation.unsettled = true;
		return fail(await this.withAdapterTrouble(answer.error));
	}

	search(): Promise<Result<FoundModule[], LinkError>> {
		return searchCan(this);
	}

	/** Asks for codes that are told to all, and hears them for a while: active ones come every second by themselves. */
	async broadcasts(): Promise<ToldToAll> {
		const listener = new HeavyListener(this);
		await listener.ask();
		await listener.listenOn();
		listener.stop();
		return { broadcasts: listener.broadcasts, broken: listener.broken };
	}

	/** Hears every frame on the bus. Returns the way to stop. */
	listen(hear: (frame: CanFrame) => void): () => void {
		this.listeners.add(hear);
		return () => this.listeners.delete(hear);
	}

	/** Puts a frame on the bus as it is. */
	send(id: number, extended: boolean, data: Uint8Array): void {
		if (!this.said.broken) this.port.write(encodeSlcan({ id, extended, data }));
	}

	/** Why nothing more can be said, if so. */
	get broken(): LinkError | null {
		return this.said.broken;
	}

	private async start(): Promise<Result<null, LinkError>> {
		const speed = SLCAN_SPEEDS.get(this.options.bitrate);
		if (!speed) return fail(trouble('denied', `Adapters know no speed of ${this.options.bitrate} bit/s.`));
		// One that was left open says so, which is no trouble.
		let heard = (await this.command('C')) !== null;
		for (const command of [speed, 'O']) {
			const done = await this.command(command);
			if (done === false) return fail(trouble('denied', 'The adapter will not open its channel.'));
			heard ||= done === true;
		}
		if (this.said.broken) return fail({ ...this.said.broken, kind: 'refused', text: NO_VEHICLE });
		// An adapter that confirms nothing is told from something else by what it passes on of the bus.
		return heard || (await this.hearsTheBus()) ? ok(null) : fail(trouble('garbage', NO_VEHICLE));
	}

	/** @returns whether it was done or refused; null where nothing was said to it */
	private async command(line: string): Promise<boolean | null> {
		const event = await this.ask(line, COMMAND_MS, ({ kind }) => kind !== 'flags');
		if (event?.kind === 'done') return true;
		return event?.kind === 'refused' ? false : null;
	}

	/** Says a line to the adapter and waits for what is wanted; null where it does not come. */
	private async ask(
		line: string,
		withinMs: number,
		wanted: (event: SlcanEvent) => boolean
	): Promise<SlcanEvent | null> {
		this.said.empty();
		this.commanding = true;
		this.port.write(`${line}\r`);
		try {
			for (const deadline = Date.now() + withinMs; ;) {
				const event = await this.said.next(deadline - Date.now(), '');
				if (!event.ok) return null;
				if (wanted(event.value)) return event.value;
			}
		} finally {
			this.commanding = false;
		}
	}

	private hearsTheBus(): Promise<boolean> {
		return new Promise((resolve) => {
			const settle = (heard: boolean) => {
				clearTimeout(timer);
				stop();
				resolve(heard);
			};
			const stop = this.listen(() => settle(true));
			const timer = setTimeout(() => settle(false), this.times.answerMs);
			const { request, extended } = EVERYBODY;
			this.send(request, extended, Uint8Array.from([0x02, 0x3e, 0x00, 0xcc, 0xcc, 0xcc, 0xcc, 0xcc]));
		});
	}

	private conversationWith(address: number): Conversation | null {
		const known = this.byAddress.get(address);
		if (known) return known;
		const route = this.options.routes?.get(address) ?? routeOfAddress(address);
		if (!route) return null;
		const inbox = new WaitingLine<Uint8Array>();
		const channel = new SegmentedChannel(
			{
				send: (data) => this.send(route.request, route.extended, data),
				after: (ms, act) => {
					const timer = setTimeout(act, ms);
					return () => clearTimeout(timer);
				},
				nowS: () => performance.now() / 1000,
				message: (bytes) => inbox.put(ok(bytes)),
				trouble: (reason, detail) =>
					inbox.put(fail(trouble('no-answer', `Its answer broke (${reason}: ${detail}).`)))
			},
			ASKS
		);
		const conversation = {
			route,
			channel,
			inbox,
			lastFrameMs: 0,
			unsettled: false,
			wantsKeeping: false,
			keepAlive: null
		};
		this.byAddress.set(address, conversation);
		this.byResponse.set(keyOf(route.response, route.extended), conversation);
		return conversation;
	}

	private take(chunk: Uint8Array): void {
		for (const event of this.lines.push(chunk)) {
			if (event.kind === 'frame') this.frame(event.frame);
			else if (this.commanding) this.said.put(ok(event));
			if (event.kind === 'refused')
				this.current?.inbox.put(fail(trouble('no-answer', 'The adapter could not send a frame.')));
		}
	}

	private frame(frame: CanFrame): void {
		for (const hear of this.listeners) hear(frame);
		const conversation = this.byResponse.get(keyOf(frame.id, frame.extended));
		if (!conversation) return;
		conversation.lastFrameMs = performance.now();
		conversation.channel.frame(frame.data);
	}

	private lose(error: LinkError): void {
		this.said.lose(error);
		for (const { inbox } of this.byAddress.values()) inbox.lose(error);
	}

	private async settle(conversation: Conversation): Promise<void> {
		if (!conversation.unsettled) return;
		conversation.unsettled = false;
		const deadline = performance.now() + LONGEST_SETTLE_MS;
		for (;;) {
			const quietMs = performance.now() - conversation.lastFrameMs;
			if (quietMs >= SETTLE_MS || performance.now() > deadline) return;
			await delay(SETTLE_MS - quietMs);
		}
	}

	/** A session that was opened stays open until it is left, or the link is. */
	private noteSession(conversation: Conversation, request: ArrayLike<number>, answer: Uint8Array): void {
		const [service, kind = 0] = Array.from(request);
		if (answer[0] !== (service ?? 0) + 0x40) return;
		if (service === SESSION_CONTROL) conversation.wantsKeeping = (kind & 0x7f) !== DEFAULT_SESSION;
		else if (service === RESET) conversation.wantsKeeping = false;
	}

	private keepAlive(conversation: Conversation): void {
		if (!conversation.wantsKeeping || this.said.broken) return;
		const { request: id, extended } = conversation.route;
		conversation.keepAlive = setInterval(() => this.send(id, extended, STILL_HERE), KEEP_ALIVE_MS);
	}

	private rest(conversation: Conversation): void {
		if (conversation.keepAlive) clearInterval(conversation.keepAlive);
		conversation.keepAlive = null;
	}

	/** What the adapter has to say to it, where it has. */
	private async withAdapterTrouble(error: LinkError): Promise<LinkError> {
		if (this.said.broken) return error;
		const told = await this.ask('F', COMMAND_MS / 4, ({ kind }) => kind === 'flags' || kind === 'refused');
		const why = told?.kind === 'flags' ? flagsText(told.value) : null;
		return why ? { ...error, text: `${error.text} The adapter says: ${why}.` } : error;
	}
}

/** Every module at once (ISO 15765-4). */
const EVERYBODY = { request: 0x7df, extended: false };
