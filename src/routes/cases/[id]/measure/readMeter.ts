/** What the meter at this workplace is asked for: a measurement of the library, or a place of the wiring. */
export type MeterAsked =
	{ measurement: string; position: string } | { place: string; mode: 'volts-dc' | 'ohms'; black: string };

/** Reads the meter that is connected here; null = over its range. Throws with a sentence. */
export async function readMeter(caseId: string, asked: MeterAsked): Promise<number | null> {
	const response = await fetch(`/cases/${caseId}/measure/read`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify(asked)
	}).catch(() => null);
	if (!response) throw new Error('The server cannot be reached.');
	const answer = (await response.json().catch(() => null)) as {
		value?: number | null;
		message?: string;
	} | null;
	if (!response.ok) throw new Error(answer?.message ?? 'The meter does not answer.');
	return answer?.value ?? null;
}

/** What a thrown thing says to a person. */
export const saidBy = (error: unknown): string => (error instanceof Error ? error.message : String(error));
