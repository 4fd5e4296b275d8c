import type { Purpose } from '../../case/entries/live-recording/payload';
import pino from 'pino';
import { eq } from 'drizzle-orm';
import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { EntryOf } from '../../case/entries/entry';
import { fail, ok } from '../../core/result';
import { liveSignals } from '../../../../library/liveSignals';
import type { CaseRow } from '../db/cases';
import { Captures } from '../db/captures';
import { capture, captureChunk } from '../db/schema';
import type { VehicleLink } from '../../link/vehicleLink';
import { openTestShop, type TestShop } from '../shop.fixture';
import { VehicleHolds } from '../db/vehicleHolds';
import { VehicleJobs } from './vehicleJobs';

let shop: TestShop;
let row: CaseRow;

/** A brake module whose front-left wheel turns a little faster with every answer; may go, or fall silent. */
class Turning implements VehicleLink {
	readonly over = 'network';
	search = () => Promise.resolve(ok([]));
	answers = 0;
	constructor(private readonly cutAfter = Infinity) {}
	request(_address: number, bytes: ArrayLike<number>) {
		this.answers += 1;
		if (this.answers > this.cutAfter)
			return Promise.resolve(fail({ kind: 'closed' as const, text: 'The vehicle closed the connection.' }));
		const reply = [0x62];
		for (let at = 1; at < bytes.length; at += 2) {
			const id = [bytes[at] ?? 0, bytes[at + 1] ?? 0];
			const raw = id[1] === 0x01 ? this.answers : 0xffff;
			reply.push(...id, raw >> 8, raw & 0xff);
		}
		return Promise.resolve(ok(Uint8Array.from(reply)));
	}
	close() {}
}
let captures: Captures;
const jobsFor = (link: VehicleLink) =>
	new VehicleJobs(
		shop.db,
		shop.threads,
		shop.cases,
		captures,
		pino({ level: 'silent' }),
		new VehicleHolds(shop.db, 'one'),
		() => Promise.resolve(ok(link))
	);
const wheels = () => {
	const type = row.type;
	return (type ? liveSignals(type) : []).filter(({ signal }) => /_(left|right)$/.test(signal)).slice(0, 2);
};

/** Resolves as soon as something holds. */
const until = (fits: () => boolean) =>
	new Promise<void>((resolve) => {
		const timer = setInterval(() => {
			if (!fits()) return;
			clearInterval(timer);
			resolve();
		}, 5);
	});
const over = (vehicleJobs: VehicleJobs) => until(() => vehicleJobs.status(row.id)?.state !== 'running');
const recorded = async () =>
	(await shop.threads.read(row.id)).filter(
		(entry): entry is EntryOf<'live-recording'> => entry.kind === 'live-recording'
	);

beforeEach(async () => {
	shop = await openTestShop();
	const found = await shop.cases.find(shop.caseId);
	if (!found) throw new Error('the case was not opened');
	row = found;
	captures = new Captures(shop.db);
});
afterEach(() => shop.close());

const of = (name: string, purpose: Purpose | null = null) => ({ name, purpose, listenTo: [] });

describe('recording live data', () => {
	it('keeps every reading, with its marks, and puts on the thread what is found in it', async () => {
		const link = new Turning();
		const vehicleJobs = jobsFor(link);
		const id = ulid();
		const seen: number[] = [];
		expect(vehicleJobs.startRecording(row, shop.ana, id, wheels(), of('before repair')).ok).toBe(true);
		await until(() => link.answers > 3);
		vehicleJobs.watchLive(row.id, ({ rows }) => seen.push(...rows.map(([t]) => t ?? 0)), -1);
		expect(vehicleJobs.mark(row.id, 'here').ok).toBe(true);
		await until(() => link.answers > 12 && seen.length > 4);
		const late: number[] = [];
		const afterS = seen[2] ?? 0;
		vehicleJobs.watchLive(row.id, ({ rows }) => late.push(...rows.map(([t]) => t ?? 0)), afterS);
		vehicleJobs.cancel(row.id);
		await over(vehicleJobs);
		const [entry] = await recorded();
		expect(entry?.payload).toMatchObject({
			name: 'before repair',
			endedBecause: null,
			marks: [{ label: 'here' }]
		});
		expect(entry?.payload.channels).toEqual(['front_left', 'front_right']);
		const samples = await captures.read({ caseId: row.id, id });
		expect(samples?.timeS).toHaveLength(entry?.payload.rows ?? 0);
		const left = [...(samples?.channels.get('front_left') ?? [])];
		expect(left).toEqual(left.map((_, i) => expect.closeTo((i + 1) * 0.01, 9)));
		// "Not available" is kept as such: it is a finding, not a hole.
		expect([...(samples?.channels.get('front_right') ?? [])].every((kmh) => kmh === 655.35)).toBe(true);
		// Whoever joined late saw each reading once, from the first on; whoever had seen some, only what followed.
		expect(seen).toEqual([...(samples?.timeS ?? [])]);
		expect(late).toEqual(seen.filter((t) => t > afterS));
		expect(late.length).toBeLessThan(seen.length);
		expect(vehicleJobs.mark(row.id, 'too late').ok).toBe(false);
	});

	it('a lost line ends it and keeps all until then', async () => {
		const vehicleJobs = jobsFor(new Turning(20));
		vehicleJobs.startRecording(row, shop.ana, ulid(), wheels(), of(''));
		await over(vehicleJobs);
		const [entry] = await recorded();
		expect(entry?.payload).toMatchObject({ rows: 20, endedBecause: 'The vehicle closed the connection.' });
		expect(vehicleJobs.status(row.id)?.outcome).toMatch(/ended by itself/);
	});

	it('with nothing read there is nothing to keep, and it says so', async () => {
		const vehicleJobs = jobsFor(new Turning(0));
		const id = ulid();
		vehicleJobs.startRecording(row, shop.ana, id, wheels(), of(''));
		await over(vehicleJobs);
		expect(vehicleJobs.status(row.id)).toMatchObject({
			state: 'failed',
			outcome: expect.stringMatching(/nothing to keep/)
		});
		expect(await recorded()).toEqual([]);
		expect(await shop.db.select().from(capture)).toEqual([]);
	});

	it('a server that dies loses at most the last second: the next one puts the rest on the thread', async () => {
		const link = new Turning();
		const dying = jobsFor(link);
		const id = ulid();
		dying.startRecording(
			row,
			shop.ana,
			id,
			wheels(),
			of('cut short', { what: 'wiggle', position: 'rear-left' })
		);
		const pieces = () => shop.db.select().from(captureChunk).where(eq(captureChunk.captureId, id));
		await new Promise<void>((resolve) => {
			const look = async () => ((await pieces()).length > 0 ? resolve() : setTimeout(() => void look(), 20));
			void look();
		});
		const read = link.answers;
		// The old one is not told: as far as the new one knows it is gone.
		const next = jobsFor(new Turning());
		expect(await next.recover()).toBe(1);
		const [entry] = await recorded();
		expect(entry?.id).toBe(id);
		expect(entry?.payload.endedBecause).toMatch(/server stopped/);
		expect(entry?.payload.purpose).toEqual({ what: 'wiggle', position: 'rear-left' });
		expect(entry?.payload.rows).toBeGreaterThan(2);
		expect(read - (entry?.payload.rows ?? 0)).toBeLessThan(50 + 25);
		expect(await next.recover()).toBe(0);
		dying.cancel(row.id);
		await over(dying);
	});
});
