import { POSITIONS, type Position } from '../../../library';

/** One leg of a drive: reach a speed within a time, evenly. */
export interface DriveLeg {
	toKmh: number;
	overS: number;
}

export const STRAIGHT_DRIVE: DriveLeg[] = [
	{ toKmh: 20, overS: 6 },
	{ toKmh: 20, overS: 20 },
	{ toKmh: 65, overS: 14 },
	{ toKmh: 65, overS: 150 },
	{ toKmh: 0, overS: 12 },
	{ toKmh: 0, overS: 2 }
];

/** How the vehicle moves: on the road by a profile, or on stands with single wheels turned by hand. */
export class Motion {
	speedMps = 0;
	odometerM: number;
	private legs: DriveLeg[] = [];
	private hand = new Map<Position, number>();

	constructor(odometerKm: number) {
		this.odometerM = odometerKm * 1000;
	}

	get driving(): boolean {
		return this.legs.length > 0;
	}

	drive(legs: DriveLeg[]): void {
		this.hand.clear();
		this.legs = legs.map((leg) => ({ ...leg }));
	}

	stop(): void {
		this.legs = [];
		this.speedMps = 0;
		this.hand.clear();
	}

	/** Turns one lifted wheel by hand; zero lets go. Refused (false) while the vehicle drives. */
	spin(position: Position, kmh: number): boolean {
		if (this.driving || this.speedMps > 0) return false;
		if (kmh > 0) this.hand.set(position, kmh / 3.6);
		else this.hand.delete(position);
		return true;
	}

	step(dtS: number): void {
		const leg = this.legs[0];
		if (leg) {
			const target = leg.toKmh / 3.6;
			const share = Math.min(1, dtS / Math.max(dtS, leg.overS));
			this.speedMps += (target - this.speedMps) * share;
			leg.overS -= dtS;
			if (leg.overS <= 1e-9) {
				this.speedMps = target;
				this.legs.shift();
			}
		}
		this.odometerM += this.speedMps * dtS;
	}

	/** True speed of each wheel in m/s. */
	wheelMps(position: Position): number {
		return this.speedMps > 0 ? this.speedMps : (this.hand.get(position) ?? 0);
	}

	wheelsKmh(): Record<Position, number> {
		return Object.fromEntries(POSITIONS.map((p) => [p, this.wheelMps(p) * 3.6])) as Record<Position, number>;
	}
}
