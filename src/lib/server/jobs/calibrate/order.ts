import type { VehicleType } from '../../../../../library';
import type { PlacedCalibration } from '../../../../../library/calibrations';
import type { CalibrationTried } from '../../../case/entries/calibration/payload';

/** Somebody to tell how far it has come, and who may have it stopped. */
export interface CalibrationWatcher {
	tell(now: string, done: { name: string; note: string }[]): void;
	/** Called once something is about to be changed in the module; what it returns is waited for. */
	sofar(tried: CalibrationTried): Promise<void>;
	cancelled(): boolean;
}

/** What a calibration is begun with. */
export interface CalibrationOrder {
	placed: PlacedCalibration;
	type: VehicleType;
	/** Conditions that a person has confirmed. */
	said: ReadonlySet<string>;
	/** Electrical codes that stand in the module by its last reading. */
	circuitCodes: readonly string[];
}
