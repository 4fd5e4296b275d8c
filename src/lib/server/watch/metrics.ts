import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client';

/** Seconds; what a page may take lies in the middle. */
const BUCKETS = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

/** What is read from the server whenever somebody asks. */
export interface Readings {
	/** Whether the database can be written. */
	ready: () => boolean;
	recordings: () => number;
	streams: () => number;
}

/** Figures of this process, whatever shops it has. */
export function processFigures(): Registry {
	const register = new Registry();
	collectDefaultMetrics({ register, prefix: 'jaldi_' });
	return register;
}

/** Figures of a running shop in the text format of Prometheus. Routes are named as they are written: no id is in any label. */
export class Metrics {
	private readonly registry = new Registry();
	private readonly requests: Histogram<'route' | 'method' | 'status'>;
	private readonly troubles: Counter<'kind'>;

	constructor(
		{ ready, recordings, streams }: Readings,
		private readonly ofProcess: Registry
	) {
		const registers = [this.registry];
		this.requests = new Histogram({
			name: 'jaldi_request_seconds',
			help: 'Time until a request was answered, by route, method and class of status.',
			labelNames: ['route', 'method', 'status'],
			buckets: BUCKETS,
			registers
		});
		this.troubles = new Counter({
			name: 'jaldi_troubles_total',
			help: 'What went wrong or took long, by where it was seen.',
			labelNames: ['kind'],
			registers
		});
		const gauge = (name: string, help: string, read: () => number) =>
			new Gauge({
				name,
				help,
				registers,
				collect() {
					this.set(read());
				}
			});
		gauge('jaldi_ready', '1 while the database can be written.', () => (ready() ? 1 : 0));
		gauge('jaldi_recordings', 'Recordings of live data under way.', recordings);
		gauge('jaldi_streams', 'Pages that follow a case as it changes.', streams);
	}

	/** @param route as it is written, null = an address that there is not */
	answered(route: string | null, method: string, status: number, seconds: number): void {
		this.requests.observe(
			{ route: route ?? 'none', method, status: `${Math.floor(status / 100)}xx` },
			seconds
		);
	}

	trouble(kind: string): void {
		this.troubles.inc({ kind });
	}

	get contentType(): string {
		return this.registry.contentType;
	}

	text(): Promise<string> {
		return Registry.merge([this.ofProcess, this.registry]).metrics();
	}
}
