<script lang="ts">
	import '../app.css';
	import { afterNavigate, beforeNavigate } from '$app/navigation';
	import { page } from '$app/state';
	import { leaveFieldsByKey } from '$lib/ui/keys';
	import { refreshAll } from '$lib/ui/refresh';
	import { reportSlow, reportTrouble } from '$lib/ui/reportTrouble';
	import { onMount } from 'svelte';
	import { Toaster } from 'svelte-sonner';

	import { keepInTime } from '$lib/away/keepPages';
	import { PAGES_OF_SHOP } from '$lib/away/keptPages';
	import { outbox, serverAnswers } from '$lib/away/outbox.svelte';
	import AwayBar from './AwayBar.svelte';
	import DecoderDialog from './DecoderDialog.svelte';
	import SignInOver from './SignInOver.svelte';
	import { giveBackTypedEarly } from './typedEarly';
	import { lockWhenLeft, lockWithOthers } from './lockWhenLeft';

	let { children, data } = $props();
	/** A page that takes longer is told to the server: whoever waits does not call. */
	const SLOW_MS = 3_000;
	let leftAt = 0;
	beforeNavigate(() => void (leftAt = performance.now()));
	afterNavigate(({ to, type }) => {
		const ms = performance.now() - (type === 'enter' ? 0 : leftAt);
		if (ms > SLOW_MS && data.member) reportSlow(to?.url.pathname ?? '', ms);
		if (data.member && !outbox.away) keepInTime([to?.url.pathname ?? '/', ...PAGES_OF_SHOP]);
	});
	/** What fails outside every page: a timer, a promise that nobody waits for. */
	const failed = (event: Event) => {
		if (!data.member) return;
		reportTrouble('reason' in event ? event.reason : 'error' in event ? event.error : event.type);
	};
	onMount(leaveFieldsByKey);
	onMount(() => outbox.begin(() => data.member));
	/** A page that was kept shows itself where the server took too long: it is brought up to date once that answers. */
	const OLD_MS = 60_000;
	onMount(async () => {
		const made = Date.parse(document.documentElement.dataset.made ?? '');
		if (Math.abs(Date.now() - made) > OLD_MS && (await serverAnswers())) await refreshAll();
	});
	onMount(() => {
		giveBackTypedEarly();
		// From here on a click is answered by the page itself.
		document.documentElement.dataset.ready = '';
	});
	/** What happened meanwhile was not heard, and the page may be one that was kept. */
	let wasAway = false;
	$effect(() => {
		if (!outbox.away && wasAway) void refreshAll();
		wasAway = outbox.away;
	});
	$effect(() => (data.member ? lockWithOthers() : undefined));
	$effect(() => lockWhenLeft(data.member ? data.lockAfterMinutes : 0));
	$effect(() => {
		document.documentElement.dataset.keys = data.singleKeys ? 'on' : 'off';
	});
	$effect(() => {
		// A page that is read across the bay has the bay's colours whatever the reader's own are.
		document.documentElement.dataset.theme = page.data.colours ?? data.theme;
	});
</script>

<svelte:window onerror={failed} onunhandledrejection={failed} />
{#if data.trouble}<p role="alert" class="no-print bg-ink px-6 py-3 font-semibold text-base-200">
		{data.trouble}
	</p>{/if}
<AwayBar signedIn={data.member !== null} />
{@render children()}
{#if data.member && !page.url.pathname.startsWith('/sign-in')}<SignInOver
		username={data.member.username}
	/>{/if}
{#if data.member}<DecoderDialog
		canWrite={data.member.role === 'technician' || data.member.role === 'lead'}
	/>{/if}
<Toaster
	position="bottom-left"
	toastOptions={{
		style: 'background: var(--color-neutral); color: var(--color-neutral-content); border: 0; font: inherit;'
	}}
/>
