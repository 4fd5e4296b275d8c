import { goto } from '$app/navigation';
import { useKeys } from '$lib/ui/keys';

/** Keys that every page of the bench has, beside its own. */
export function useBenchKeys(
	where: () => { caseId: string; at: string },
	own: Parameters<typeof useKeys>[0] = {}
) {
	const to = (path: string) => () => {
		const { caseId, at } = where();
		void goto(`/cases/${caseId}/measure${path}?at=${at}`);
	};
	useKeys({
		m: to(''),
		o: to('/scope'),
		s: to('/substitute'),
		h: to('/halve'),
		l: to('/look'),
		...own
	});
}
