import { toast } from 'svelte-sonner';
import { outbox } from '$lib/away/outbox.svelte';

/** Whether a log is kept now, is too large for this server, or did not get there. */
export type LogSent = 'kept' | 'too-large' | 'failed';
const TOO_LARGE = 413;

/** Puts a packed log beside the thread, under the id of the entry that will speak of it. Sent again, nothing changes. */
export async function sendLog(
	caseId: string,
	entryId: string,
	packed: Uint8Array<ArrayBuffer>
): Promise<LogSent> {
	const sent = await outbox.record({
		id: entryId,
		caseId,
		what: 'Frame log',
		path: `/cases/${caseId}/read/log/${entryId}/file`,
		method: 'PUT',
		type: 'application/gzip',
		body: packed
	});
	if (sent.state !== 'refused') return 'kept';
	if (sent.status === TOO_LARGE) return 'too-large';
	toast.error(`${sent.why} Nothing was saved; it is still here.`);
	return 'failed';
}
