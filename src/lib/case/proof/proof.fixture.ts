import { openWords } from '../codes/openReason';
import type { PayloadOf } from '../entries/entry';
import { projectCase } from '../progress/project';
import { proofView } from './proofView';
import type { ShowsWhen } from '../entries/returns-told/payload';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';

/** Stored, its test passed in this key cycle: it comes and goes. */
export const COMES_AND_GOES = 0x2c;

/** A thread on which one code of one wheel is proven. */
export class ProofThread extends ThreadMaker {
	recording(change: Partial<PayloadOf<'live-recording'>> = {}): this {
		this.add('live-recording', {
			name: 'road',
			source: { kind: 'vehicle' },
			durationS: 60,
			rows: 600,
			rateHz: 10,
			channels: ['vehicle', 'rear_left'],
			marks: [],
			endedBecause: null,
			findings: [],
			common: [],
			notes: [],
			verdict: 'clean',
			shortestVisibleS: 0.1,
			...change
		});
		return this;
	}
	dropsOut(): this {
		return this.recording({
			findings: [
				{
					type: 'dropout',
					channel: 'rear_left',
					startS: 1,
					endS: 2,
					count: 1,
					value: 0,
					text: 'rear left drops out'
				}
			]
		});
	}
	told(returns: number, overKm: number, target = 0.05, showsWhen?: ShowsWhen): this {
		this.add('returns-told', {
			address: BRAKE,
			dtc: OPEN,
			returns,
			overKm,
			from: 'the customer',
			conditions: 'in rain',
			showsWhen,
			target
		});
		return this;
	}
	driven(distanceKm: number, change: Partial<PayloadOf<'proving-drive'>> = {}): this {
		const drive = { distanceKm, topSpeedKmh: 60, stops: 1, road: 'wet' as const, driver: '', note: '' };
		this.add('proving-drive', { ...drive, ...change });
		return this;
	}
	letGo(mark: PayloadOf<'proof-waived'>['mark']): this {
		this.add(
			'proof-waived',
			{ address: BRAKE, dtc: OPEN, mark, why: 'The ferry leaves', customer: 'agreed', residualChance: 0.4 },
			{ authorName: 'Marit' }
		);
		return this;
	}
	proving(): this {
		return this.repair().clear().cycleKey().lamps();
	}
	get code() {
		const view = projectCase(this.thread);
		const [code] = view.codes;
		if (!code) throw new Error('no code');
		return {
			...proofView(code, view.entries, view.codes),
			open: view.open.map(openWords),
			proven: view.proven
		};
	}
}
/** Listened to, and read once. */
export const begun = (status = 0x2f) => {
	const thread = new ProofThread().listen() as ProofThread;
	thread.scan([[BRAKE, OPEN, status]]);
	return thread;
};
