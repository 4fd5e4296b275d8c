/** Something that the answers and silences of a scan say together. */
export interface NetworkFinding {
	title: string;
	/** What to do about it, in one sentence. */
	todo: string;
	/** Why, and what else it shows. */
	text: string;
}
