import { ulid } from 'ulid';
import { comebackStart } from '../src/lib/case/proof/comeback';
import { EntryDraft, ENTRY_VERSION, type EntryKind, type PayloadOf } from '../src/lib/case/entries/entry';
import { typeName, type Cases } from '../src/lib/server/db/cases';
import type { Database } from '../src/lib/server/db/open';
import { Threads, type Author } from '../src/lib/server/db/threads';
import { SHOP_NAME, type DemoVehicle } from './shop';

/** The thread of a case that is told, with a clock of its own: entries stand where they would have been written. */
export class StoryThread {
	protected readonly threads: Threads;
	protected caseId = '';
	protected now: Date;

	constructor(
		db: Database,
		private readonly cases: Cases,
		protected readonly vehicle: DemoVehicle,
		begins: Date
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
		this.later(3);
	}

	async open(wanted: string, author: Author): Promise<void> {
		this.caseId = await this.cases.open(ulid(this.now.getTime()), this.vehicle.id, wanted, this.now);
		const { id, typeId, nickname, plate } = this.vehicle;
		await this.add(
			'case-opened',
			{ vehicleId: id, typeId, name: `${typeName(typeId)}, ${nickname}`, plate },
			author
		);
	}

	/** A case that begins where the vehicle's signed one ended. */
	async comeback(wanted: string, author: Author): Promise<void> {
		const signed = (await this.cases.page(true, 1)).rows.find(
			({ vehicle }) => vehicle.id === this.vehicle.id
		);
		const start = signed && comebackStart(await this.threads.read(signed.id), signed.number, SHOP_NAME);
		if (!start) throw new Error(`no signed case of ${this.vehicle.id}`);
		this.caseId = await this.cases.open(ulid(this.now.getTime()), this.vehicle.id, wanted, this.now);
		await this.add('case-opened', start.opened, author);
		await this.add('prior-work', { works: start.works }, author);
	}
}
