import { flashesInTurn } from '../../core/blink/flashesOf';
import type { Flash } from '../../core/blink/readFlashes';

/** Dark, before the first showing. */
const LEAD_S = 1.5;

/** A lamp that counts out codes, one after the other and then from the first again. */
export class LampTelling {
	private flashes: Flash[] = [];
	private fromS = 0;

	/** @param codes the groups of flashes of each @param rounds how often all of them are shown */
	begin(codes: readonly (readonly number[])[], rounds: number, timeS: number): void {
		this.flashes = flashesInTurn(codes, rounds);
		this.fromS = timeS + LEAD_S;
	}

	stop(): void {
		this.flashes = [];
	}

	/** Whether it is lit at this moment; null while it tells nothing. */
	lit(timeS: number): boolean | null {
		const atS = timeS - this.fromS;
		if (atS > (this.flashes.at(-1)?.offS ?? -Infinity)) return null;
		return this.flashes.some(({ onS, offS }) => atS >= onS && atS < (offS ?? onS));
	}
}
