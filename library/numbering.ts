import { wheelCircuitOf } from './codePack';
import { shippedPacks, type CodeBook } from './codes';
import priorsFile from './reason/priors.json' with { type: 'json' };

/**
 * Two numberings are in use for the same codes: by circuit since the 1990s (C0035, C0040, C0045, C0050 are the four wheels), and
 * the newer table, where C0034 to C003B and C0040 on mean something else. One vehicle uses one of them, for all its codes.
 */
export const NUMBERINGS = ['circuit', 'table'] as const;
export type Numbering = (typeof NUMBERINGS)[number];
const PACK: Record<Numbering, string> = { circuit: 'circuit-numbering', table: 'chassis-table' };

/** How often each is met where nothing tells. */
export const NUMBERING_ODDS: Record<Numbering, number> = priorsFile.numbering;

const definitionsIn = (numbering: Numbering) =>
	new Map(
		(shippedPacks.find(({ id }) => id === PACK[numbering])?.definitions ?? []).map((one) => [one.code, one])
	);
const [circuit, table] = [definitionsIn('circuit'), definitionsIn('table')];
const says = (one: { group: string; corner: string | null } | undefined) => `${one?.group}/${one?.corner}`;

/** Codes that mean one thing by one numbering and another by the other. */
export const ambiguousCodes: ReadonlySet<string> = new Set(
	[...circuit.keys()].filter((code) => table.has(code) && says(circuit.get(code)) !== says(table.get(code)))
);
const circuitsOf = (of: typeof circuit) =>
	[...of]
		.filter(([, one]) => one.group === 'wheel-speed' && wheelCircuitOf(one) !== null)
		.map(([code]) => code);
/** The four circuits of the older numbering; rings have no number of their own in it, and borrow the table's. */
const CIRCUITS = circuitsOf(circuit);
/** Sensors and their feeds that only the newer table has: a module that knows one of them is numbered by it. */
const TABLE_ONLY = circuitsOf(table).filter((code) => !circuit.has(code));

/**
 * The numbering of a module by the codes that it knows (its answer to 19 0A, or the codes it told).
 *
 * @param whole the list is whole: then the four circuits tell the older numbering
 */
export function numberingByCodes(codes: ReadonlySet<string>, whole: boolean): Numbering | null {
	if (whole && CIRCUITS.every((code) => codes.has(code))) return 'circuit';
	return TABLE_ONLY.some((code) => codes.has(code)) ? 'table' : null;
}

/** The numbering that the maker's own source, or the shop's, goes by: the one that says the same of the wheels. */
export function numberingBySource(book: CodeBook, maker: string | null): Numbering | null {
	for (const code of ambiguousCodes)
		for (const one of book.definitions(code)) {
			const corner = wheelCircuitOf(one);
			if (corner === null || !(one.pack.own || (one.pack.maker !== null && one.pack.maker === maker)))
				continue;
			if (wheelCircuitOf(circuit.get(code)) === corner) return 'circuit';
			if (wheelCircuitOf(table.get(code)) === corner) return 'table';
		}
	return null;
}

/** The numbering that a source belongs to; null for any other source. */
export const numberingOfSource = (packId: string): Numbering | null =>
	NUMBERINGS.find((one) => PACK[one] === packId) ?? null;

const byNumbering = new WeakMap<CodeBook, Partial<Record<Numbering, CodeBook>>>();

/** A book by one numbering: what the other says of the codes that both have is not followed. The same book each time. */
export function bookBy(book: CodeBook, numbering: Numbering): CodeBook {
	const made = byNumbering.get(book) ?? {};
	byNumbering.set(book, made);
	const other = NUMBERINGS.find((one) => one !== numbering) ?? numbering;
	made[numbering] ??= {
		definitions: (code) => {
			const all = book.definitions(code);
			return ambiguousCodes.has(code) ? all.filter(({ pack }) => pack.id !== PACK[other]) : all;
		}
	};
	return made[numbering];
}

/** Whether a vehicle's maker, or the shop itself, says what a code is: then no numbering has to be asked for. */
export const isSettledBySource = (book: CodeBook, code: string, maker: string | null): boolean =>
	book
		.definitions(code)
		.some(({ pack }) => pack.own === true || (pack.maker !== null && pack.maker === maker));
