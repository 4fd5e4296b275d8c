/** Something that a person has recorded, as the request that tells the server of it. */
export interface Recorded {
	/** Of the entry, photo or capture that it makes: sent twice, it is stored once. */
	id: string;
	/** What it is about; null = no case. */
	caseId: string | null;
	/** What it is, for whoever looks at what waits: `Repair`, `Photo`. */
	what: string;
	/** What it says, as far as a few words tell it from others of its kind. */
	gist?: string;
	/** Where it is told, from the server's root. */
	path: string;
	method?: 'POST' | 'PUT';
	/** Of the body. */
	type: string;
	body: string | Uint8Array<ArrayBuffer>;
}

const MOST_GIST = 90;
const IS_NAME = /^([0-9A-Z]{26}|[0-9a-f]{64}|waits:.*|\d{4}-\d\d-\d\dT.*)$/;

/** The longest text in what was recorded that is no id, hash or time: what tells it from others of its kind. */
export function gistOf(recorded: unknown): string {
	const texts = (one: unknown): string[] =>
		typeof one === 'string'
			? IS_NAME.test(one)
				? []
				: [one]
			: one && typeof one === 'object'
				? Object.values(one).flatMap(texts)
				: [];
	const longest = texts(recorded).reduce((a, b) => (b.length > a.length ? b : a), '');
	return longest.length > MOST_GIST ? `${longest.slice(0, MOST_GIST)}…` : longest;
}

export const keyOf = ({ id, path }: Pick<Recorded, 'id' | 'path'>): string => `${id} ${path}`;

/** One that waits on this device, without its body, which may be large. */
export interface Waiting extends Omit<Recorded, 'body'> {
	/** Goes up: what was recorded first goes first. */
	seq: number;
	/** Its own, where a file and the entry that speaks of it share an id. */
	key: string;
	bytes: number;
	/** Whoever recorded it; it goes under nobody else's name. */
	by: string;
	byName: string;
	/** When it was recorded, ISO 8601. */
	at: string;
	/** Why the server does not take it; it stays until somebody lets it go. */
	refused?: string;
	/** It was refused because its case was signed meanwhile. */
	signed?: boolean;
}

/** What the server makes of one, as whoever sends it has to know. */
export type Answer =
	/** It is stored. `text` is the answer itself. */
	| { state: 'arrived'; text: string }
	/** What no sending again can mend. */
	| { state: 'refused'; status: number; text: string; why: string; signed: boolean }
	/** Nobody is signed in, the screen is locked, or it is somebody else's. */
	| { state: 'shut'; why: string }
	/** The server is out of reach, or cannot take it now. */
	| { state: 'later'; away: boolean };

/** Whoever asks again in a moment is served. */
const NOT_NOW = new Set([408, 425, 429, 502, 503, 504]);
/** Said by what stands before a server that does not answer it. */
const BEFORE_IT = new Set([502, 504]);

/** A form's answer, and an answer of anything else. */
interface Said {
	id?: unknown;
	message?: unknown;
	signed?: unknown;
	type?: unknown;
	location?: unknown;
	data?: unknown;
	error?: { message?: unknown };
}

/** The first sentence in what a form was refused with: its message, or what stands at a field. */
function refusalIn(data: unknown): string | null {
	const { form, message } = (data ?? {}) as {
		form?: { message?: unknown; errors?: unknown };
		message?: unknown;
	};
	if (typeof message === 'string') return message;
	if (typeof form?.message === 'string') return form.message;
	const sentences = (one: unknown): string[] =>
		typeof one === 'string'
			? [one]
			: one && typeof one === 'object'
				? Object.values(one).flatMap(sentences)
				: [];
	return sentences(form?.errors)[0] ?? null;
}

/**
 * Reads the server's answer to one that was sent. Only its own word that it is stored counts: a page of somebody else's in its
 * place – a network's own sign-in – is none.
 *
 * @param read how an answer's text becomes a value; throws where it is none of ours
 */
export async function readAnswer(
	id: string,
	response: Response,
	read: (text: string) => unknown
): Promise<Answer> {
	const { status } = response;
	if (NOT_NOW.has(status)) return { state: 'later', away: BEFORE_IT.has(status) };
	const text = await response.text().catch(() => null);
	if (text === null) return { state: 'later', away: true };
	let said: Said | null = null;
	try {
		said = (read(text) ?? {}) as Said;
	} catch {
		// Not our own words: judged by its status alone.
	}
	const message = [said?.message, said?.error?.message].find((one) => typeof one === 'string') as
		string | undefined;
	if (response.redirected || status === 401) return { state: 'shut', why: message ?? 'Sign in first.' };
	// Whoever stands before the server may refuse in its place, such as what is too large: asked again it would for ever.
	if (said === null && !(status >= 400 && status < 500)) return { state: 'later', away: true };
	const formTaken = said?.type === 'success' || said?.type === 'redirect';
	if (response.ok && (said?.id === id || formTaken)) return { state: 'arrived', text };
	if (response.ok && said?.type === undefined) return { state: 'later', away: true };
	const why = message ?? refusalIn(said?.data) ?? `the server answered ${status}`;
	// Only our own words are read further.
	return { state: 'refused', status, text: said === null ? '' : text, why, signed: said?.signed === true };
}

/** Of a photo that has not been sent: the server's own hash of it takes this place when it has. */
const NOT_KNOWN = /waits:([0-9A-Z]{26})/g;
export const hashToCome = (photoId: string): string => `waits:${photoId}`;

/** A body with the hashes of the photos that have arrived by now. */
export const withHashes = (body: string, hashOf: (photoId: string) => string | null | undefined): string =>
	body.replace(NOT_KNOWN, (whole, photoId: string) => hashOf(photoId) ?? whole);
export const photosIn = (body: string): string[] => [...body.matchAll(NOT_KNOWN)].map(([, id]) => id ?? '');
