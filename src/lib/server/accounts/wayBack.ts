/** Where somebody was on the way to, by `back`; only ever a page of ours. */
export function wayBack(url: URL, origin: string): string {
	const back = url.searchParams.get('back') ?? '/';
	const there = URL.canParse(back, origin) ? new URL(back, origin) : null;
	return there?.origin === origin && /^\/(?![/\\])/.test(back) ? there.pathname + there.search : '/';
}
