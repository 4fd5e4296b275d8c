/** Something that modules hang on: a fuse, a ground point, a splice, a segment of the bus. */
export interface Feed {
	kind: 'fuse' | 'ground' | 'splice' | 'segment';
	name: string;
	where: string;
}

export interface NetworkModule {
	name: string;
	answered: boolean;
	suppliedBy: readonly Feed[];
}

/** A feed that could explain silence, and how well. */
export interface SharedFeed {
	feed: Feed;
	/** Silent modules that hang on it. */
	silent: string[];
	/** Modules that hang on it and answer: it works at least up to their branches. */
	answering: string[];
}

/**
 * Feeds of the silent modules, the best explanation first: one that explains the most silent modules while nothing that
 * answers hangs on it. A feed with an answering module stays in the list, last: its branch can still be broken.
 */
export function sharedFeeds(modules: readonly NetworkModule[]): SharedFeed[] {
	const byKey = new Map<string, SharedFeed>();
	for (const { name, answered, suppliedBy } of modules) {
		for (const feed of suppliedBy) {
			const key = `${feed.kind}/${feed.name}`;
			const shared = byKey.get(key) ?? { feed, silent: [], answering: [] };
			(answered ? shared.answering : shared.silent).push(name);
			byKey.set(key, shared);
		}
	}
	return [...byKey.values()]
		.filter((shared) => shared.silent.length > 0)
		.sort(
			(a, b) =>
				Number(a.answering.length > 0) - Number(b.answering.length > 0) ||
				b.silent.length - a.silent.length ||
				a.answering.length - b.answering.length
		);
}
