import { CAR_POSITIONS, type Position } from '../../../../library/positions';
import { failureType } from '../../../../library/failureTypes';
import type { VehicleType } from '../../../../library';
import { suffixOf, type CodeId } from '../../core/codes/codeId';
import type { Entry } from '../entries/entry';
import { isDrive } from '../entries/live-recording/evidence';
import { circuitsOpenedBy } from './benchTests';

/** What a module says of a wheel that stands while another one turns. */
const OF_STANDING: readonly string[] = ['no-signal', 'implausible', 'pulse'];

/** Whose codes our own tests may have set since the last whole reading: wheels whose circuit was open, or that stood while others turned on stands. */
export class SetByTests {
	private readonly opened = new Map<Position, string>();
	private readonly stood = new Map<Position, string>();

	constructor(private readonly type: VehicleType | null) {}

	follow(entry: Entry): void {
		for (const circuit of circuitsOpenedBy(entry)) this.opened.set(circuit, entry.id);
		// What comes back from the road may be of the road.
		if (entry.kind === 'proving-drive' || (entry.kind === 'live-recording' && isDrive(entry.payload)))
			this.stood.clear();
		for (const position of this.standingIn(entry)) this.stood.set(position, entry.id);
	}

	/** A whole reading has told all that was there by then. */
	read(): void {
		this.opened.clear();
		this.stood.clear();
	}

	/** The test that may have set a code of a wheel; null where none has. */
	of(corner: Position | null, dtc: CodeId): string | null {
		if (corner === null) return null;
		const { class: kind } = failureType(suffixOf(dtc) ?? '');
		return this.opened.get(corner) ?? (OF_STANDING.includes(kind) ? (this.stood.get(corner) ?? null) : null);
	}

	/** Wheels that stood in a test while others turned. */
	private standingIn(entry: Entry): Position[] {
		if (entry.kind === 'wheel-round')
			return entry.payload.mode === 'hand' ? this.wheels() : this.wheels(({ driven }) => !driven);
		if (entry.kind !== 'live-recording') return [];
		switch (entry.payload.purpose?.what) {
			case 'wiggle':
				return this.wheels().filter((position) => position !== entry.payload.purpose?.position);
			case 'in-gear':
				return this.wheels(({ driven }) => !driven);
			case 'wheel-round':
				return this.wheels();
			default:
				return entry.payload.onStands ? this.wheels() : [];
		}
	}

	private wheels(which: (wheel: VehicleType['wheels'][number]) => boolean = () => true): Position[] {
		return this.type?.wheels.filter(which).map(({ position }) => position) ?? [...CAR_POSITIONS];
	}
}
