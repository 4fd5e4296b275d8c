/** Runs long work part by part: between two parts everything that arrived meanwhile is served. */
export async function inParts<T>(parts: Generator<void, T>): Promise<T> {
	for (;;) {
		const { done, value } = parts.next();
		if (done) return value;
		await new Promise((resolve) => setImmediate(resolve));
	}
}
