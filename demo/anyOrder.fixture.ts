import { hexToBytes } from '@noble/hashes/utils.js';
import { identifiers, type VehicleType } from '../library';
import { reasonModel } from '../library/reason/model';
import type { ReasonModel } from '../library/reason/placed';
import { testsFor } from '../library/reason/tests';
import { lampTableOf } from '../library/lampTables';
import { randomDrive } from '../src/lib/bench/randomDrive';
import { mixedSeed } from '../src/lib/bench/technician/mixedSeed';
import { SimulatedTechnician } from '../src/lib/bench/technician/simulatedTechnician';
import { trialVehicle } from '../src/lib/bench/technician/trialVehicle';
import { drawCase } from '../src/lib/bench/trial/trialCase';
import { uniform, type BenchVehicle } from '../src/lib/bench/vehicle';
import { tellsOfFault } from '../src/lib/core/codes/status';
import { policyAt } from '../src/lib/core/path/policy';
import { parseCodeList, parseSnapshots } from '../src/lib/core/uds/readCodes';
import { mayClear } from '../src/lib/case/codes/mayClear';
import type { EntryKind, PayloadOf } from '../src/lib/case/entries/entry';
import type { ScannedModule } from '../src/lib/case/entries/network-scan/payload';
import { complaintOpen } from '../src/lib/case/listen/complaintThings';
import { mendedBy, openCalibrations } from '../src/lib/case/mend/calibrations';
import { reasonAbout, type Reasoning } from '../src/lib/case/reason/reasoning';
import { inTheWayNow } from '../src/lib/case/thread/inTheWay';
import { ThreadMaker } from '../src/lib/case/thread/threads.fixture';
import { CLOSED_UNPROVEN, projectCase, type CaseView } from '../src/lib/case/progress/project';
import { leftOpen, mayNotCloseUnproven, mayNotSign } from '../src/lib/case/progress/signing';
import { standingItems } from '../src/lib/case/progress/standingItems';

/** Somebody who works on a simulated vehicle in any order at all, and writes down what was done and seen. */
export class AnyOrder {
	readonly maker = new ThreadMaker();
	readonly vehicle: BenchVehicle;
	readonly type: VehicleType;
	/** What was done last, and on what vehicle. */
	readonly story: string[] = [];
	private readonly technician: SimulatedTechnician;
	private readonly random: () => number;
	private readonly model: ReasonModel;
	private projected: { length: number; view: CaseView } | null = null;
	private reasoned: { length: number; reasoning: Reasoning } | null = null;

	/** @param type absent = one of the shipped ones that has a link */
	constructor(seed: number, type?: VehicleType) {
		this.random = uniform(mixedSeed(seed));
		const drawn = drawCase(seed, this.random, type);
		this.type = drawn.type;
		this.vehicle = trialVehicle(drawn.built, structuredClone(drawn.faults), seed);
		this.technician = new SimulatedTechnician(this.vehicle, uniform(mixedSeed(seed + 7)));
		this.model = modelOf(this.type);
		this.technician.arrives(2);
		this.story.push(drawn.type.id, ...drawn.faults.map(({ id, at }) => `${id}@${at}`));
		this.maker.add('case-opened', {
			vehicleId: 'v',
			typeId: drawn.type.id,
			name: drawn.type.model,
			plate: 'TP 16'
		});
	}

	get view(): CaseView {
		const { length } = this.maker.thread;
		if (this.projected?.length !== length)
			this.projected = { length, view: projectCase([...this.maker.thread]) };
		return this.projected.view;
	}

	get reasoning(): Reasoning {
		const { length } = this.maker.thread;
		if (this.reasoned?.length !== length) {
			const { entries, book, codes, numberingOpen } = this.view;
			this.reasoned = {
				length,
				reasoning: reasonAbout(entries, this.model, { book, codes, numberingOpen, policy: policyAt(0.8) })
			};
		}
		return this.reasoned.reasoning;
	}

	/** Does one thing, drawn from all that can be done now. */
	step(): void {
		const acts = this.acts();
		const act = this.pick(Object.keys(acts)) as string;
		const said = acts[act]?.();
		this.story.push(typeof said === 'string' ? `${act} ${said}` : act);
	}

	private pick<T>(of: readonly T[]): T | undefined {
		return of[Math.floor(this.random() * of.length)];
	}

	private add<K extends EntryKind>(kind: K, payload: PayloadOf<K>): void {
		this.maker.add(kind, payload);
	}

	private acts(): Record<string, () => unknown> {
		const wheel = () => this.pick(this.type.wheels)?.position ?? 'rear-left';
		return {
			complain: () =>
				this.add('complaint', {
					words: this.pick(['Lamp on', 'It pulls', 'It pulses under the foot']) ?? '',
					symptoms: [],
					conditions: [],
					felt: this.random() < 0.5 ? ['pedal-pulses'] : []
				}),
			number: () =>
				this.add('vehicle-checked', {
					vin: this.random() < 0.8 ? '11111111111111111' : '22222222222222222',
					checkDigitFits: this.random() < 0.8,
					odometerKm: 84_000
				}),
			lamps: () =>
				this.add('lamps-reported', { lamps: [{ lamp: 'anti-lock', manner: 'steady', when: 'always' }] }),
			tyres: () =>
				this.add('tyres-fitted', {
					tyres: this.type.wheels.map(({ position }) => ({
						position,
						size: this.random() < 0.9 ? '205/75R16C' : '215/75R16C',
						brand: '',
						treadMm: null,
						pressureKpa: null
					}))
				}),
			prior: () =>
				this.add('prior-work', {
					works: [
						{
							part: 'wheel sensor',
							work: 'wheel-sensor',
							when: '',
							by: '',
							grade: 'no-name',
							position: wheel(),
							stayed: this.random() < 0.5
						}
					]
				}),
			scan: () => this.scan(),
			scanAgain: () => this.scan(),
			clear: () => this.clear(),
			key: () => this.key(),
			bulbs: () =>
				this.add('lamp-check', {
					lamps: [{ lamp: 'anti-lock', result: this.random() < 0.7 ? 'lit and went out' : 'stays on' }]
				}),
			test: () => this.test(this.pick(testsFor(this.type).filter(({ kind }) => kind.id !== 'scan'))?.id),
			bestTest: () => this.test(this.reasoning.decision.test?.test.id),
			aside: () => this.setAside(),
			bestRepair: () => this.repair(this.reasoning.decision.mending[0]?.repair),
			anyRepair: () =>
				this.random() < 0.3
					? this.repair(Math.floor(this.random() * this.model.repairs.length))
					: 'thought better of it',
			teach: () => this.teach(),
			waive: () => this.waiveTeaching(),
			drive: () => this.drive(),
			answer: () => this.answer(),
			release: () => this.release(),
			substitute: () => this.holdOrTakeOff(),
			wait: () => this.add('waiting', { what: 'a part', lift: '', note: '' }),
			lampRead: () => (this.type.tells === 'lamp' ? this.readLamp() : 'it has a link'),
			sign: () => this.sign()
		};
	}

	private scan(): unknown {
		if (this.type.tells === 'lamp') return 'no link';
		const { vehicle } = this;
		vehicle.turnKey('on');
		vehicle.advance(2);
		const modules = this.type.modules.map(({ address, name }): ScannedModule => {
			const at = parseInt(address, 16);
			const ask = (request: string) => {
				const bytes = vehicle.request(at, hexToBytes(request))?.at(-1)?.bytes;
				return bytes ? Uint8Array.from(bytes) : null;
			};
			const answered = vehicle.reachable(at);
			const list = answered ? ask('1902FF') : null;
			const parsed = list && parseCodeList(list);
			const told = parsed?.ok ? parsed.value : null;
			return {
				address,
				name,
				answered,
				trouble: answered ? null : 'The module did not answer.',
				software: null,
				availabilityMask: told?.availabilityMask ?? 0xff,
				codes: (told?.codes ?? [])
					.filter(({ status }) => tellsOfFault(status))
					.map(({ dtc, status }) => {
						const snapshots = ask(`1904${dtc}FF`);
						const read = snapshots && parseSnapshots(snapshots, (id) => identifiers.get(id)?.bytes ?? null);
						return {
							dtc,
							status,
							snapshots: read?.ok ? read.value : [],
							occurrences: 1,
							ageingCycles: 0,
							troubles: []
						};
					}),
				supported: told?.codes.map(({ dtc, status }) => ({ dtc, status })) ?? [],
				exchanges: []
			};
		});
		const cutShort = this.random() < 0.05;
		this.add('network-scan', {
			outcome: cutShort ? 'partial' : 'complete',
			stoppedBecause: cutShort ? 'It was stopped by hand.' : null,
			vin: this.random() < 0.9 ? null : '11111111111111111',
			keyCycles: null,
			modulesExpected: modules.length,
			modules: cutShort ? modules.slice(0, 2) : modules
		});
		return modules.flatMap(({ codes }) => codes.map(({ dtc }) => dtc)).join();
	}

	private clear(): unknown {
		const may = mayClear(this.view, null);
		if (!may.ok) return may.error;
		for (const { address } of may.value) this.vehicle.request(parseInt(address, 16), hexToBytes('14FFFFFF'));
		this.add('codes-cleared', {
			keyCycles: null,
			modules: may.value.map(({ address, name }) => ({
				address,
				name,
				outcome: 'cleared' as const,
				detail: null
			}))
		});
		return null;
	}

	private key(): void {
		this.vehicle.turnKey('off');
		this.vehicle.advance(10);
		this.vehicle.turnKey('on');
		this.vehicle.advance(5);
		this.maker.cycleKey();
	}

	private test(id: string | undefined): unknown {
		const test = testsFor(this.type).find((one) => one.id === id);
		if (!test) return 'no test';
		// A lamp tells a person; a link asks modules.
		if (this.type.tells === 'lamp' && test.kind.station === 'read') return 'no link';
		const seen = this.technician.perform(test);
		this.add('test-step', {
			test: test.kind.id,
			place: test.place,
			name: test.kind.name,
			station: test.kind.station,
			from: 'suggested',
			how: 'done',
			seen,
			because: '',
			minutes: null
		});
		return `${test.id} ${Object.values(seen).join()}`;
	}

	private setAside(): unknown {
		if (this.random() < 0.5) return 'nothing';
		const test = this.reasoning.decision.test?.test;
		const placed = testsFor(this.type).find(({ id }) => id === test?.id);
		if (!placed) return 'nothing';
		this.add('test-step', {
			test: placed.kind.id,
			place: placed.place,
			name: placed.kind.name,
			station: placed.kind.station,
			from: 'suggested',
			how: 'cannot',
			seen: {},
			because: 'no tool',
			minutes: null
		});
		return placed.id;
	}

	private repair(index: number | undefined): unknown {
		const repair = index === undefined ? undefined : this.model.repairs[index];
		if (!repair) return 'none';
		this.vehicle.mend(repair.place, repair.kind);
		this.add('repair', {
			title: repair.kind,
			position: null,
			parts: [],
			temporary: false,
			note: '',
			does: { kind: repair.kind, place: repair.place }
		});
		return repair.id;
	}

	private teach(): unknown {
		const due = openCalibrations(this.view.entries).find(({ waitsFor }) => waitsFor.length === 0);
		if (!due) return 'nothing due';
		const { calibration, module } = due.placed;
		this.add('calibration', {
			calibration: calibration.id,
			role: module.role,
			address: module.address,
			name: calibration.name,
			how: 'link',
			state: this.random() < 0.85 ? 'done' : 'failed',
			values: [],
			conditions: [],
			detail: ''
		});
		const last = this.maker.thread.at(-1);
		if (last?.kind === 'calibration' && last.payload.state === 'done')
			this.vehicle.mend(module.role, mendedBy(last).kind);
		return due.id;
	}

	private waiveTeaching(): unknown {
		const [due] = openCalibrations(this.view.entries);
		if (!due || this.random() < 0.6) return 'nothing';
		const { calibration, module } = due.placed;
		this.add('calibration-waived', {
			calibration: calibration.id,
			role: module.role,
			name: calibration.name,
			why: 'another workshop does it'
		});
		return due.id;
	}

	private drive(): void {
		this.vehicle.turnKey('on');
		this.vehicle.advance(2);
		const legs = randomDrive(this.random, 3, this.type.chassis.steeringRatio, this.type.chassis.wheelbaseM);
		this.vehicle.drive(legs);
		this.vehicle.advance(legs.reduce((sum, { overS }) => sum + overS, 2));
		this.maker.drive();
	}

	private answer(): unknown {
		const thing = this.pick(complaintOpen(this.view.entries));
		if (!thing) return 'nothing open';
		const how = this.pick(['shows-again', 'does-not-show', 'gone', 'explained'] as const) ?? 'gone';
		this.add('complaint-answered', {
			what: thing.what,
			thing: thing.thing,
			how,
			why: 'tried as it was told'
		});
		return `${thing.key} ${how}`;
	}

	private release(): unknown {
		const item = this.pick(standingItems(this.view.entries));
		if (!item || this.random() < 0.6) return 'nothing';
		this.add('release', { subject: item.subject, of: item.of, words: item.words, why: 'the customer knows' });
		return item.of;
	}

	/** Puts a signal of ours in, or takes every one of them off again. */
	holdOrTakeOff(): unknown {
		const [held] = inTheWayNow(this.view.entries).places;
		const position = (held ?? this.pick(this.type.wheels)?.position ?? 'rear-left') as 'rear-left';
		if (!held && this.random() < 0.7) return 'left alone';
		this.add('signal-held', {
			position,
			method: 'resistor',
			name: 'A resistor',
			on: held === undefined
		});
		return position;
	}

	private readLamp(): unknown {
		const table = lampTableOf(this.type.id);
		if (table?.kind !== 'codes') return 'no table';
		const [code, { words }] = this.pick(Object.entries(table.codes)) ?? ['1-2', { words: '' }];
		this.add('lamp-read', {
			lamp: 'anti-lock',
			flashes: [{ onS: 0.3, offS: 0.3 }],
			groups: code.split('-').map(Number),
			repeats: 3,
			confidence: 1,
			table: table.id,
			meaning: words
		});
		return code;
	}

	private sign(): unknown {
		const refused = mayNotSign(this.view, 'marit', false);
		if (refused) return refused;
		this.add('signature', { statement: 'Released.', verdict: this.view.verdict, outcome: 'proven' });
		return 'signed';
	}

	/** What a lead does who only wants to be done: takes off what is ours, signs, or closes it with things open. Says why not. */
	end(): string | null {
		const { maker } = this;
		for (let tries = 0; inTheWayNow(this.view.entries).places.size > 0; tries++) {
			if (tries > this.type.wheels.length) return 'what is ours cannot be taken off';
			this.holdOrTakeOff();
		}
		const { view } = this;
		if (view.signature) return null;
		if (mayNotSign(view, 'marit', true) === null) return null;
		const refused = mayNotCloseUnproven(view);
		if (refused) return refused;
		const closed = new ThreadMaker();
		closed.thread.push(...maker.thread);
		closed.add('signature', {
			statement: 'It stays as it is.',
			verdict: CLOSED_UNPROVEN,
			outcome: 'unproven',
			left: leftOpen(view)
		});
		return projectCase(closed.thread).next === null ? null : 'a closed case has something to do';
	}
}

const models = new Map<string, ReasonModel>();
function modelOf(type: VehicleType): ReasonModel {
	const known = models.get(type.id) ?? reasonModel(type);
	models.set(type.id, known);
	return known;
}
