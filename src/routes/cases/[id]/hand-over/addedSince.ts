/**
 * What stands on the thread after the entry that somebody has looked at, newest first.
 * @param seen its hash
 */
export function addedSince<Line extends { hash: string }>(
	{ lines, headHash }: { lines: Line[]; headHash: string | null },
	seen: string
): Line[] {
	const at = lines.findIndex(({ hash }) => hash === seen);
	return at < 0 ? lines.slice(0, headHash === seen ? 0 : lines.length) : lines.slice(0, at);
}
