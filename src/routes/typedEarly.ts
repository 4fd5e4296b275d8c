/** A field as the server sent it, and what was made of it before the page's scripts took it over. */
interface Early {
	field: HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;
	value: string;
	checked: boolean;
}
let early: Early[] = [];

const TICKED = new Set(['checkbox', 'radio']);
const NOT_TYPED = new Set(['hidden', 'file', 'submit', 'button']);

/** What the server sent it with; of a choice that it marked none of, the first. */
function sentValue(field: Early['field']): string {
	if (!(field instanceof HTMLSelectElement)) return field.defaultValue;
	const options = [...field.options];
	return (options.find(({ defaultSelected }) => defaultSelected) ?? options[0])?.value ?? '';
}

/** How a field says that something was typed or chosen. */
const TYPED = ['input', 'change'] as const;

function note(): void {
	early = [...document.querySelectorAll<Early['field']>('input, textarea, select')].flatMap((field) => {
		const checked = 'checked' in field && field.checked;
		const typed = TICKED.has(field.type)
			? field instanceof HTMLInputElement && checked !== field.defaultChecked
			: field.value !== sentValue(field);
		return typed && !NOT_TYPED.has(field.type) ? [{ field, value: field.value, checked }] : [];
	});
}

/**
 * Notes what stands in the fields of the page otherwise than the server sent it: typed while the scripts were
 * still on their way, on a slow tablet a matter of seconds. To be called before the page is taken over, which
 * sets every field back to what was sent; what is typed until then is noted as it comes, since the page's own parts
 * arrive after this.
 */
export function noteTypedEarly(): void {
	note();
	for (const kind of TYPED) document.addEventListener(kind, note, true);
}

/** Puts it back, as if it were typed now. To be called once the page has been taken over. */
export function giveBackTypedEarly(): void {
	for (const kind of TYPED) document.removeEventListener(kind, note, true);
	for (const { field, value, checked } of early) {
		if (!field.isConnected) continue;
		if (TICKED.has(field.type)) {
			// A click, so that the group it is part of and whoever listens to it follow.
			if ('checked' in field && field.checked !== checked) field.click();
		} else if (field.value !== value) {
			field.value = value;
			field.dispatchEvent(
				new Event(field instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true })
			);
		}
	}
	early = [];
}
