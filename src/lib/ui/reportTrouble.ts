const LONGEST = 1_500;
/** One page that fails again and again tells it so often. */
const MOST_TOLD = 20;
let told = 0;

/** Tells the server's log what failed on a page: whoever keeps the shop running hears of it without being called. */
export function reportTrouble(error: unknown): void {
	tell(error instanceof Error ? (error.stack ?? error.message) : String(error), false);
}

/** Tells that a page took long, as whoever waited saw it. */
export const reportSlow = (path: string, ms: number): void =>
	tell(`${(ms / 1000).toFixed(1)} s until ${path.replace(/[0-9A-HJKMNP-TV-Z]{26}/g, '…')} was there`, true);

function tell(text: string, slow: boolean): void {
	if (++told > MOST_TOLD) return;
	void fetch('/page-trouble', {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ path: location.pathname.slice(0, 200), text: text.slice(0, LONGEST), slow })
	}).catch(() => undefined);
}
