import { fail, ok, type Result } from '../src/lib/core/result';
import { STEP_S, type BenchVehicle } from '../src/lib/bench/vehicle';
import type { FoundModule, LinkError, VehicleLink } from '../src/lib/link/vehicleLink';

/** A line straight into a bench vehicle in this process: the same bytes as over TCP, without the waiting. */
export class DirectLink implements VehicleLink {
	readonly over = 'network';

	constructor(private readonly vehicle: BenchVehicle) {}

	async request(address: number, bytes: ArrayLike<number>): Promise<Result<Uint8Array, LinkError>> {
		const answers = this.vehicle.request(address, Uint8Array.from(bytes));
		if (answers === null) return fail({ kind: 'unreachable', text: 'The module cannot be reached.' });
		const last = answers.at(-1);
		if (!last) return fail({ kind: 'no-answer', text: 'The module did not answer.' });
		this.vehicle.advance(last.afterS + STEP_S);
		return ok(Uint8Array.from(last.bytes));
	}

	search(): Promise<Result<FoundModule[], LinkError>> {
		return Promise.resolve(
			ok([...this.vehicle.modules.keys()].map((address) => ({ address, silent: null })))
		);
	}

	close(): void {}
}
