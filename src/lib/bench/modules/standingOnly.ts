import type { World } from '../world';

const STANDS_MPS = 0.3;
export const CONDITIONS_NOT_RIGHT = 0x22;
const VOLTAGE_TOO_LOW = 0x93;
/** Battery support is asked for: below this a calibration is refused. */
const CALIBRATION_FROM_V = 12;

/** Why a calibration at standstill cannot run now. */
export function standingOnly(world: World, volts: number): number | null {
	return whileMoving(world) ?? (volts < CALIBRATION_FROM_V ? VOLTAGE_TOO_LOW : null);
}

/** Why nothing that needs it to stand can run now. */
export const whileMoving = ({ motion }: World): number | null =>
	motion.speedMps > STANDS_MPS ? CONDITIONS_NOT_RIGHT : null;
