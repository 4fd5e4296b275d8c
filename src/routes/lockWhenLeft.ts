import { outbox } from '$lib/away/outbox.svelte';

const MINUTE_MS = 60_000;
const LOOK_EVERY_MS = 10_000;
const TOUCHES = ['pointerdown', 'keydown', 'wheel', 'touchstart'] as const;
/** Shared by the windows of one screen: a touch in any of them counts for all. */
const TOUCHED = 'jaldi:touched';

/** When this screen was last touched, ms; a browser that keeps nothing knows its own window alone. */
function touchedAt(own: number): number {
	try {
		return Math.max(own, Number(localStorage.getItem(TOUCHED) ?? 0));
	} catch {
		return own;
	}
}

function tell(now: number): void {
	try {
		localStorage.setItem(TOUCHED, String(now));
	} catch {
		// A browser that keeps nothing: its own window counts.
	}
}

/** The windows of one screen are locked together. */
const LOCKED = 'jaldi:locked';
const lockedPage = () => `/locked?back=${encodeURIComponent(location.pathname + location.search)}`;

/** Says to the other windows of this screen that it is locked. */
export function tellLocked(): void {
	try {
		localStorage.setItem(LOCKED, String(Date.now()));
	} catch {
		// A browser that keeps nothing: the others find out when they ask for something.
	}
}

/** Shows nothing more here once another window of this screen was locked. @returns how it is stopped */
export function lockWithOthers(): () => void {
	const heard = ({ key, newValue }: StorageEvent) => {
		if (key === LOCKED && newValue !== null && location.pathname !== '/locked') location.assign(lockedPage());
	};
	addEventListener('storage', heard);
	return () => removeEventListener('storage', heard);
}

/** Locks a screen that nobody has touched for so long. What was typed is in its drafts. @returns how it is stopped */
export function lockWhenLeft(minutes: number): (() => void) | undefined {
	if (minutes <= 0 || location.pathname === '/locked') return undefined;
	let own = Date.now();
	const touched = () => {
		const now = Date.now();
		if (now - own > LOOK_EVERY_MS) tell(now);
		own = now;
	};
	tell(own);
	const timer = setInterval(() => {
		// Without the server nobody could open it again, and whoever is out with it goes on recording.
		if (outbox.away || Date.now() - touchedAt(own) < minutes * MINUTE_MS) return;
		clearInterval(timer);
		const form = document.createElement('form');
		form.method = 'POST';
		form.action = `/locked?/lock&back=${encodeURIComponent(location.pathname + location.search)}`;
		document.body.append(form);
		form.submit();
	}, LOOK_EVERY_MS);
	for (const kind of TOUCHES) addEventListener(kind, touched, { passive: true, capture: true });
	return () => {
		clearInterval(timer);
		for (const kind of TOUCHES) removeEventListener(kind, touched, { capture: true });
	};
}
