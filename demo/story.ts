import { openWords } from '../src/lib/case/codes/openReason';
import { channelOf } from '../library/positions';
import { circumstances, symptoms } from '../library/vocabulary';
import { ulid } from 'ulid';
import { vehicleTypes, type Position, type VehicleType } from '../library';
import { liveSignals } from '../library/liveSignals';
import { testKinds } from '../library/reason/tests';
import { STRAIGHT_DRIVE, type DriveLeg } from '../src/lib/bench/motion';
import { BenchVehicle } from '../src/lib/bench/vehicle';
import type { PayloadOf } from '../src/lib/case/entries/entry';
import { keptLog, readLog } from '../src/lib/case/codes/frameLogReading';
import type { LiveMark } from '../src/lib/case/entries/live-recording/payload';
import { LogKeeper } from '../src/lib/case/codes/logKeeper';
import { mayClear } from '../src/lib/case/codes/mayClear';
import { projectCase } from '../src/lib/case/progress/project';
import { proofView } from '../src/lib/case/proof/proofView';
import { findCodes } from '../src/lib/core/codes/findCodes';
import { checkVin } from '../src/lib/core/vehicle/vin';
import { Captures, wholePieces } from '../src/lib/server/db/captures';
import type { Cases } from '../src/lib/server/db/cases';
import type { Author } from '../src/lib/server/db/threads';
import type { Database } from '../src/lib/server/db/open';
import { clearModules } from '../src/lib/server/jobs/clear';
import { liveVehicleOf, recordingPayload } from '../src/lib/case/watch/recordingPayload';
import { sample } from '../src/lib/server/jobs/sampler';
import { readIdentity, scanVehicle } from '../src/lib/link/scan';
import { benchCapture } from './benchCapture';
import { benchReading } from './benchReading';
import { DirectLink } from './link';
import type { DemoVehicle } from './shop';
import { StoryThread } from './storyThread';

/** What is felt and when: words of the vocabulary by their ids, others as they are typed. */
export function complaintOf(felt: readonly string[], when: readonly string[]) {
	const split = (words: readonly string[], list: ReadonlyMap<string, { id: string; words: string }>) => {
		const found = words.map((word) => [...list.values()].find((one) => one.words === word)?.id ?? null);
		return { ids: found.filter((id) => id !== null), own: words.filter((_, i) => found[i] === null) };
	};
	const [feels, shows] = [split(felt, symptoms), split(when, circumstances)];
	return { felt: feels.ids, symptoms: feels.own, when: shows.ids, conditions: shows.own };
}

/**
 * Lives through one case as people would have: every scan and clear is done on a bench vehicle, with real bytes; only
 * the clock is set back.
 */
export class Story extends StoryThread {
	readonly bench: BenchVehicle;
	private readonly type: VehicleType;
	private readonly link: DirectLink;
	private readonly captures: Captures;

	constructor(db: Database, cases: Cases, vehicle: DemoVehicle, begins: Date, made = begins) {
		super(db, cases, vehicle, begins, made);
		const type = vehicleTypes.get(vehicle.typeId);
		if (!type) throw new Error(`${vehicle.typeId} is not in the library`);
		this.type = type;
		this.bench = new BenchVehicle({
			type,
			vin: vehicle.vin,
			odometerKm: vehicle.odometerKm,
			faults: vehicle.faults
		});
		this.bench.turnKey('on');
		this.bench.advance(5);
		this.link = new DirectLink(this.bench);
		this.captures = new Captures(db);
	}

	/** The first code of the case that stands for itself. */
	private async ownCode(): Promise<{ address: string; dtc: string }> {
		const { codes } = projectCase(await this.threads.read(this.caseId));
		const own = codes.find(({ followsFrom }) => followsFrom === null);
		if (!own) throw new Error('no code of its own');
		return { address: own.address, dtc: own.dtc };
	}

	/** How often it came before, by the customer. */
	async tellReturns(returns: number, overKm: number, fromKmh: number, author: Author): Promise<void> {
		const code = await this.ownCode();
		await this.add(
			'returns-told',
			{
				...code,
				returns,
				overKm,
				from: 'the customer',
				conditions: 'at speed',
				showsWhen: { fromKmh, toKmh: null, turning: false, road: null },
				target: 0.05
			},
			author
		);
	}

	/** A lead releases it short of the distance, with the customer's word. */
	async releaseEarly(why: string, customer: string, lead: Author): Promise<void> {
		const code = await this.ownCode();
		const view = projectCase(await this.threads.read(this.caseId));
		const mine = view.codes.find(({ address, dtc }) => address === code.address && dtc === code.dtc);
		const residual = mine && proofView(mine, view.entries, view.codes).comes?.residual;
		await this.add(
			'proof-waived',
			{ ...code, mark: 'exposure', why, customer, residualChance: residual ?? null },
			lead
		);
	}

	async listen(
		words: string,
		felt: string[],
		when: string[],
		lamps: PayloadOf<'lamps-reported'>['lamps'],
		tyre: string,
		author: Author
	): Promise<void> {
		await this.add('complaint', { words, ...complaintOf(felt, when) }, author);
		const checked = checkVin(this.vehicle.vin);
		if (!checked.ok) throw new Error(checked.error);
		await this.add(
			'vehicle-checked',
			{
				vin: checked.value.vin,
				checkDigitFits: checked.value.checkDigitFits,
				odometerKm: this.vehicle.odometerKm
			},
			author
		);
		await this.add('lamps-reported', { lamps }, author);
		const tyres = this.type.wheels.map(({ position }, i) => ({
			position,
			size: tyre,
			brand: 'Saltmarsh',
			treadMm: i < 2 ? 5.5 : 6,
			pressureKpa: 340
		}));
		await this.add('tyres-fitted', { tyres }, author);
	}

	/** A step of the worksheet, done as it was suggested, by the timer. @param seen outcome by sign, as `fuse@F14` */
	async step(
		test: string,
		place: string,
		seen: PayloadOf<'test-step'>['seen'],
		minutes: number,
		author: Author
	): Promise<void> {
		const kind = testKinds.get(test);
		if (!kind) throw new Error(`no test ${test}`);
		const { name, station } = kind;
		await this.add(
			'test-step',
			{ test, place, name, station, from: 'suggested', how: 'done', seen, because: '', minutes },
			author
		);
	}

	/** Where the vehicle stands, and what it waits for. */
	async waits(what: PayloadOf<'waiting'>['what'], lift: string, note: string, author: Author): Promise<void> {
		await this.add('waiting', { what, lift, note }, author);
	}

	async scan(author: Author): Promise<void> {
		const scan = await scanVehicle(this.link, this.type, {
			begins: () => {},
			sofar: async () => {},
			cancelled: () => false
		});
		await this.add('network-scan', scan, author);
	}

	/** A print-out that came with the vehicle, looked through as the paste box does. */
	async printOut(sourceName: string, text: string, author: Author): Promise<void> {
		const { modules } = findCodes(text);
		await this.add('codes-reported', { origin: 'pasted', sourceName, text, modules }, author);
	}

	/** A capture of the bus while everything was asked, as it stands in a file. */
	async frameLog(fileName: string, text: string, author: Author): Promise<void> {
		const bytes = new TextEncoder().encode(text);
		const keeper = new LogKeeper();
		const analysis = await readLog(
			keeper.through(
				(async function* () {
					yield bytes;
				})()
			)
		);
		const whole = keeper.end();
		if (!whole) throw new Error(`${fileName} is too large to be kept`);
		const { packed, ...kept } = whole;
		const id = ulid(this.now.getTime());
		const startedAt = this.now.toISOString();
		await this.captures.keep({ id, caseId: this.caseId, authorId: author.id, name: fileName, startedAt }, [
			packed
		]);
		await this.add('frame-log', { ...keptLog(analysis, fileName, bytes.length), kept }, author, id);
	}

	/** A drive that somebody recorded, read over the line as the app does it, with a mark where the watcher set one. */
	async recordDrive(name: string, legs: DriveLeg[], marks: LiveMark[], author: Author): Promise<void> {
		const wanted = new Set([
			'vehicle',
			'brake_switch',
			...this.type.wheels.map(({ position }) => channelOf(position))
		]);
		const signals = liveSignals(this.type).filter(({ signal }) => wanted.has(signal));
		const time: number[] = [];
		const rows: Float64Array[] = [];
		const durationS = legs.reduce((sum, leg) => sum + leg.overS, 0);
		const { world } = this.bench;
		const beganS = world.timeS;
		this.bench.drive(legs);
		await sample(this.link, signals, {
			nowMs: () => world.timeS * 1000,
			stopped: () => world.timeS - beganS > durationS,
			row: (timeS, values) => {
				time.push(timeS);
				rows.push(values);
			}
		});
		const samples = {
			timeS: Float64Array.from(time),
			channels: new Map(
				signals.map(({ signal }, c) => [signal, Float64Array.from(rows, (row) => row[c] ?? NaN)])
			)
		};
		const id = ulid(this.now.getTime());
		const startedAt = this.now.toISOString();
		await this.captures.begin({ id, caseId: this.caseId, authorId: author.id, name, startedAt });
		await this.captures.finish({ id, caseId: this.caseId }, wholePieces(samples));
		const about = { name, source: { kind: 'vehicle' as const }, marks, endedBecause: null };
		await this.add('live-recording', recordingPayload(samples, liveVehicleOf(this.type), about), author, id);
	}

	/** Wheels turned by hand before the oscilloscope. */
	async captureWheels(name: string, positions: readonly Position[], author: Author): Promise<void> {
		const { kept, payload } = benchCapture(this.bench, name, positions);
		const id = ulid(this.now.getTime());
		const about = { id, caseId: this.caseId, authorId: author.id, name, startedAt: this.now.toISOString() };
		await this.captures.keep(about, [kept]);
		await this.add('scope-capture', payload, author, id);
	}

	private async clear(author: Author): Promise<void> {
		const targets = mayClear(projectCase(await this.threads.read(this.caseId)), null);
		if (!targets.ok) throw new Error(targets.error);
		const { keyCycles } = await readIdentity(this.link, this.type.gateway);
		await this.add(
			'codes-cleared',
			await clearModules(this.link, targets.value, keyCycles, async () => {}),
			author
		);
		this.bench.advance(1);
	}

	private async cycleKey(author: Author): Promise<void> {
		const countBefore = this.bench.world.keyCycles;
		this.bench.turnKey('off');
		this.bench.advance(10);
		this.bench.turnKey('on');
		this.bench.advance(5);
		await this.add(
			'key-cycled',
			{ confirmedBy: 'vehicle', countBefore, countAfter: this.bench.world.keyCycles },
			author
		);
	}

	private async watchLamps(author: Author): Promise<void> {
		const { lamps } = this.bench.state;
		await this.add(
			'lamp-check',
			{
				lamps: (['anti-lock', 'stability'] as const).map((lamp) => ({
					lamp,
					result: lamps[lamp] ? ('stays on' as const) : ('lit and went out' as const)
				}))
			},
			author
		);
	}

	/** Clear, key, lamps, read: the proof as far as it goes without driving. */
	async proveStanding(author: Author): Promise<void> {
		await this.clear(author);
		await this.cycleKey(author);
		await this.watchLamps(author);
		await this.scan(author);
	}

	/** Drives without writing it down, as a customer does. */
	driveAway(): void {
		this.bench.drive(STRAIGHT_DRIVE);
		this.bench.advance(STRAIGHT_DRIVE.reduce((sum, leg) => sum + leg.overS, 1));
	}

	async provingDrive(author: Author, road: 'dry' | 'wet'): Promise<void> {
		const before = this.bench.state.odometerKm;
		this.driveAway();
		const distanceKm = Math.round((this.bench.state.odometerKm - before) * 10) / 10;
		await this.add(
			'proving-drive',
			{
				distanceKm,
				// Most of it at speed, by the driver's word.
				asShownKm: Math.round(distanceKm * 7) / 10,
				topSpeedKmh: 65,
				stops: 1,
				road,
				driver: 'Teo',
				note: ''
			},
			author
		);
	}

	/** Measures the sound mate first, then the wheel in question. */
	async measureBoth(at: Position, mate: Position, measurement: string, author: Author): Promise<void> {
		const good = benchReading(this.bench, mate, measurement, null, true);
		await this.add('meter-reading', good, author);
		this.later(4);
		await this.add('meter-reading', benchReading(this.bench, at, measurement, good.judgedValue), author);
	}

	async mend(
		repair: {
			title: string;
			part: string;
			number: string;
			note: string;
			position: Position | null;
			/** A module, where it is not done at a wheel. */
			place?: string;
		},
		action: string,
		author: Author
	): Promise<void> {
		const place = repair.place ?? repair.position ?? 'vehicle';
		this.bench.mend(place, action);
		// What got power anew needs a moment before it answers.
		this.bench.advance(2);
		await this.add(
			'repair',
			{
				title: repair.title,
				position: repair.position,
				parts: [{ name: repair.part, number: repair.number, grade: 'maker’s own' }],
				temporary: false,
				note: repair.note,
				...(repair.place === undefined ? {} : { does: { kind: action, place } })
			},
			author
		);
	}

	priorWork(part: string, work: string, when: string, by: string, author: Author): Promise<void> {
		return this.add('prior-work', { works: [{ part, work, when, by, grade: 'no-name' }] }, author);
	}

	async sign(author: Author): Promise<void> {
		const { open, verdict, released } = projectCase(await this.threads.read(this.caseId));
		if (open.length > 0) throw new Error(`it cannot be signed: ${open.map(openWords).join(' ')}`);
		const statement = 'Checked against the evidence and released.';
		await this.add('signature', { statement, verdict, outcome: released ? 'released' : 'proven' }, author);
	}
}
