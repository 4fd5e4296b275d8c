/** Does what a hand would do at the simulated vehicle of a case. Throws with a sentence where it cannot be done now. */
export async function standInHand(caseId: string, action: object): Promise<void> {
	const response = await fetch(`/cases/${caseId}/stand-in`, {
		method: 'POST',
		body: JSON.stringify(action)
	}).catch(() => null);
	if (!response) throw new Error('The server cannot be reached.');
	if (response.ok) return;
	const said = (await response.json().catch(() => null)) as { error?: string; message?: string } | null;
	throw new Error(said?.error ?? said?.message ?? 'The simulated vehicle refused.');
}
