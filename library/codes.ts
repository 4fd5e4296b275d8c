import type { z } from 'zod';
import { CodePack, PACK_FORMAT, type CodeDefinition, type PackHead } from './codePack';
import chassisTable from './codes/chassis-table.json' with { type: 'json' };
import circuitNumbering from './codes/circuit-numbering.json' with { type: 'json' };
import lostSpeed from './codes/lost-speed.json' with { type: 'json' };
import brindle from './codes/maker-brindle.json' with { type: 'json' };
import hexley from './codes/maker-hexley.json' with { type: 'json' };
import norvane from './codes/maker-norvane.json' with { type: 'json' };
import ottaro from './codes/maker-ottaro.json' with { type: 'json' };
import velmora from './codes/maker-velmora.json' with { type: 'json' };
import networkTable from './codes/network-table.json' with { type: 'json' };
import { HEAVY_SOURCE, heavyParameters } from './failureTypes';

/** What one source says about one code. */
export interface SourcedDefinition extends CodeDefinition {
	pack: Pick<PackHead, 'id' | 'name' | 'source' | 'date' | 'maker'> & {
		/** Typical conditions are ours and stand under no standard's name. */
		conditions?: PackHead['conditions'];
		/** The shop's own words, written to correct the others. */
		own?: boolean;
	};
}

/** Everything that is known of codes, wherever it is kept. */
export interface CodeBook {
	/** What each source says about a code, by its number (`C0035`, `SPN 789`, `=01314`), the most trusted first. */
	definitions(code: string): readonly SourcedDefinition[];
}

/** In order of trust: a later one speaks only where it adds or disagrees. */
export const shippedPacks: readonly CodePack[] = [
	circuitNumbering,
	chassisTable,
	networkTable,
	lostSpeed,
	brindle,
	norvane,
	ottaro,
	velmora,
	hexley,
	heavyPack()
].map((file) => CodePack.parse(file));

/** Parameters of heavy vehicles that have codes. */
function heavyPack(): z.input<typeof CodePack> {
	return {
		format: PACK_FORMAT,
		version: 1,
		id: 'heavy-parameters',
		name: 'Heavy vehicle parameters',
		source: HEAVY_SOURCE,
		conditions: 'typical',
		date: '2026-11-25',
		definitions: [...heavyParameters.values()].map(({ spn, name, group, corner }) => ({
			code: `SPN ${spn}`,
			title: name,
			group,
			corner
		}))
	};
}

/** A book over packs, in the order given. */
export function bookOf(packs: Iterable<CodePack>): CodeBook {
	const byCode = new Map<string, SourcedDefinition[]>();
	for (const { id, name, source, date, maker, conditions, definitions } of packs) {
		for (const definition of definitions) {
			const list = byCode.get(definition.code) ?? [];
			list.push({ ...definition, pack: { id, name, source, date, maker, conditions } });
			byCode.set(definition.code, list);
		}
	}
	return { definitions: (code) => byCode.get(code) ?? [] };
}

export const shippedBook: CodeBook = bookOf(shippedPacks);

export interface Asked {
	/** Its number: `C0035`, `SPN 789`, `=01314`. */
	code: string;
	/** Null where the spelling names no kind of failure. */
	failureType?: string | null;
	/** Maker of the vehicle, where it is known: its own sources speak first, other makers' not at all. */
	maker?: string | null;
}

/** Such codes are one with their kind of failure: no definition is for one kind alone. */
const hasNoSuffix = (code: string) => code.startsWith('=');

/**
 * The sources that have something to say about a code as asked, the one to follow first. Each source speaks once, by its
 * definition for this kind of failure if it has one: the shop's own words, then the vehicle maker's, then the others.
 */
export function sourcesFor(
	book: CodeBook,
	{ code, failureType = null, maker = null }: Asked
): SourcedDefinition[] {
	const fitting = book
		.definitions(code)
		.filter((d) => d.failureType === null || d.failureType === failureType || hasNoSuffix(code))
		.filter((d) => d.pack.maker === null || d.pack.maker === maker);
	const distance = (d: SourcedDefinition) => (d.pack.own ? 0 : d.pack.maker !== null ? 1 : 2);
	const bySource = new Map<string, SourcedDefinition>();
	for (const d of fitting) {
		const known = bySource.get(d.pack.id);
		if (!known || (known.failureType === null && d.failureType !== null)) bySource.set(d.pack.id, d);
	}
	return [...bySource.values()].sort((a, b) => distance(a) - distance(b));
}

/**
 * The definition that names the code: the shop's own if there is one, else the first that is not tied to one kind of
 * failure, since the suffix is told beside it.
 */
export function titleSource(book: CodeBook, asked: Asked): SourcedDefinition | null {
	const sources = sourcesFor(book, asked);
	const general = sourcesFor(book, { ...asked, failureType: null });
	return sources.find((source) => source.pack.own) ?? general[0] ?? sources[0] ?? null;
}

/** What must happen before a code's test completes, by the most trusted source that says so. */
export const testConditionsOf = (book: CodeBook, asked: Asked) =>
	sourcesFor(book, asked).find((d) => d.testConditions !== null)?.testConditions ?? null;
