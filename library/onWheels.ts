import type { CodeBook, SourcedDefinition } from './codes';
import type { Position } from './positions';
import type { VehicleType } from './vehicle/vehicleType';

/** The axles of a four-wheeled vehicle, as the numbered axles of any other are counted from the front. */
const COUNTED: Record<string, number> = { front: 1, rear: 2, axle1: 1, axle2: 2, axle3: 3 };
const axleOf = (position: Position): string => position.split('-')[0] ?? '';

/**
 * The wheel of this vehicle that a source means: sources say front and rear, or count the axles, whichever the vehicle's own
 * description does. Null where the vehicle has no such wheel.
 */
export function wheelMeant(wheels: readonly Position[], corner: Position): Position | null {
	if (wheels.includes(corner)) return corner;
	const axles = [...new Set(wheels.map(axleOf))].sort((a, b) => (COUNTED[a] ?? 0) - (COUNTED[b] ?? 0));
	const axle = axles[(COUNTED[axleOf(corner)] ?? 0) - 1];
	return wheels.find((one) => one === `${axle}-${corner.split('-')[1]}`) ?? null;
}

const made = new WeakMap<CodeBook, WeakMap<VehicleType, CodeBook>>();

/** A book whose corners are wheels that this vehicle has. The same book each time. */
export function onWheels(book: CodeBook, type: VehicleType): CodeBook {
	const ofBook = made.get(book) ?? new WeakMap<VehicleType, CodeBook>();
	made.set(book, ofBook);
	const known = ofBook.get(type);
	if (known) return known;
	const wheels = type.wheels.map(({ position }) => position);
	const byCode = new Map<string, readonly SourcedDefinition[]>();
	const own: CodeBook = {
		definitions(code) {
			const all =
				byCode.get(code) ??
				book
					.definitions(code)
					.map((one) => ({ ...one, corner: one.corner && wheelMeant(wheels, one.corner) }));
			byCode.set(code, all);
			return all;
		}
	};
	ofBook.set(type, own);
	return own;
}
