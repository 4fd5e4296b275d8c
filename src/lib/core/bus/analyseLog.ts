import { CodeBroadcasts, type Broadcast } from './codeBroadcasts';
import { Conversations, type ModuleInLog } from './conversations';
import { isDiagnosticId, type DiagnosticPair } from './diagnosticPair';
import type { ExchangeStore } from './exchangeStore';
import { FrameLogReader, type BadLine, type Frame } from './frameLog';

/** Something in the traffic that could not be put together. */
export interface BusProblem {
	timeS: number;
	id: string;
	reason: string;
	/** One plain sentence part: what was expected and what came. */
	detail: string;
}

const MOST_BAD_LINES = 1000;
const MOST_PROBLEMS = 10_000;
/** How often waiting messages are looked at, in log time. */
const EXPIRE_EVERY_S = 0.25;
/** Lines with a larger identifier tell of faults of the bus itself. */
const MAX_EXTENDED_ID = 0x1fffffff;

/**
 * Follows a frame log from beginning to end in one pass: puts segmented messages together, pairs requests with answers,
 * and gathers the codes that modules told. Feed it bytes with {@link push}, then {@link end}.
 */
export class BusAnalysis {
	readonly badLines: BadLine[] = [];
	readonly problems: BusProblem[] = [];
	badLineCount = 0;
	problemCount = 0;
	private readonly log: FrameLogReader;
	private readonly conversations: Conversations;
	private readonly heavy: CodeBroadcasts;
	private firstS = NaN;
	private lastS = 0;
	private nextExpireS = 0;

	/** @param pairs identifiers that talk to each other beside those that the standards name */
	constructor(pairs: DiagnosticPair[] = []) {
		const tell = (timeS: number, id: string, reason: string, detail: string) => {
			this.problemCount++;
			if (this.problems.length < MOST_PROBLEMS)
				this.problems.push({ timeS: Math.round(timeS * 1e6) / 1e6, id, reason, detail });
		};
		this.conversations = new Conversations(pairs, tell);
		this.heavy = new CodeBroadcasts(tell);
		this.log = new FrameLogReader({
			frame: (frame) => this.frame(frame),
			badLine: (bad) => {
				this.badLineCount++;
				if (this.badLines.length < MOST_BAD_LINES) this.badLines.push(bad);
			}
		});
	}

	get frames(): number {
		return this.log.frames;
	}

	get lineCount(): number {
		return this.log.lines;
	}

	/** From the first frame to the latest, in seconds. */
	get durationS(): number {
		return Math.round(this.lastS * 1e6) / 1e6;
	}

	get exchanges(): ExchangeStore {
		return this.conversations.exchanges;
	}

	get modules(): ModuleInLog[] {
		return this.conversations.modules;
	}

	get broadcasts(): Broadcast[] {
		return this.heavy.list;
	}

	push(chunk: Uint8Array): void {
		this.log.push(chunk);
	}

	end(): void {
		this.log.end();
		this.conversations.end();
		this.heavy.end();
	}

	private frame(frame: Frame): void {
		if (Number.isNaN(this.firstS)) this.firstS = frame.timeS;
		const timeS = frame.timeS - this.firstS;
		if (timeS > this.lastS) this.lastS = timeS;
		if (timeS >= this.nextExpireS) {
			this.nextExpireS = timeS + EXPIRE_EVERY_S;
			this.conversations.expire(timeS);
			this.heavy.expire(timeS);
		}
		if (frame.remote || frame.id > MAX_EXTENDED_ID) return;
		if (isDiagnosticId(frame.id, frame.extended) || this.conversations.isGiven(frame.id, frame.extended))
			this.conversations.frame(frame, timeS);
		else if (frame.extended) this.heavy.frame(frame, timeS);
	}
}
