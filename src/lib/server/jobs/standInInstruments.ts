import type {
	MeterPort,
	MeterReading,
	MeterRequest,
	ScopeCapture,
	ScopePort,
	ScopeRequest
} from '../../core/electrical/ports';
import { fail, ok, type Result } from '../../core/result';

const METER_TIMEOUT_MS = 2_000;
/** A trigger may take its time. */
const SCOPE_TIMEOUT_MS = 60_000;
const GONE = 'The simulated vehicle does not answer.';

/** Meter and oscilloscope of a stand-in vehicle, reached through its control panel. */
export class StandInInstruments implements MeterPort, ScopePort {
	/** @param address host and port of the control panel */
	constructor(private readonly address: string) {}

	async read(request: MeterRequest): Promise<Result<MeterReading>> {
		const answered = await this.post('/meter', request, METER_TIMEOUT_MS);
		return answered.ok ? ok((await answered.value.json()) as MeterReading) : answered;
	}

	async capture(request: ScopeRequest): Promise<Result<ScopeCapture>> {
		const answered = await this.post('/scope', request, SCOPE_TIMEOUT_MS);
		if (!answered.ok) return answered;
		const { headers } = answered.value;
		const samples = new Float32Array(await answered.value.arrayBuffer());
		const count = Number(headers.get('x-channels'));
		const length = samples.length / count;
		if (!Number.isInteger(length)) return fail('The capture was cut off on the way.');
		const triggerAt = headers.get('x-trigger-at-s');
		return ok({
			rateHz: Number(headers.get('x-rate-hz')),
			channels: Array.from({ length: count }, (_, i) => samples.slice(i * length, (i + 1) * length)),
			triggerAtS: triggerAt === null ? null : Number(triggerAt)
		});
	}

	private async post(path: string, body: unknown, timeoutMs: number): Promise<Result<Response>> {
		try {
			const response = await fetch(`http://${this.address}${path}`, {
				method: 'POST',
				body: JSON.stringify(body),
				signal: AbortSignal.timeout(timeoutMs)
			});
			if (response.ok) return ok(response);
			const said = (await response.json()) as { error?: string };
			return fail(said.error ?? GONE);
		} catch {
			return fail(GONE);
		}
	}
}
