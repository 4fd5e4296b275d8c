import type { VehicleType } from '../../../../library';
import { knownTeeth } from '../../../../library/vehicle/known';
import { splitCodeKey } from '../../core/codes/codeKey';
import { analyseLive, type LiveVehicle } from '../../core/live/analyse';
import type { Chunk } from '../../core/live/chunk';
import { conditionsOver, type NamedCondition } from '../../core/live/conditionsOver';
import { drivenIn } from '../../core/prove/odometer';
import { LiveRecording } from '../entries/live-recording/payload';
import { triedThings } from './triedThings';
import { samplesHash } from '../thread/samplesHash';

export const liveVehicleOf = (type: VehicleType): LiveVehicle => ({
	trackM: type.chassis.trackM,
	wheelbaseM: type.chassis.wheelbaseM,
	teeth: knownTeeth(type, type.wheels[0]?.position)
});

/** A condition that was met in one reading alone was met all the same. */
const MET_AT_ONCE_S = 0.01;

/**
 * What the thread keeps of a recording: what it is, what the analysis finds in it, and for how long it met what the tests of
 * the case's codes need.
 *
 * @param tests each named by the key of its code
 */
export function recordingPayload(
	samples: Chunk,
	vehicle: LiveVehicle | undefined,
	about: Pick<LiveRecording, 'name' | 'purpose' | 'source' | 'marks' | 'endedBecause' | 'heard'>,
	tests: readonly NamedCondition[] = []
): LiveRecording {
	const recording = { ...samples, problems: [] };
	const analysis = analyseLive(recording, vehicle);
	const bands = drivenIn(samples)?.bands.map((band) => ({ ...band, km: Number(band.km.toFixed(5)) }));
	return LiveRecording.parse({
		...about,
		durationS: Number.isFinite(analysis.durationS) ? analysis.durationS : 0,
		rows: samples.timeS.length,
		rateHz: Number.isFinite(analysis.rateHz) ? analysis.rateHz : 0,
		channels: analysis.channels,
		findings: analysis.findings,
		common: analysis.common,
		notes: analysis.notes,
		onStands: analysis.onStands,
		verdict: analysis.verdict,
		shortestVisibleS: Number.isFinite(analysis.shortestVisibleS) ? analysis.shortestVisibleS : 0,
		// What it has no signals for it says nothing of.
		conditions: conditionsOver(recording, tests)
			.filter(({ missing }) => missing.length === 0)
			.map(({ name, metS, firstS }) => {
				return { ...splitCodeKey(name), metS: firstS === null ? 0 : Math.max(metS, MET_AT_ONCE_S) };
			}),
		tried: triedThings(samples, about),
		samplesSha256: samplesHash(samples),
		bands: bands?.filter(({ km }) => km > 0)
	});
}
