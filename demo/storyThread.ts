import { ulid } from 'ulid';
import { dueWords } from '../src/lib/case/progress/dueWords';
import { comebackStart } from '../src/lib/case/proof/comeback';
import { EntryDraft, ENTRY_VERSION, type EntryKind, type PayloadOf } from '../src/lib/case/entries/entry';
import { typeName, type Cases } from '../src/lib/server/db/cases';
import type { Database } from '../src/lib/server/db/open';
import { Threads, type Author } from '../src/lib/server/db/threads';
import { CUSTOMERS, SHOP_NAME, TERMS, type DemoVehicle } from './shop';

const HOUR_MS = 3_600_000;
/** What it takes to write one. */
const MIN_AN_ENTRY = 3;
const toHalfHour = (ms: number): Date => new Date(Math.round(ms / (HOUR_MS / 2)) * (HOUR_MS / 2));

/** What a customer is told of when it is ready: so long from when the demo is made, or words that name no moment. */
export type Told = { inHours: number } | string;

/** The thread of a case that is told, with a clock of its own: entries stand where they would have been written. */
export class StoryThread {
	protected readonly threads: Threads;
	protected caseId = '';
	protected now: Date;

	constructor(
		db: Database,
		private readonly cases: Cases,
		protected readonly vehicle: DemoVehicle,
		begins: Date,
		/** When the demo is made. */
		private readonly begun: Date
	) {
		this.now = begins;
		this.threads = new Threads(db, () => this.now);
	}

	later(minutes: number): this {
		this.now = new Date(this.now.getTime() + minutes * 60_000);
		return this;
	}

	async add<K extends EntryKind>(
		kind: K,
		payload: PayloadOf<K>,
		author: Author,
		id = ulid(this.now.getTime())
	): Promise<void> {
		const draft = EntryDraft.parse({
			id,
			caseId: this.caseId,
			kind,
			version: ENTRY_VERSION,
			observedAt: this.now.toISOString(),
			supersedes: null,
			payload
		});
		const stored = await this.threads.append(draft, author);
		if (!stored.ok) throw new Error(stored.error.text);
		await this.cases.refresh(this.caseId);
		this.later(MIN_AN_ENTRY);
	}

	async open(promised: Told, author: Author): Promise<void> {
		this.caseId = await this.cases.open(ulid(this.now.getTime()), this.vehicle.id, this.now);
		const { id, typeId, nickname, plate } = this.vehicle;
		await this.add(
			'case-opened',
			{ vehicleId: id, typeId, name: `${typeName(typeId)}, ${nickname}`, plate },
			author
		);
		await this.promise(promised, author);
		await this.brought(author);
	}

	/** Who brings it, where they are written down. The clock stands still: it is told in the same breath. */
	private async brought(author: Author): Promise<void> {
		const customer = CUSTOMERS[this.vehicle.id];
		if (!customer) return;
		await this.add('customer', { customer: customer.id }, author);
		this.later(-MIN_AN_ENTRY);
	}

	/** What it is to cost; and what the customer says to it, where they were asked. */
	async estimate(lines: PayloadOf<'estimate'>['lines'], said: string | null, author: Author): Promise<void> {
		const id = ulid(this.now.getTime());
		await this.add('estimate', { ...TERMS, lines, note: '' }, author, id);
		if (said !== null)
			await this.add(
				'estimate-answered',
				{ estimate: id, agrees: true, upTo: null, who: said, how: 'by phone', words: '' },
				author
			);
	}

	/** What the customer is told. */
	private async promise(told: Told, author: Author): Promise<void> {
		const due = typeof told === 'string' ? null : toHalfHour(this.begun.getTime() + told.inHours * HOUR_MS);
		const words = typeof told === 'string' ? told : due ? dueWords(due, this.now) : '';
		await this.add('promised', { due: due?.toISOString() ?? null, words }, author);
	}

	/** Somebody takes it. */
	async give(to: Author, by: Author): Promise<void> {
		await this.add('assigned', { to: { id: to.id, name: to.name } }, by);
	}

	/** A case that begins where the vehicle's signed one ended. */
	async comeback(promised: Told, author: Author): Promise<void> {
		const signed = (await this.cases.page(true, 1)).rows.find(
			({ vehicle }) => vehicle.id === this.vehicle.id
		);
		const start = signed && comebackStart(await this.threads.read(signed.id), signed.number, SHOP_NAME);
		if (!start) throw new Error(`no signed case of ${this.vehicle.id}`);
		this.caseId = await this.cases.open(ulid(this.now.getTime()), this.vehicle.id, this.now);
		await this.add('case-opened', start.opened, author);
		await this.add('prior-work', { works: start.works }, author);
		await this.promise(promised, author);
		await this.brought(author);
	}
}
