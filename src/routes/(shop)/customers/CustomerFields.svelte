<script lang="ts" module>
	/** What a customer may be written to or called for. */
	export const CONSENT_WORDS = {
		job: 'about the vehicle that is here',
		reminders: 'about that, and when something is due again',
		nothing: 'about nothing: they call us'
	} as const;
	export interface CustomerTyped {
		name: string;
		phone: string;
		email: string;
		address: string;
		note: string;
		consent: keyof typeof CONSENT_WORDS;
		consentHow: string;
	}
</script>

<script lang="ts">
	import Field from '$lib/ui/Field.svelte';

	/** What is written down of a customer. Whatever is not known stays empty. */
	let {
		values = $bindable(),
		errors
	}: {
		values: CustomerTyped;
		errors: Partial<Record<keyof CustomerTyped, string[]>>;
	} = $props();
</script>

<div class="grid gap-4 sm:grid-cols-2">
	<Field label="Name" errors={errors.name}
		><input class="field" autocomplete="off" maxlength="120" bind:value={values.name} /></Field
	>
	<Field label="Telephone" errors={errors.phone}
		><input class="field num" type="tel" autocomplete="off" maxlength="60" bind:value={values.phone} /></Field
	>
	<Field label="E-mail" errors={errors.email}
		><input class="field" type="email" autocomplete="off" maxlength="200" bind:value={values.email} /></Field
	>
	<Field label="Address" errors={errors.address}
		><input class="field" autocomplete="off" maxlength="300" bind:value={values.address} /></Field
	>
	<Field label="We may write and call" errors={errors.consent}>
		<select class="field" bind:value={values.consent}>
			{#each Object.entries(CONSENT_WORDS) as [id, words] (id)}<option value={id}>{words}</option>{/each}
		</select>
	</Field>
	<Field label="How they said so" errors={errors.consentHow}
		><input
			class="field"
			maxlength="200"
			placeholder="at the counter, on the intake sheet"
			bind:value={values.consentHow}
		/></Field
	>
</div>
<div class="mt-4">
	<Field label="To remember" errors={errors.note}
		><textarea
			class="field"
			rows="2"
			maxlength="1000"
			placeholder="call after four; the key goes into the box by the gate"
			bind:value={values.note}></textarea></Field
	>
</div>
