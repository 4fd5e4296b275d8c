import { toast } from 'svelte-sonner';

/** Whether a log is kept now, is too large for this server, or did not get there. */
export type LogSent = 'kept' | 'too-large' | 'failed';
const TOO_LARGE = 413;

/** Puts a packed log beside the thread, under the id of the entry that will speak of it. Sent again, nothing changes. */
export async function sendLog(
	caseId: string,
	entryId: string,
	packed: Uint8Array<ArrayBuffer>
): Promise<LogSent> {
	const response = await fetch(`/cases/${caseId}/read/log/${entryId}/file`, {
		method: 'PUT',
		headers: { 'content-type': 'application/gzip' },
		body: packed
	}).catch(() => null);
	if (response?.ok) return 'kept';
	if (response?.status === TOO_LARGE) return 'too-large';
	const said = (await response?.json().catch(() => null)) as { message?: string } | null;
	toast.error(`${said?.message ?? 'The server cannot be reached.'} Nothing was saved; it is still here.`);
	return 'failed';
}
