import { toast } from 'svelte-sonner';

/** Puts a packed log beside the thread, under the id of the entry that will speak of it. Sent again, nothing changes. */
export async function sendLog(
	caseId: string,
	entryId: string,
	packed: Uint8Array<ArrayBuffer>
): Promise<boolean> {
	const response = await fetch(`/cases/${caseId}/read/log/${entryId}/file`, {
		method: 'PUT',
		headers: { 'content-type': 'application/gzip' },
		body: packed
	}).catch(() => null);
	if (response?.ok) return true;
	const said = (await response?.json().catch(() => null)) as { message?: string } | null;
	toast.error(`${said?.message ?? 'The server cannot be reached.'} Nothing was saved; it is still here.`);
	return false;
}
