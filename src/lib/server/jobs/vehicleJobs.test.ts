import pino from 'pino';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { checkChain } from '../../case/thread/hashChain';
import { fail, ok } from '../../core/result';
import { Captures } from '../db/captures';
import { PutAside } from '../db/putAside';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import type { Cases, CaseRow } from '../db/cases';
import type { Database } from '../db/open';
import { linkJob } from '../db/schema';
import type { Threads, Author } from '../db/threads';
import { VehicleHolds } from '../db/vehicleHolds';
import type { VehicleLink } from '../../link/vehicleLink';
import { VehicleJobs } from './vehicleJobs';
import { JobNotes } from './jobNotes';

let shop: TestShop;
let db: Database;
let threads: Threads;
let cases: Cases;
let ana: Author;
let row: CaseRow;

/** A vehicle that answers by a rule; counts what it was asked. */
class Scripted implements VehicleLink {
	readonly over = 'network';
	asked: string[] = [];
	/** Who is there when somebody asks. */
	there: { address: number; silent: string | null }[] = [];
	constructor(
		private readonly rule: (
			address: number,
			service: number
		) => number[] | 'cut' | 'silent' | Promise<number[]>
	) {}
	async request(address: number, bytes: ArrayLike<number>) {
		this.asked.push(`${address.toString(16)}:${bytes[0]?.toString(16)}`);
		const answer = await this.rule(address, bytes[0] ?? 0);
		if (answer === 'cut')
			return fail({ kind: 'closed' as const, text: 'The vehicle closed the connection.' });
		if (answer === 'silent') return fail({ kind: 'no-answer' as const, text: 'The module did not answer.' });
		return ok(Uint8Array.from(answer));
	}
	search = () => Promise.resolve(ok(this.there));
	close() {}
}
const willing = (_address: number, service: number) =>
	service === 0x19
		? [0x59, 0x02, 0xff]
		: service === 0x3e
			? [0x7e, 0]
			: service === 0x14
				? [0x54]
				: [0x7f, service, 0x31];

const jobsFor = (link: VehicleLink) =>
	new VehicleJobs(
		db,
		threads,
		cases,
		new Captures(db),
		pino({ level: 'silent' }),
		new VehicleHolds(db, 'one'),
		async () => ok(link)
	);

async function ended(vehicleJobs: VehicleJobs): Promise<string> {
	return new Promise((resolve) => {
		const look = () => {
			const status = vehicleJobs.status(row.id);
			if (!status || status.state === 'running') return false;
			resolve(status.outcome ?? '');
			return true;
		};
		if (look()) return;
		const stop = vehicleJobs.watch(row.id, () => look() && stop());
	});
}

beforeEach(async () => {
	shop = await openTestShop();
	({ db, threads, cases, ana } = shop);
	const found = await cases.find(shop.caseId);
	if (!found) throw new Error('the case was not opened');
	row = found;
});
afterEach(() => shop.close());

const onlyScan = async () => {
	const [entry] = await threads.read(row.id);
	if (entry?.kind !== 'network-scan') throw new Error('no scan on the thread');
	return entry;
};

describe('work on a vehicle', () => {
	it('puts a whole scan on the thread under the id it was asked with', async () => {
		const vehicleJobs = jobsFor(new Scripted(willing));
		const id = ulid();
		expect(vehicleJobs.startScan(row, ana, id)).toMatchObject({ ok: true });
		expect(await ended(vehicleJobs)).toBe('All 9 modules asked; saved to the case.');
		expect(await onlyScan()).toMatchObject({ id, payload: { outcome: 'complete', modulesExpected: 9 } });
	});

	it('keeps what was read when the line breaks, marked partial with the reason', async () => {
		const vehicleJobs = jobsFor(
			new Scripted((address, service) => (address === 0x1020 ? 'cut' : willing(address, service)))
		);
		vehicleJobs.startScan(row, ana, ulid());
		expect(await ended(vehicleJobs)).toContain('3 of 9 modules were reached');
		const { payload } = await onlyScan();
		expect(payload).toMatchObject({
			outcome: 'partial',
			stoppedBecause: 'The vehicle closed the connection.'
		});
		expect(payload.modules.map((m) => m.answered)).toEqual([true, true, false]);
	});

	it('asks who is there, and keeps what was found when the line breaks', async () => {
		const link = new Scripted((address, service) => (address === 0x1020 ? 'cut' : willing(address, service)));
		link.there = [0x1000, 0x1010, 0x1020, 0x1030].map((address) => ({ address, silent: null }));
		const vehicleJobs = jobsFor(link);
		const id = ulid();
		expect(vehicleJobs.startFind(row, ana, id)).toMatchObject({ ok: true });
		expect(await ended(vehicleJobs)).toContain('The vehicle closed the connection. 3 modules answer');
		const found = (await threads.read(row.id)).find((entry) => entry.kind === 'modules-found');
		expect(found).toMatchObject({ id, payload: { over: 'network', modules: [{ address: '1000' }, {}, {}] } });
		link.there = Array.from({ length: 500 }, (_, i) => ({ address: i, silent: null }));
		vehicleJobs.startFind(row, ana, ulid());
		expect(await ended(vehicleJobs)).toContain('500 addresses answer: that is no vehicle.');
		link.there = [];
		vehicleJobs.startFind(row, ana, ulid());
		expect(await ended(vehicleJobs)).toContain('No module answers');
	});

	it('tells a silent module from a vehicle that was switched off in the middle', async () => {
		let on = true;
		const dozing = jobsFor(
			new Scripted((address, service) => {
				if (address === 0x1020) on = false;
				return on || address === 0x1000 ? willing(address, service) : 'silent';
			})
		);
		dozing.startScan(row, ana, ulid());
		expect(await ended(dozing)).toContain('The vehicle was switched off during the scan.');
		expect((await onlyScan()).payload.modules.map((m) => m.answered)).toEqual([
			true,
			true,
			...Array<boolean>(7).fill(false)
		]);
	});

	it('calls one silent module a finding of a complete scan, and a sleeping network a partial one', async () => {
		const one = jobsFor(
			new Scripted((address, service) => (address === 0x1030 ? 'silent' : willing(address, service)))
		);
		one.startScan(row, ana, ulid());
		expect(await ended(one)).toContain('Silent: Instrument cluster.');
		expect((await onlyScan()).payload.outcome).toBe('complete');
		const asleep = jobsFor(
			new Scripted((address, service) => (address === 0x1000 ? willing(address, service) : 'silent'))
		);
		asleep.startScan(row, ana, ulid());
		expect(await ended(asleep)).toContain('Only the gateway answers: the key is off.');
	});

	it('lets only one be at a vehicle at a time, and frees it afterwards', async () => {
		let go = () => {};
		const gate = new Promise<void>((resolve) => (go = resolve));
		const vehicleJobs = jobsFor(
			new Scripted((address, service) => gate.then(() => willing(address, service)))
		);
		const id = ulid();
		vehicleJobs.startScan(row, ana, id);
		expect(
			vehicleJobs.startClear(row, ana, ulid(), [{ address: '1010', name: 'Brake control' }])
		).toMatchObject({
			ok: false
		});
		expect(vehicleJobs.startScan(row, ana, id)).toMatchObject({ ok: true, value: { id } });
		go();
		await ended(vehicleJobs);
		expect(vehicleJobs.startScan(row, ana, ulid()).ok).toBe(true);
		await ended(vehicleJobs);
	});

	it('never calls a module cleared that did not say so', async () => {
		const outcomes: Record<number, number[] | 'silent'> = {
			0x1010: [0x54],
			0x1020: [0x7f, 0x14, 0x22],
			0x1030: 'silent'
		};
		const vehicleJobs = jobsFor(
			new Scripted((address, service) =>
				service === 0x14 ? (outcomes[address] ?? [0x54]) : willing(address, service)
			)
		);
		vehicleJobs.startClear(row, ana, ulid(), [
			{ address: '1010', name: 'Brake control' },
			{ address: '1020', name: 'Steering angle' },
			{ address: '1030', name: 'Instrument cluster' }
		]);
		expect(await ended(vehicleJobs)).toContain('1 of 3 modules cleared');
		const [entry] = await threads.read(row.id);
		expect(
			entry?.kind === 'codes-cleared' && entry.payload.modules.map((m) => [m.outcome, m.detail])
		).toEqual([
			['cleared', null],
			['refused', 'It refused: conditions are not right.'],
			['unknown', 'The module did not answer.']
		]);
	});

	it('takes a key cycle from the vehicle’s own count', async () => {
		const counting = (count: number) =>
			new Scripted((_address, service) =>
				service === 0x22 ? [0x62, 0xd0, 0xa0, count >> 8, count & 0xff] : [0x7f, service, 0x31]
			);
		const same = jobsFor(counting(41));
		same.startKeyCheck(row, ana, ulid(), 41);
		expect(await ended(same)).toContain('still counts 41 key cycles');
		expect(await threads.headSeq(row.id)).toBe(0);
		const more = jobsFor(counting(42));
		more.startKeyCheck(row, ana, ulid(), 41);
		await ended(more);
		expect(await threads.headSeq(row.id)).toBe(1);
	});

	it('finishes after a dead server what it had written down: a scan as partial, a clear as unknown', async () => {
		const scanning = jobsFor(
			new Scripted((address, service) =>
				address === 0x1020 ? new Promise<number[]>(() => {}) : willing(address, service)
			)
		);
		const id = ulid();
		scanning.startScan(row, ana, id);
		await new Promise<void>((resolve) => {
			const stop = scanning.watch(row.id, ({ done }) => {
				if (done.length < 2) return;
				stop();
				resolve();
			});
		});
		// The process dies here: a new one opens the same file.
		expect(await db.select().from(linkJob)).toHaveLength(1);
		expect(await jobsFor(new Scripted(willing)).recover()).toBe(1);
		const { payload } = await onlyScan();
		expect(payload).toMatchObject({
			outcome: 'partial',
			stoppedBecause: 'The server stopped during the scan.'
		});
		expect(payload.modules).toHaveLength(2);
		expect(await db.select().from(linkJob)).toHaveLength(0);
		expect(await jobsFor(new Scripted(willing)).recover()).toBe(0);
		expect(checkChain(await threads.read(row.id))).toEqual({ intact: true });
	});

	it('starts again whatever was left: what its thread does not take is put aside, whole, for a lead to see', async () => {
		const notes = new JobNotes(db);
		const left = (draft: unknown, kind: 'scan' | 'clear' | 'calibrate' = 'clear', id = ulid()) =>
			notes.write({ id, caseId: row.id, authorId: ana.id }, kind, draft);
		const cleared = {
			keyCycles: null,
			modules: [{ address: '1010', name: 'Brake control', outcome: 'cleared', detail: null }]
		};
		await left(cleared, 'clear', 'not-a-ulid');
		await left('no payload at all');
		await left({ modules: 'nonsense' }, 'scan');
		await left({}, 'calibrate');
		const good = ulid();
		await left(cleared, 'clear', good);
		const vehicleJobs = jobsFor(new Scripted(willing));
		await vehicleJobs.recover();
		expect((await threads.read(row.id)).map(({ id }) => id)).toEqual([good]);
		const aside = await new PutAside(db).unseen();
		expect(aside).toHaveLength(4);
		expect(aside.find(({ id }) => id === 'not-a-ulid')).toMatchObject({
			kind: 'clear',
			author: 'Ana',
			draft: JSON.stringify(cleared)
		});
		expect(await vehicleJobs.recover()).toBe(0);
	});

	it('what was left of a case that is signed already is put aside; its recording keeps its samples', async () => {
		const recording = ulid();
		const captures = new Captures(db);
		await captures.begin({
			id: recording,
			caseId: row.id,
			authorId: ana.id,
			name: '',
			startedAt: '2026-01-01'
		});
		const timeS = Float64Array.from([0, 1, 2]);
		await captures.add({ caseId: row.id, id: recording }, 0, {
			timeS,
			channels: new Map([['vehicle', timeS]])
		});
		// Only an older version of the database could come to this.
		await db.$client.execute('DROP TRIGGER nothing_is_signed_while_work_runs');
		await new JobNotes(db).write({ id: ulid(), caseId: row.id, authorId: ana.id }, 'scan', { modules: [1] });
		await put(shop, 'signature', { statement: 'Checked.', verdict: 'Proven clear' });
		await jobsFor(new Scripted(willing)).recover();
		const kinds = (await new PutAside(db).unseen()).map(({ kind }) => kind);
		expect(kinds.sort()).toEqual(['record', 'scan']);
		expect((await captures.read({ caseId: row.id, id: recording }))?.timeS).toHaveLength(3);
	});

	it('sends no clear that could not be written down: a case that is signed, an id in use, an id that is none', async () => {
		const link = new Scripted(willing);
		const vehicleJobs = jobsFor(link);
		const targets = [{ address: '1010', name: 'Brake control' }];
		expect(vehicleJobs.startClear(row, ana, 'not-a-ulid', targets)).toMatchObject({ ok: false });
		const used = await put(shop, 'note', { text: 'here already' });
		vehicleJobs.startClear(row, ana, used, targets);
		expect(await ended(vehicleJobs)).toContain('Nothing was read and nothing was changed');
		await put(shop, 'signature', { statement: 'Checked.', verdict: 'Proven clear' });
		vehicleJobs.startClear(row, ana, ulid(), targets);
		expect(await ended(vehicleJobs)).toContain('signed');
		expect(link.asked.filter((one) => one.endsWith(':14'))).toEqual([]);
		expect(await db.select().from(linkJob)).toHaveLength(0);
	});

	it('nobody signs between a clear and its entry', async () => {
		let go = () => {};
		const asked = new Promise<void>((resolve) => (go = resolve));
		let free = () => {};
		const answered = new Promise<number[]>((resolve) => (free = () => resolve([0x54])));
		const vehicleJobs = jobsFor(
			new Scripted((address, service) => {
				if (service !== 0x14) return willing(address, service);
				go();
				return answered;
			})
		);
		const id = ulid();
		vehicleJobs.startClear(row, ana, id, [{ address: '1010', name: 'Brake control' }]);
		await asked;
		await expect(put(shop, 'signature', { statement: 'Checked.', verdict: 'Proven clear' })).rejects.toThrow(
			/under way/
		);
		free();
		await ended(vehicleJobs);
		await put(shop, 'signature', { statement: 'Checked.', verdict: 'Proven clear' });
		expect((await threads.read(row.id)).map(({ kind }) => kind)).toEqual(['codes-cleared', 'signature']);
	});

	it('a calibration that had begun is on the thread as cut short, so that it is done again', async () => {
		const tried = {
			calibration: 'steering-zero',
			role: 'steering-angle',
			address: '1020',
			name: 'Steering angle zero',
			how: 'link',
			state: 'interrupted',
			values: [],
			conditions: [],
			detail: 'The server stopped while it ran.'
		} as const;
		const id = ulid();
		await new JobNotes(db).write({ id, caseId: row.id, authorId: ana.id }, 'calibrate', tried);
		expect(await jobsFor(new Scripted(willing)).recover()).toBe(1);
		const entries = await threads.read(row.id);
		expect(entries.at(-1)).toMatchObject({ id, kind: 'calibration', payload: tried });
		expect(await jobsFor(new Scripted(willing)).recover()).toBe(0);
	});
});
