import type { TriedThing } from '../entries/live-recording/payload';
import { ENTRY_VERSION, type Entry, type EntryKind, type PayloadOf } from '../entries/entry';
import { type NetworkScan, type ScannedModule } from '../entries/network-scan/payload';
import { entryHash, FIRST_PREVIOUS } from './hashChain';

/** Builds threads for tests: one entry a minute, chained as the server chains them. */
export class ThreadMaker {
	readonly thread: Entry[] = [];

	add<K extends EntryKind>(kind: K, payload: PayloadOf<K>, change: Partial<Entry> = {}): Entry {
		const seq = this.thread.length + 1;
		const at = new Date(Date.UTC(2026, 10, 24, 9, seq)).toISOString();
		const stamped = {
			id: `01JD${String(seq).padStart(22, '0')}`,
			caseId: '01JC0000000000000000000000',
			kind,
			version: ENTRY_VERSION,
			observedAt: at,
			payload,
			supersedes: null,
			seq,
			authorId: 'ana',
			authorName: 'Ana',
			receivedAt: at,
			previousHash: this.thread.at(-1)?.hash ?? FIRST_PREVIOUS,
			...change
		} as Omit<Entry, 'hash'>;
		const entry = { ...stamped, hash: entryHash(stamped) } as Entry;
		this.thread.push(entry);
		return entry;
	}

	listen(): this {
		this.add('complaint', { words: 'Lamp on', symptoms: [], conditions: [] });
		this.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 10 });
		return this;
	}

	/** Provoked by hand, or in gear: what was done, and how often the value changed. */
	provoked(...tried: TriedThing[]): this {
		this.add('live-recording', {
			name: 'Provoked by hand',
			purpose: { what: 'wiggle', position: tried[0]?.position ?? 'rear-left' },
			source: { kind: 'vehicle' },
			durationS: 30,
			rows: 300,
			rateHz: 10,
			channels: ['rear_left'],
			marks: [],
			endedBecause: null,
			findings: [],
			common: [],
			notes: [],
			verdict: '',
			shortestVisibleS: 0.1,
			tried
		});
		return this;
	}

	scan(
		codes: [address: string, dtc: string, status: number][],
		change: Partial<NetworkScan> = {},
		silent: string[] = []
	): Entry {
		const modules = MODULES.map(([address, name]): ScannedModule => {
			const mine = codes.filter(([at]) => at === address);
			return {
				address,
				name,
				answered: !silent.includes(address),
				trouble: silent.includes(address) ? 'The module did not answer.' : null,
				software: null,
				availabilityMask: 0xff,
				codes: mine
					.filter(([, , status]) => (status & 0xaf) !== 0)
					.map(([, dtc, status]) => ({
						dtc,
						status,
						snapshots: [],
						occurrences: 1,
						ageingCycles: 0,
						troubles: []
					})),
				supported: mine.map(([, dtc, status]) => ({ dtc, status })),
				exchanges: []
			};
		});
		return this.add('network-scan', {
			outcome: 'complete',
			stoppedBecause: null,
			vin: null,
			keyCycles: 7,
			modulesExpected: modules.length,
			modules,
			...change
		});
	}

	repair(): this {
		this.add('repair', {
			title: 'Lead renewed',
			position: 'rear-left',
			parts: [],
			temporary: false,
			note: ''
		});
		return this;
	}

	clear(...addresses: string[]): this {
		const chosen = MODULES.filter(([address]) => addresses.length === 0 || addresses.includes(address));
		this.add('codes-cleared', {
			keyCycles: 7,
			modules: chosen.map(([address, name]) => ({ address, name, outcome: 'cleared' as const, detail: null }))
		});
		return this;
	}

	cycleKey(): this {
		this.add('key-cycled', { confirmedBy: 'vehicle', countBefore: 7, countAfter: 8 });
		return this;
	}

	lamps(result: PayloadOf<'lamp-check'>['lamps'][number]['result'] = 'lit and went out'): this {
		this.add('lamp-check', { lamps: [{ lamp: 'anti-lock', result }] });
		return this;
	}

	drive(): this {
		this.add('proving-drive', {
			distanceKm: 3,
			topSpeedKmh: 60,
			stops: 1,
			road: 'dry',
			driver: '',
			note: ''
		});
		return this;
	}
}

export const BRAKE = '1010';
export const CLUSTER = '1030';
const MODULES: [string, string][] = [
	[BRAKE, 'Brake control'],
	[CLUSTER, 'Instrument cluster']
];
/** C0045-13, rear-left wheel speed circuit open. */
export const OPEN = '404513';
