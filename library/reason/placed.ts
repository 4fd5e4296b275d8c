import type { ModelFault, ModelRepair, PathModel } from '../../src/lib/core/path/model';
import type { Fault } from '../faults';
import type { VehicleType } from '../vehicles';
import type { OutcomeBin } from './outcomes';
import { signKey } from './signs';

/** A fault of the library at a place of a vehicle. */
export interface PlacedFault extends ModelFault {
	fault: Fault;
	place: string;
}

/** A repair of the library at a place. */
export interface PlacedRepair extends ModelRepair {
	kind: string;
	name: string;
	place: string;
}

/** A fault in one of its bins. */
export interface ModelRow {
	fault: number;
	share: number;
	bin: OutcomeBin;
	/** Of what is not described: like the described faults of which link of its place; null = like all of them. */
	like: Fault['link'] | null;
}

export interface ReasonModel extends PathModel {
	type: VehicleType;
	faults: readonly PlacedFault[];
	rows: readonly ModelRow[];
	background: ReadonlySet<number>;
	repairs: readonly PlacedRepair[];
}

/** The place whose undescribed faults are like this one: what feeds several belongs to the vehicle. */
export const placeOfAll = ({ fault, place }: Pick<PlacedFault, 'fault' | 'place'>): string =>
	fault.at === 'corner' || fault.at === 'module' ? signKey(fault.at, place) : signKey('vehicle', 'vehicle');
