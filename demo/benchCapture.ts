import { likeliestFamilyAt } from '../library/wheelSensors';
import { channelOf } from '../library/positions';
import type { Position } from '../library';
import { scopeProbe } from '../library/measurePoints';
import { BenchScope } from '../src/lib/bench/instruments/scope';
import type { BenchVehicle } from '../src/lib/bench/vehicle';
import type { ScopeCapture } from '../src/lib/case/entries/scope-capture/payload';
import { captureHash } from '../src/lib/case/thread/samplesHash';
import { positionWords } from '../src/lib/case/words';
import type { Capture } from '../src/lib/core/scope/capture';
import { encodeCapture } from '../src/lib/core/scope/captureChunk';
import { scopePayload } from '../src/lib/server/jobs/scopeCapture';

const RATE_HZ = 20_000;
const DURATION_S = 4;
const SPUN_KMH = 14;

/** A capture of wheels that are lifted and turned by hand, taken at the module, as a technician would have saved it. */
export function benchCapture(
	vehicle: BenchVehicle,
	name: string,
	positions: readonly Position[]
): { kept: Uint8Array; payload: ScopeCapture } {
	const { type } = vehicle.world;
	vehicle.world.motion.stop();
	for (const position of positions) vehicle.spin(position, SPUN_KMH);
	vehicle.advance(3);
	const taken = new BenchScope(vehicle).capture({
		probes: positions.map((position) =>
			scopeProbe(type, position, 'module', likeliestFamilyAt(type, position))
		),
		rateHz: RATE_HZ,
		durationS: DURATION_S
	});
	if (!taken.ok) throw new Error(taken.error);
	for (const position of positions) vehicle.spin(position, 0);
	vehicle.advance(3);
	const capture: Capture = {
		rateHz: taken.value.rateHz,
		startS: 0,
		channels: taken.value.channels.map((volts, i) => ({
			name: positions[i] ? channelOf(positions[i]) : '',
			volts
		}))
	};
	const kept = encodeCapture(capture);
	const payload = scopePayload(
		capture,
		positions.map((position) => ({
			position,
			probe: `${positionWords(position)}, at the module`,
			at: 'module' as const
		})),
		{
			name,
			samplesSha256: captureHash(kept),
			knownGood: false,
			typeId: type.id,
			source: { kind: 'instrument' },
			teeth: type.wheels.find(({ position }) => position === positions[0])?.ringTeeth ?? null
		}
	);
	return { kept, payload };
}
