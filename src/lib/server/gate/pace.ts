import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

const WINDOW_S = 60;
/** What costs (papers, bundles, files taken in) may be asked for this much less often. */
const COSTS_TIMES = 25;
/** A person at a page that follows a recording asks ten times a second at most; this is five times that. */
export const USUAL_PER_MINUTE = 3_000;

/** How often one person, or one address where nobody is signed in, may ask in a minute. */
export class Pace {
	private readonly all: RateLimiterMemory;
	private readonly costly: RateLimiterMemory;

	constructor(perMinute = USUAL_PER_MINUTE) {
		const costly = Math.max(1, Math.floor(perMinute / COSTS_TIMES));
		this.all = new RateLimiterMemory({ points: perMinute, duration: WINDOW_S });
		this.costly = new RateLimiterMemory({ points: costly, duration: WINDOW_S });
	}

	/** Counts one request. @returns seconds to wait; 0 = go on */
	async waitS(who: string, costs: boolean): Promise<number> {
		try {
			await this.all.consume(who);
			if (costs) await this.costly.consume(who);
			return 0;
		} catch (error) {
			if (!(error instanceof RateLimiterRes)) throw error;
			return Math.max(1, Math.ceil(error.msBeforeNext / 1000));
		}
	}
}
